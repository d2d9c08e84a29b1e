/** What a table of units can show: every number that a unit has by itself, and those of its first attacks and states. */
import {
  type Clock,
  type Project,
  Unit,
  clocksIn,
  fieldLabel,
  placesOfNumbers,
  pointerSteps,
  unitHeads,
  valueAt,
  writtenUnit,
} from '@insidia/core';

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
  'rounds/windup',
  'rounds/recovery',
  'rounds/cooldown',
  'rounds/from',
  'rounds/to',
  'aim/near',
  'aim/far',
  'energy',
  'dash/distance',
  'dash/speed',
  'dash/after',
];
const STATE_FIELDS = [
  'paceFactor',
  'stopAt',
  'near',
  'far',
  'radius',
  'roams/min',
  'roams/max',
  'roams/stands',
  'decides/min',
  'decides/max',
  'leaves/0/weight',
  'leaves/1/weight',
  'leaves/2/weight',
];
/** Items of these lists, by their place, that have columns. */
const BY_PLACE = [
  { list: 'attacks', called: 'attack', fields: ATTACK_FIELDS, count: 3 },
  { list: 'states', called: 'state', fields: STATE_FIELDS, count: 3 },
] as const;

/** What is shown at first, by the clock of the fights that units are in. */
export const FIRST_COLUMNS: Readonly<Record<Clock, readonly string[]>> = {
  continuous: [
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
  ],
  rounds: [
    '/health/max',
    '/armour/flat',
    '/rounds/order',
    '/rounds/actions',
    '/rounds/moves',
    '/rounds/size',
    'attack 1 effects/damage/amount',
    'attack 1 rounds/windup',
    'attack 1 rounds/cooldown',
    'attack 1 rounds/from',
    'attack 1 rounds/to',
  ],
};

/** In turns where all fights of all units of a side take turns. */
export function clockOfSide(project: Project, side: Unit['side']): Clock {
  const clocks = clocksIn(project);
  const units = unitHeads(project).filter((head) => head.side === side);
  return units.length > 0 && units.every(({ id }) => !clocks(id).has('continuous')) ? 'rounds' : 'continuous';
}

/** A pointer into some unit at which the numbers of a column lie: "attack 2 range/max" is of attacks. */
export const exampleOf = (id: string): string => id.replace(/^(attack|state) \d+ /, '/$1s/0/');

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
  for (const { list, called, fields, count } of BY_PLACE)
    for (let i = 0; i < count; i++)
      for (const field of fields) {
        const pathOf = (unit: Unit) => {
          const item = unit[list][i];
          const path = item && `/${list}/${item.id}/${field}`;
          return path && typeof valueAt(unit, path) === 'number' ? path : undefined;
        };
        if (!units.some((unit) => pathOf(unit) !== undefined)) continue;
        columns.push({ id: `${called} ${i + 1} ${field}`, label: `${capital(called)} ${i + 1}: ${nameOf(list, field)}`, unit: '', pathOf });
      }
  return columns;
}

const capital = (word: string) => `${word.charAt(0).toUpperCase()}${word.slice(1)}`;

/** "decides from", "way 2 weight" */
function nameOf(list: string, field: string): string {
  const steps = field.split('/');
  const own = fieldLabel(Unit, [list, '0', ...steps]).toLowerCase();
  return steps[0] === 'leaves' ? `way ${Number(steps[1]) + 1} ${own}` : steps[0] === 'dash' ? `movement ${own}` : own;
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
