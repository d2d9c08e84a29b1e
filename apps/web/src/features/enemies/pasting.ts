/** What pasting a part into a unit would do. Pure. */
import {
  Attack,
  Choice,
  type Constructor,
  Senses,
  State,
  type Unit,
  changesWithin,
  fitted,
  idFor,
  nameFor,
  traitsOf,
  wordingSentence,
} from '@insidia/core';
import type { Copied, PartKind } from './copied';

const CLASSES: Record<PartKind, Constructor> = { attack: Attack, state: State, choice: Choice, senses: Senses };

/** What pasting would do: to which part, what changes, and what has to be left out because it refers to what is not there. */
export function pasting(clip: Copied, base: Unit): { id: string; lines: string[]; how: (unit: Unit) => void; lost: string[] } {
  const lost: string[] = [];
  const { value } = clip;
  if (clip.kind === 'senses') {
    const lines = changesWithin(CLASSES.senses, base.senses, value).map(wordingSentence);
    return { id: '', lines, lost, how: (unit) => (unit.senses = structuredClone(clip.value)) };
  }
  if (clip.kind === 'choice') {
    const { part: choice, lost: gone } = fitted(Choice, structuredClone(clip.value), base);
    const lines = changesWithin(CLASSES.choice, base.choice, choice).map(wordingSentence);
    return { id: '', lines, lost: gone, how: (unit) => (unit.choice = choice) };
  }
  const list = clip.kind === 'attack' ? 'attacks' : 'states';
  const items = base[list] as { id: string; name: string }[];
  let item = structuredClone(clip.value) as { id: string; name: string };
  const same = items.find(({ name }) => name === item.name);
  item.id =
    same?.id ??
    idFor(
      item.id,
      items.map(({ id }) => id),
    );
  item.name =
    same?.name ??
    nameFor(
      item.name,
      items.map(({ name }) => name),
    );
  const fits = fitted(CLASSES[clip.kind], item, { ...base, [list]: [...items, item] });
  item = fits.part;
  lost.push(...fits.lost);
  const lines = same
    ? changesWithin(CLASSES[clip.kind], same, item).map((line) => `${item.name}: ${wordingSentence(line)}`)
    : [`${item.name}: added`, ...(clip.kind === 'attack' ? ['choice: it comes into the last priority'] : [])];
  return {
    id: item.id,
    lines,
    lost,
    how: (unit) => {
      const own = unit[list] as { id: string }[];
      const index = own.findIndex(({ id }) => id === item.id);
      if (index >= 0) own[index] = item;
      else own.push(item);
      if (index < 0 && clip.kind === 'attack' && traitsOf(clip.value.delivery).chosen) {
        if (!unit.choice.priorities.length) unit.choice.priorities.push({ entries: [] });
        unit.choice.priorities[unit.choice.priorities.length - 1].entries.push({ attack: item.id, weight: 1 });
      }
    },
  };
}
