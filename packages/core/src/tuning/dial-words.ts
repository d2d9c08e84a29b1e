/** What dials and their values are called where people read them. */
import { pointerOf, pointerSteps, valueAt } from '../model/pointer';
import type { FieldTweak } from '../model/tweak';
import { type Constructor } from '../model/field';
import { fieldAt } from '../model/field-at';
import { Project } from '../model/project';
import { type Dial, dialOfTurn, dialQuantity, turnTo } from './dial';
import { Unit } from '../model/unit';
import { fieldLabel, fieldWords, itemName, placeName } from '../model/words';
import { unitHeads } from '../model/variants';
import { writtenUnit } from '../model/effective';
import { itemStep } from '../model/walk';
import { ENTRY, type Turn, placesOfTurn } from '../model/turn';

export interface DialWords {
  /** "Bite: cooldown" */
  name: string;
  /** "Clipper", "Evening Shift", "enemies of the role swarm" */
  whose: string;
  /** Written behind its value; × for a factor. */
  unit: string;
}

/** What a dial is called. */
export function dialWords(project: Project, dial: Dial): DialWords {
  const steps = pointerSteps(dial.path);
  const unit = dial.op === '×' ? '×' : (dialQuantity(project, dial)?.unit ?? '');
  if (steps[0] === 'units') {
    const whose = steps[1] === '*' ? groupWords(dial.role) : (unitHeads(project).find(({ id }) => id === steps[1])?.name ?? steps[1]);
    const within = steps.slice(2);
    if (isEntryDial(project, dial)) return { name: entryName(project, steps, safeUnit(project, steps[1]), within), whose, unit };
    if (within.includes('*')) return { name: placeName(pointerOf(...within)), whose, unit };
    return { name: nameWithin(project, steps, Unit, within), whose, unit };
  }
  const tweak =
    steps[steps.length - 3] === 'tweaks' ? (valueAt(project, pointerOf(...steps.slice(0, -1))) as FieldTweak | undefined) : undefined;
  const owner = (project[steps[0] as 'encounters'] as { id: string; name: string }[] | undefined)?.find?.(({ id }) => id === steps[1]);
  const whose = owner?.name ?? project.name;
  if (isEntryDial(project, dial)) return { name: entryName(project, steps, project, steps), whose, unit };
  if (tweak) return { name: `tweak of ${placeName(tweak.path).toLowerCase()}`, whose, unit: tweak.op === '×' ? '×' : '' };
  return { name: nameWithin(project, steps, Project, steps), whose, unit };
}

/** Whether a dial takes an entry of a list out. */
export const isEntryDial = (project: Project, dial: Dial): boolean =>
  dial.to === false && placesOfTurn(project, turnTo(dial, false)).some(({ field }) => field === ENTRY);

/** "attacks: Bite", "choice, priorities: 2". @param within the steps from what it stands in */
function entryName(project: Project, steps: readonly string[], from: object | undefined, within: readonly string[]): string {
  const list = steps.slice(0, -1);
  const item = valueAt(from, pointerOf(...within)) as object | undefined;
  const last = steps[steps.length - 1];
  const own = item && itemName(list, item);
  const of = nameWithin(project, list, steps[0] === 'units' ? Unit : Project, steps[0] === 'units' ? list.slice(2) : list);
  return `${of}: ${own ?? (Number.isNaN(Number(last)) ? last : Number(last) + 1)}`;
}

const groupWords = (role: string | undefined): string =>
  role === undefined ? 'everybody' : role === 'enemy' ? 'all enemies' : role === 'party' ? 'the party' : `all of the role ${role}`;

/** "Bite: cooldown": the last thing with a name on the way, and what the field is called. */
function nameWithin(project: Project, steps: readonly string[], root: Constructor, within: readonly string[]): string {
  const label = fieldLabel(root, within);
  let value: unknown = root === Unit ? safeUnit(project, steps[1]) : project;
  let named: string | undefined;
  const groups: string[] = [];
  within.slice(0, -1).forEach((step, i) => {
    const list = Array.isArray(value);
    value = list
      ? (value as unknown[]).find((one, index) => itemStep(one, index) === step)
      : (value as Record<string, unknown> | undefined)?.[step];
    const name = (value as { name?: string } | undefined)?.name;
    const outer = root === Project && i < 2;
    if (list && name && !outer) {
      named = name;
      groups.length = 0;
    } else if (!list && !outer && fieldAt(root, within.slice(0, i + 1))?.kind === 'group')
      groups.push(fieldLabel(root, within.slice(0, i + 1)));
  });
  const group = groups[groups.length - 1];
  const says = group === undefined || PLAIN.test(within[within.length - 2] ?? '') || label.toLowerCase().startsWith(group.toLowerCase());
  const plain = says ? label : `${group.toLowerCase()}, ${label.toLowerCase()}`;
  return named ? `${named}: ${plain.toLowerCase()}` : plain;
}

/** Groups whose fields' labels say enough by themselves. */
const PLAIN = /^(beat|health|body|movement|senses|effects|aim)$/;

function safeUnit(project: Project, id: string): Unit | undefined {
  return unitHeads(project).some((head) => head.id === id) ? writtenUnit(project, id) : undefined;
}

/** A value of a dial as people read it: "1.75 s", "× 1.2", "yes". */
export function dialValue(project: Project, dial: Dial, value: Turn['value']): string {
  if (dial.op === '×') return `× ${Number(Number(value).toPrecision(4))}`;
  if (typeof value === 'boolean' && isEntryDial(project, dial)) return value ? 'there' : 'taken out';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const steps = pointerSteps(dial.path);
  const unitPath = steps[0] === 'units' ? steps.slice(2) : steps;
  if (typeof value === 'string')
    return fieldWords(steps[0] === 'units' ? Unit : Project, unitPath).find(({ id }) => id === value)?.name ?? value;
  const { unit } = dialWords(project, dial);
  return `${Number(value.toPrecision(6))}${unit ? ` ${unit}` : ''}`;
}

/** "Clipper, Health 24 hp": a dial put somewhere. */
export function putWords(project: Project, dial: Dial, value: Turn['value']): string {
  const { name, whose } = dialWords(project, dial);
  return `${whose}, ${name} ${dialValue(project, dial, value)}`;
}

/** "Clipper, Health 24 hp; …": what is turned, in words; what leads nowhere is left out. */
export function turnsWords(project: Project, turns: readonly Turn[]): string {
  const words = turns.flatMap((turn) => {
    const dial = dialOfTurn(project, turn);
    return dial ? [putWords(project, dial, turn.value)] : [];
  });
  return words.join('; ');
}
