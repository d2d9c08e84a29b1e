/**
 * What the document's classes say about one field: its rule (enforced by class-validator) and its label, unit and
 * limits (read by forms, by effective values and by the published schema). Said once, here, next to the field.
 */
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  Allow,
  ArrayMaxSize,
  ArrayMinSize,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested,
  registerDecorator,
} from 'class-validator';

/** One number of the document, as a form or an effective value needs to know it. */
export interface QuantityInfo {
  label: string;
  /** Written behind the number: m, s, hp, °, m/s, ×; empty for a bare count. */
  unit: string;
  min: number;
  max: number;
  /** Whole numbers only; effective values are rounded half up. */
  whole?: boolean;
  /** One sentence for the tooltip and the schema. */
  about: string;
}

export type Constructor = new () => object;

/** What kind of value a field holds, as a form needs to know it. */
export type FieldKind =
  | { kind: 'number'; info: QuantityInfo }
  | { kind: 'word'; words: readonly string[] }
  | { kind: 'someOf'; words: readonly string[] }
  | { kind: 'words' }
  | { kind: 'yesNo' }
  | { kind: 'text' | 'name'; limit: number }
  | { kind: 'id' }
  | { kind: 'group'; type: () => Constructor }
  | { kind: 'list'; type: () => Constructor; limit: number };

/** What is known of a class beyond its validation rules, by property. */
export interface ClassFields {
  /** Every field, in the order in which the class declares them. */
  kinds: Map<string, FieldKind>;
  /** Fields that may be absent. */
  optional: Set<string>;
  quantities: Map<string, QuantityInfo>;
  groups: Map<string, () => Constructor>;
  lists: Map<string, () => Constructor>;
  /** Whether a value keeps the field's rule; groups and lists are asked item by item. What passes here, passes the rules. */
  checks: Map<string, Check>;
}

type Check = (value: unknown) => boolean;

const registry = new Map<object, ClassFields>();

function fieldsOf(prototype: object): ClassFields {
  let fields = registry.get(prototype);
  if (!fields) {
    fields = { kinds: new Map(), optional: new Set(), quantities: new Map(), groups: new Map(), lists: new Map(), checks: new Map() };
    registry.set(prototype, fields);
  }
  return fields;
}

/** The fields of a class, with those it inherits; undefined for a class that declares none. */
export function classFields(type: Constructor): ClassFields | undefined {
  const known = merged.get(type);
  if (known) return known;
  let found: ClassFields | undefined;
  for (let prototype = type.prototype as object; prototype; prototype = Object.getPrototypeOf(prototype) as object) {
    const fields = registry.get(prototype);
    if (!fields) continue;
    found = {
      kinds: new Map([...fields.kinds, ...(found?.kinds ?? [])]),
      optional: new Set([...fields.optional, ...(found?.optional ?? [])]),
      quantities: new Map([...fields.quantities, ...(found?.quantities ?? [])]),
      groups: new Map([...fields.groups, ...(found?.groups ?? [])]),
      lists: new Map([...fields.lists, ...(found?.lists ?? [])]),
      checks: new Map([...fields.checks, ...(found?.checks ?? [])]),
    };
  }
  if (found) merged.set(type, found);
  return found;
}

const merged = new Map<Constructor, ClassFields>();

/** Notes what kind of value a field holds. */
function note(kind: FieldKind): PropertyDecorator {
  return (target, key) => void fieldsOf(target).kinds.set(String(key), kind);
}

/** Notes what the rules beside it ask, in a form that costs nothing; only these see most documents. */
function passes(check: Check): PropertyDecorator {
  return (target, key) => void fieldsOf(target).checks.set(String(key), check);
}

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
/** Characters are counted by the rules in their own way; where that makes a difference to too few, they decide. */
const isText = (value: unknown, most: number, least = 0) =>
  typeof value === 'string' && value.length <= most && value.length >= least && !/[\uFE0E\uFE0F]/.test(value);
const isList = (value: unknown, most: number, item: Check) => Array.isArray(value) && value.length <= most && value.every(item);

/** Applies decorators in order; a shorthand for the combinations below. */
function all(...decorators: PropertyDecorator[]): PropertyDecorator {
  return (target, key) => decorators.forEach((decorate) => decorate(target, key));
}

/** The field may be absent. (Unlike a null, which no field accepts.) */
export function Optional(): PropertyDecorator {
  return (target, key) => {
    fieldsOf(target).optional.add(String(key));
    ValidateIf((_, value) => value !== undefined)(target, key);
  };
}

/** A finite number between stated limits, with its unit. */
export function Quantity(info: QuantityInfo): PropertyDecorator {
  return (target, key) => {
    fieldsOf(target).quantities.set(String(key), info);
    all(
      note({ kind: 'number', info }),
      passes((value) => isNumber(value) && value >= info.min && value <= info.max && (!info.whole || Number.isInteger(value))),
      info.whole ? IsInt() : IsNumber({ allowNaN: false, allowInfinity: false }),
      Min(info.min),
      Max(info.max),
    )(target, key);
  };
}

/** A nested object of the model. */
export function Group(type: () => Constructor): PropertyDecorator {
  return (target, key) => {
    fieldsOf(target).groups.set(String(key), type);
    all(note({ kind: 'group', type }), Type(type), IsGroup(), ValidateNested())(target, key);
  };
}

/** A list of objects of the model. */
export function ListOf(type: () => Constructor, limit: number): PropertyDecorator {
  return (target, key) => {
    fieldsOf(target).lists.set(String(key), type);
    all(
      note({ kind: 'list', type, limit }),
      Type(type),
      IsArray(),
      ArrayMaxSize(limit),
      IsGroup(true),
      ValidateNested({ each: true }),
    )(target, key);
  };
}

/** One word out of a stated set; words that are part of the format but not built yet are refused by name. */
export function OneOf(words: readonly string[], planned: readonly string[] = []): PropertyDecorator {
  return (target, key) => {
    if (planned.length) NotBuiltWord(planned)(target, key);
    all(
      note({ kind: 'word', words }),
      passes((value) => words.includes(value as string)),
      IsIn([...words]),
    )(target, key);
  };
}

/** Yes or no. */
export function YesNo(): PropertyDecorator {
  return all(
    note({ kind: 'yesNo' }),
    passes((value) => typeof value === 'boolean'),
    IsBoolean(),
  );
}

const IDENTIFIER = /^[a-z0-9]+(-[a-z0-9]+)*$/;

/** A stable identifier: what references and pointers use. */
export function Identifier(): PropertyDecorator {
  return all(
    note({ kind: 'id' }),
    passes((value) => isText(value, 60) && IDENTIFIER.test(value as string)),
    IsString(),
    Matches(IDENTIFIER, { message: 'must be lower-case letters, digits and single hyphens' }),
    MaxLength(60),
  );
}

/** What people see. */
export function Name(): PropertyDecorator {
  return all(
    note({ kind: 'name', limit: 80 }),
    passes((value) => isText(value, 80, 1)),
    IsString(),
    MinLength(1),
    MaxLength(80),
  );
}

/** Free text up to a limit. */
export function Text(limit: number): PropertyDecorator {
  return all(
    note({ kind: 'text', limit }),
    passes((value) => isText(value, limit)),
    IsString(),
    MaxLength(limit),
  );
}

/** A list of words: roles, ids. */
export function Words(limit: number): PropertyDecorator {
  return all(
    note({ kind: 'words' }),
    passes((value) => isList(value, limit, (word) => isText(word, 80, 1))),
    IsArray(),
    ArrayMaxSize(limit),
    IsString({ each: true }),
    MinLength(1, { each: true }),
    MaxLength(80, { each: true }),
  );
}

/** A list of words out of a stated set. */
export function SomeOf(words: readonly string[]): PropertyDecorator {
  return all(
    note({ kind: 'someOf', words }),
    passes((value) => isList(value, words.length, (word) => words.includes(word as string))),
    IsArray(),
    ArrayMaxSize(words.length),
    IsIn([...words], { each: true }),
  );
}

/** One value and no other. */
export function Exactly(only: string | number): PropertyDecorator {
  return all(
    passes((value) => value === only),
    Equals(only),
  );
}

/** Any finite number: what it is a number of is said elsewhere. */
export function AnyNumber(): PropertyDecorator {
  return all(passes(isNumber), IsNumber({ allowNaN: false, allowInfinity: false }));
}

/** Anything at all: what it is for says what it must be. */
export function Anything(): PropertyDecorator {
  return all(
    passes(() => true),
    Allow(),
  );
}

const POINTER = /^(\/[^/]+)+$/;

/** A JSON Pointer (RFC 6901) into a unit or an encounter. */
export function Pointer(example: string): PropertyDecorator {
  return all(
    passes((value) => typeof value === 'string' && POINTER.test(value)),
    IsString(),
    Matches(POINTER, { message: `must be a JSON Pointer such as ${example}` }),
  );
}

/** Ids of what is defined elsewhere, at least one. */
export function Places(limit: number): PropertyDecorator {
  return all(
    passes((value) => isList(value, limit, (id) => typeof id === 'string') && (value as unknown[]).length >= 1),
    IsArray(),
    ArrayMinSize(1),
    ArrayMaxSize(limit),
    IsString({ each: true }),
  );
}

/** A plain object, or a list of them; not a list of lists, a number or null: class-validator alone would let a list through. */
function IsGroup(each = false): PropertyDecorator {
  const isGroup = (value: unknown) => typeof value === 'object' && value !== null && !Array.isArray(value);
  return (target, key) =>
    registerDecorator({
      name: 'isGroup',
      target: target.constructor,
      propertyName: String(key),
      validator: {
        validate: (value) => (each ? !Array.isArray(value) || value.every(isGroup) : isGroup(value)),
        defaultMessage: () => (each ? 'must hold objects only' : 'must be an object'),
      },
    });
}

function NotBuiltWord(planned: readonly string[]): PropertyDecorator {
  return (target, key) =>
    registerDecorator({
      name: 'notBuilt',
      target: target.constructor,
      propertyName: String(key),
      constraints: [planned],
      validator: {
        validate: (value) => !planned.includes(value as string),
        defaultMessage: () => `is part of the format but not built yet: choose another`,
      },
    });
}

/**
 * What kind of value a pointer of the given class leads to, whatever the ids in between; undefined where it leads nowhere.
 * The item a list step names makes no difference; a pointer that ends at an item leads to a group of the item's class.
 */
export function fieldAt(root: Constructor, steps: readonly string[]): FieldKind | undefined {
  let at: FieldKind = { kind: 'group', type: () => root };
  for (const step of steps) {
    if (at.kind === 'list') {
      at = { kind: 'group', type: at.type };
      continue;
    }
    if (at.kind !== 'group') return undefined;
    const next: FieldKind | undefined = classFields(at.type())?.kinds.get(step);
    if (!next) return undefined;
    at = next;
  }
  return at;
}

/** The quantity a pointer of the given class leads to; undefined where it leads to no number. */
export function quantityAt(root: Constructor, steps: readonly string[]): QuantityInfo | undefined {
  const found = fieldAt(root, steps);
  return found?.kind === 'number' ? found.info : undefined;
}
