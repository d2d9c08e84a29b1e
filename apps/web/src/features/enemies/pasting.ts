/** What pasting a part into a unit would do. Pure. */
import {
  Attack,
  Choice,
  type Constructor,
  Senses,
  State,
  type Unit,
  attacksNamed,
  changesWithin,
  idFor,
  nameFor,
  wordingSentence,
} from '@insidia/core';
import type { Copied, PartKind } from '../../store/clipboard';

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
    const choice = structuredClone(clip.value);
    for (const priority of choice.priorities)
      priority.entries = priority.entries.filter(({ attack }) => {
        const known = base.attacks.some(({ id }) => id === attack);
        if (!known) lost.push(attack);
        return known;
      });
    const hasAttack = (id: string) => base.attacks.some((one) => one.id === id);
    for (const priority of choice.priorities)
      for (const asked of [priority, ...priority.entries])
        if (!attacksNamed(asked.condition).every(hasAttack)) {
          lost.push('a condition');
          delete asked.condition;
        }
    const lines = changesWithin(CLASSES.choice, base.choice, choice).map(wordingSentence);
    return { id: '', lines, lost, how: (unit) => (unit.choice = choice) };
  }
  const list = clip.kind === 'attack' ? 'attacks' : 'states';
  const items = base[list] as { id: string; name: string }[];
  const item = structuredClone(clip.value) as { id: string; name: string };
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
  if (clip.kind === 'attack') fitAttack(item as unknown as Attack, base, lost);
  else fitState(item as unknown as State, base, lost);
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
      if (index < 0 && clip.kind === 'attack' && clip.value.delivery !== 'contact') {
        if (!unit.choice.priorities.length) unit.choice.priorities.push({ entries: [] });
        unit.choice.priorities[unit.choice.priorities.length - 1].entries.push({ attack: item.id, weight: 1 });
      }
    },
  };
}

function fitAttack(attack: Attack, base: Unit, lost: string[]): void {
  if (attack.next && !base.attacks.some(({ id }) => id === attack.next?.attack)) {
    lost.push(`follow-up ${attack.next.attack}`);
    delete attack.next;
  }
  if (!attacksNamed(attack.condition).every((id) => id === attack.id || base.attacks.some((one) => one.id === id))) {
    lost.push('its condition');
    delete attack.condition;
  }
}

function fitState(state: State, base: Unit, lost: string[]): void {
  const knows = (id: string) => id === state.id || base.states.some((one) => one.id === id);
  const hasAttack = (id: string) => base.attacks.some((one) => one.id === id);
  state.leaves = state.leaves.filter(({ to, when }) => {
    const fits = knows(to) && attacksNamed(when).every(hasAttack);
    if (!fits) lost.push(`the way to ${to}`);
    return fits;
  });
  if (state.only) {
    lost.push(...state.only.filter((id) => !hasAttack(id)));
    state.only = state.only.filter(hasAttack);
  }
  if (state.onEnter?.attack && !hasAttack(state.onEnter.attack)) {
    lost.push(`begins ${state.onEnter.attack}`);
    delete state.onEnter.attack;
  }
}
