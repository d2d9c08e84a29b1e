/**
 * What the document's classes say about one field: its rule (enforced by class-validator), what it is called and means, what
 * its words are called, what it refers to, when it applies. Said once, here, next to the field; forms, histories, references,
 * deletion, the published schema and the reference in the docs read it.
 */
import 'reflect-metadata/lite';
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

/** What an id can be the id of, or a name the name of. */
export type RefersTo =
  | 'unit'
  | 'attack'
  | 'state'
  | 'arena'
  | 'spawnPoint'
  | 'point'
  | 'zone'
  | 'encounter'
  | 'wave'
  | 'slots'
  | 'trait'
  | 'tier'
  | 'skill'
  | 'style'
  | 'role'
  | 'flag'
  | 'counter'
  | 'ground'
  | 'damageType'
  | 'attackName';

/** Fields of the same object, and the values that one of which each must have. */
export type When = Readonly<Record<string, readonly string[]>>;

/** What a field refers to, and what becomes of it where that is taken out of the document. */
export interface Reference {
  /** One kind, one of several; or by what another field of the object says. */
  to: readonly RefersTo[] | { by: string; kinds: Readonly<Record<string, RefersTo>> };
  /** May speak of what is not there: then it speaks of nobody. */
  loose?: true;
  /**
   * clears: the field, or the entry of the list, is taken out. takes: so is what holds the field. blocks: what it refers to
   * cannot be taken out before it is changed. Else optional fields and lists clear, and others take.
   * @param holder what holds the field, and the steps that lead there
   */
  gone?: Gone | ((holder: object, at: readonly string[]) => Gone);
}

export type Gone = 'clears' | 'takes' | 'blocks';

/** What is said of any field. */
export interface Said {
  /** What people read beside the value. */
  label?: string;
  /** One sentence for tooltips, the schema and the docs. */
  about?: string;
  /** It has something to say only where other fields of its object say so. */
  when?: When;
  /** Where it has something to say it must be given; or only where other fields say so as well. */
  needed?: true | When;
  /** Where it has nothing to say it must not be given. */
  only?: true;
  /** No tweak changes it: other fields say what it may be, or no fight reads it. */
  fixed?: true;
  /** Whether a fight that takes turns needs it: what of the object that holds it says something that it takes the place of. */
  inTurns?: (object: object) => boolean;
}

/** What is said of a list. */
export interface SaidOfList extends Said {
  /** Its items are what ids of this kind speak of. */
  defines?: RefersTo;
  /** What an item without a name is called. */
  called?: (item: object) => string;
  /** With the last item that a deletion takes out of it goes what holds the list; or the first stays, without what it spoke of. */
  emptied?: 'takes' | 'stays';
}

/** One number of the document, as a form or an effective value needs to know it. */
export interface QuantityInfo extends Said {
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
  /** Words of the format, and what each is called. */
  | { kind: 'word' | 'someOf'; words: readonly string[]; called: Called }
  | { kind: 'words' }
  | { kind: 'yesNo' }
  | { kind: 'text' | 'name'; limit: number }
  | { kind: 'id' }
  | { kind: 'group'; type: () => Constructor }
  | { kind: 'list'; type: () => Constructor; limit: number };

/** The words of a field, each with what people read. */
export type Called = Readonly<Record<string, string>>;

/** What is known of a class beyond its validation rules, by property. */
export interface ClassFields {
  said: Map<string, SaidOfList>;
  references: Map<string, Reference>;
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
    fields = {
      said: new Map(),
      references: new Map(),
      kinds: new Map(),
      optional: new Set(),
      quantities: new Map(),
      groups: new Map(),
      lists: new Map(),
      checks: new Map(),
    };
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
      said: new Map([...fields.said, ...(found?.said ?? [])]),
      references: new Map([...fields.references, ...(found?.references ?? [])]),
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

/** Notes what kind of value a field holds, and what is said of it. */
function note(kind: FieldKind, said: SaidOfList = {}): PropertyDecorator {
  return (target, key) => {
    const fields = fieldsOf(target);
    fields.kinds.set(String(key), kind);
    fields.said.set(String(key), said);
  };
}

const classes = new Map<Constructor, string>();

/** What a class is, in a sentence. */
export function About(sentence: string): ClassDecorator {
  return (type) => void classes.set(type as never, sentence);
}

/** What a class is; that of its parent where it says nothing itself. */
export function classAbout(type: Constructor): string | undefined {
  for (let at = type; at?.prototype; at = Object.getPrototypeOf(at) as Constructor) {
    const about = classes.get(at);
    if (about) return about;
  }
  return undefined;
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
      note({ kind: 'number', info }, info),
      passes((value) => isNumber(value) && value >= info.min && value <= info.max && (!info.whole || Number.isInteger(value))),
      info.whole ? IsInt() : IsNumber({ allowNaN: false, allowInfinity: false }),
      Min(info.min),
      Max(info.max),
    )(target, key);
  };
}

/** A nested object of the model. */
export function Group(type: () => Constructor, said?: Said): PropertyDecorator {
  return (target, key) => {
    fieldsOf(target).groups.set(String(key), type);
    all(note({ kind: 'group', type }, said), Type(type), IsGroup(), ValidateNested())(target, key);
  };
}

/** A list of objects of the model. */
export function ListOf(type: () => Constructor, limit: number, said?: SaidOfList): PropertyDecorator {
  return (target, key) => {
    fieldsOf(target).lists.set(String(key), type);
    all(
      note({ kind: 'list', type, limit }, said),
      Type(type),
      IsArray(),
      ArrayMaxSize(limit),
      IsGroup(true),
      ValidateNested({ each: true }),
    )(target, key);
  };
}

/** One word out of a stated set. */
export function OneOf(called: Called, said?: Said): PropertyDecorator {
  const words = Object.keys(called);
  return all(
    note({ kind: 'word', words, called }, said),
    passes((value) => words.includes(value as string)),
    IsIn(words),
  );
}

/** Yes or no. */
export function YesNo(said?: Said): PropertyDecorator {
  return all(
    note({ kind: 'yesNo' }, said),
    passes((value) => typeof value === 'boolean'),
    IsBoolean(),
  );
}

const IDENTIFIER = /^[a-z0-9]+(-[a-z0-9]+)*$/;

/** A stable identifier: what references and pointers use. */
export function Identifier(said: Said = { label: 'id', about: 'what references and pointers use' }): PropertyDecorator {
  return all(
    note({ kind: 'id' }, said),
    passes((value) => isText(value, 60) && IDENTIFIER.test(value as string)),
    IsString(),
    Matches(IDENTIFIER, { message: 'must be lower-case letters, digits and single hyphens' }),
    MaxLength(60),
  );
}

/** The id of something that is defined elsewhere. */
export function Refers(reference: Reference, said: Said): PropertyDecorator {
  return all(refersTo(reference), Identifier(said));
}

/** The name of something that others may be named too: a role, a kind of ground; or an id where any text may stand. */
export function RefersByName(reference: Reference, limit: number, said: Said): PropertyDecorator {
  return all(refersTo(reference), Text(limit, said));
}

/** Ids or names of what is defined elsewhere. */
export function RefersToSome(reference: Reference, limit: number, said: Said, least: 0 | 1 = 0): PropertyDecorator {
  return all(refersTo(reference), least ? Places(limit, said) : Words(limit, said));
}

function refersTo(reference: Reference): PropertyDecorator {
  return (target, key) => void fieldsOf(target).references.set(String(key), reference);
}

/** What people see. */
export function Name(said: Said = { label: 'Name', about: 'what people see' }): PropertyDecorator {
  return all(
    note({ kind: 'name', limit: 80 }, said),
    passes((value) => isText(value, 80, 1)),
    IsString(),
    MinLength(1),
    MaxLength(80),
  );
}

/** Free text up to a limit. */
export function Text(limit: number, said?: Said): PropertyDecorator {
  return all(
    note({ kind: 'text', limit }, said),
    passes((value) => isText(value, limit)),
    IsString(),
    MaxLength(limit),
  );
}

/** A list of words: roles, ids. */
function Words(limit: number, said: Said): PropertyDecorator {
  return all(
    note({ kind: 'words' }, said),
    passes((value) => isList(value, limit, (word) => isText(word, 80, 1))),
    IsArray(),
    ArrayMaxSize(limit),
    IsString({ each: true }),
    MinLength(1, { each: true }),
    MaxLength(80, { each: true }),
  );
}

/** A list of words out of a stated set. */
export function SomeOf(called: Called, said?: Said): PropertyDecorator {
  const words = Object.keys(called);
  return all(
    note({ kind: 'someOf', words, called }, said),
    passes((value) => isList(value, words.length, (word) => words.includes(word as string))),
    IsArray(),
    ArrayMaxSize(words.length),
    IsIn(words, { each: true }),
  );
}

/** For what no form edits by itself. */
function say(said: Said = {}): PropertyDecorator {
  return (target, key) => void fieldsOf(target).said.set(String(key), said);
}

/** Words that people read as they are. */
export function asTheyAre<W extends string>(words: readonly W[]): Readonly<Record<W, W>> {
  return Object.fromEntries(words.map((word) => [word, word])) as Record<W, W>;
}

/** One value and no other. */
export function Exactly(only: string | number): PropertyDecorator {
  return all(
    passes((value) => value === only),
    Equals(only),
  );
}

/** Any finite number: what it is a number of is said elsewhere. */
export function AnyNumber(said?: Said): PropertyDecorator {
  return all(say(said), passes(isNumber), IsNumber({ allowNaN: false, allowInfinity: false }));
}

const isTweaked = (value: unknown) =>
  typeof value === 'boolean' || Number.isFinite(value) || (typeof value === 'string' && value.length > 0 && value.length <= 40);

/** A number, a word or a yes-or-no, without a rule of its own: what it stands for says which. */
export function AnyValue(said?: Said): PropertyDecorator {
  return all(say(said), passes(isTweaked), (target, key) =>
    registerDecorator({
      name: 'isValue',
      target: target.constructor,
      propertyName: String(key),
      validator: { validate: isTweaked, defaultMessage: () => 'must be a finite number, a word of at most 40 signs, true or false' },
    }),
  );
}

/** Anything at all: what it is for says what it must be. */
export function Anything(said?: Said): PropertyDecorator {
  return all(
    say(said),
    passes(() => true),
    Allow(),
  );
}

const POINTER = /^(\/[^/]+)+$/;

/** A JSON Pointer (RFC 6901) into a unit or an encounter. */
export function Pointer(example: string, said?: Said): PropertyDecorator {
  return all(
    say(said),
    passes((value) => typeof value === 'string' && POINTER.test(value)),
    IsString(),
    Matches(POINTER, { message: `must be a JSON Pointer such as ${example}` }),
  );
}

/** Ids of what is defined elsewhere, at least one. */
function Places(limit: number, said: Said): PropertyDecorator {
  return all(
    note({ kind: 'words' }, said),
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
