/**
 * A document read straight through, field by field, by what its classes declare: most documents keep every rule, and to see
 * that costs a hundredth of what finding and wording a breach does.
 */
import { type Constructor, classFields } from './field';
import { type Json, isDictionary } from './pointer';

interface Plan {
  /** What a class has where nothing is said, in the order of its declaration. */
  defaults: [string, Json][];
  checks: Map<string, (value: unknown) => boolean>;
  groups: Map<string, () => Constructor>;
  lists: Map<string, () => Constructor>;
  limits: Map<string, number>;
  /** Fields that must be said. */
  required: string[];
}

const plans = new Map<Constructor, Plan>();

function planOf(type: Constructor): Plan {
  const known = plans.get(type);
  if (known) return known;
  const { kinds, optional, groups, lists, checks } = classFields(type)!;
  const sample = plain(new type()) as Record<string, Json>;
  const limits = new Map([...kinds].flatMap(([key, kind]) => (kind.kind === 'list' ? [[key, kind.limit] as const] : [])));
  const plan: Plan = {
    defaults: Object.entries(sample),
    checks,
    groups,
    lists,
    limits,
    required: [...checks.keys(), ...groups.keys(), ...lists.keys()].filter((key) => !optional.has(key) && sample[key] === undefined),
  };
  plans.set(type, plan);
  return plan;
}

/** A copy without classes; a field whose value is undefined is absent. */
function plain(value: Json): Json {
  if (Array.isArray(value)) return value.map(plain);
  if (typeof value !== 'object' || value === null) return value;
  const copy: Record<string, Json> = {};
  for (const [key, item] of Object.entries(value)) if (item !== undefined) copy[key] = plain(item);
  return copy;
}

/**
 * @returns what the input says with the defaults of the class, as plain data; undefined where a rule is broken, or may be:
 * then the rules themselves must be asked
 */
export function read(type: Constructor, input: Json): Record<string, Json> | undefined {
  if (!isDictionary(input)) return undefined;
  const plan = planOf(type);
  const made: Record<string, Json> = {};
  for (const [key, value] of plan.defaults) made[key] = typeof value === 'object' ? plain(value) : value;
  for (const key of Object.keys(input)) {
    const value = readField(plan, key, input[key]);
    if (value === undefined) return undefined;
    made[key] = value;
  }
  for (const key of plan.required) if (made[key] === undefined) return undefined;
  return made;
}

function readField(plan: Plan, key: string, value: Json): Json {
  const group = plan.groups.get(key);
  if (group) return read(group(), value);
  const item = plan.lists.get(key);
  if (item) {
    if (!Array.isArray(value) || value.length > plan.limits.get(key)!) return undefined;
    const type = item();
    const items: Json[] = [];
    for (const each of value) {
      const one = read(type, each);
      if (one === undefined) return undefined;
      items.push(one);
    }
    return items;
  }
  return plan.checks.get(key)?.(value) ? plain(value) : undefined;
}

/** A group or an item of a list, and the steps that lead to it. */
interface Part {
  type: Constructor;
  value: Json;
  at: string[];
}

/** The groups and items of an object all of whose own fields keep their rules; undefined where one of them may not. */
export function partsBelow(type: Constructor, input: Json): Part[] | undefined {
  if (!isDictionary(input)) return undefined;
  const { defaults, checks, groups, lists, limits, required } = planOf(type);
  const said = new Set([...defaults.map(([key]) => key), ...Object.keys(input)]);
  if (required.some((key) => !said.has(key))) return undefined;
  const parts: Part[] = [];
  for (const [key, value] of Object.entries(input)) {
    const group = groups.get(key);
    const item = lists.get(key);
    if (group) {
      if (!isDictionary(value)) return undefined;
      parts.push({ type: group(), value, at: [key] });
    } else if (item) {
      if (!Array.isArray(value) || value.length > limits.get(key)! || !value.every(isDictionary)) return undefined;
      value.forEach((one: Record<string, Json>, i) =>
        parts.push({ type: item(), value: one, at: [key, typeof one.id === 'string' ? one.id : String(i)] }),
      );
    } else if (value === undefined || !checks.get(key)?.(value)) return undefined;
  }
  return parts;
}
