/** What a table of units can show: every number that a unit has by itself, and those of its first attacks. */
import { type Project, Unit, fieldLabel, placesOfNumbers, pointerSteps, unitHeads, valueAt, writtenUnit } from '@insidia/core';

export interface Column {
  id: string;
  label: string;
  /** Written under the label. */
  unit: string;
  /** Where a unit has it; undefined where it has not. */
  pathOf: (unit: Unit) => string | undefined;
}

const ATTACK_FIELDS = [
  'effects/damage/amount',
  'beat/windup',
  'beat/recovery',
  'beat/cooldown',
  'range/min',
  'range/max',
  'aim/near',
  'aim/far',
  'energy',
];
/** Attacks, by their place, that have columns. */
const ATTACKS = 3;

export const FIRST_COLUMNS = [
  '/health/max',
  '/armour/flat',
  '/body/radius',
  '/movement/run',
  '/senses/sight',
  '/senses/lose',
  '/senses/reaction/mean',
  'attack 1 effects/damage/amount',
  'attack 1 beat/windup',
  'attack 1 beat/cooldown',
  'attack 1 range/max',
];

/** All columns that some unit of a side has something in, in the order of the model. */
export function columnsOf(project: Project, side: Unit['side']): Column[] {
  const units = unitHeads(project)
    .filter((head) => head.side === side)
    .map(({ id }) => writtenUnit(project, id));
  const plain = new Set<string>();
  for (const unit of units) for (const path of placesOfNumbers(unit)) if (!LISTS.some((list) => path.startsWith(list))) plain.add(path);
  const columns: Column[] = [...plain].map((path) => ({
    id: path,
    label: labelOf(path),
    unit: '',
    pathOf: (unit) => (typeof valueAt(unit, path) === 'number' ? path : undefined),
  }));
  for (let i = 0; i < ATTACKS; i++)
    for (const field of ATTACK_FIELDS) {
      const pathOf = (unit: Unit) => {
        const attack = unit.attacks[i];
        const path = attack && `/attacks/${attack.id}/${field}`;
        return path && typeof valueAt(unit, path) === 'number' ? path : undefined;
      };
      if (!units.some((unit) => pathOf(unit) !== undefined)) continue;
      columns.push({
        id: `attack ${i + 1} ${field}`,
        label: `Attack ${i + 1}: ${fieldLabel(Unit, ['attacks', '0', ...field.split('/')]).toLowerCase()}`,
        unit: '',
        pathOf,
      });
    }
  return columns;
}

/** Lists whose items differ from unit to unit. */
const LISTS = ['/attacks/', '/states/', '/choice/priorities', '/health/gates', '/player/answers', '/armour/resist'];

/** Labels that mean something only with their group. */
function labelOf(path: string): string {
  const steps = pointerSteps(path);
  const own = fieldLabel(Unit, steps);
  const group = steps.length > 2 ? steps[steps.length - 2] : '';
  if (own.startsWith('±')) return `${fieldLabel(Unit, [...steps.slice(0, -1), 'mean'])} ${own}`;
  return group === 'pause' ? `Pause ${own.toLowerCase()}` : own;
}
