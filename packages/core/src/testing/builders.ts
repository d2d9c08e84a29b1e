/** Small documents for tests: everything not said is the format's default. */
import { compile } from '../engine/compile';
import { EVENT, type EventLog } from '../record/log';
import { run } from '../engine/run';
import type { Compiled } from '../engine/tables';
import { type Constructor, classFields } from '../model/field';
import { parseProject } from '../model/validate';
import { FORMAT_VERSION, Project } from '../model/project';

type Loose = Record<string, unknown>;

export interface UnitSketch extends Loose {
  id: string;
  attacks?: Loose[];
}

/** A unit that uses all its attacks in one priority, standing still unless states are given. */
export function unit({ id, attacks = [], ...rest }: UnitSketch): Loose {
  const entries = attacks.map((attack) => ({ attack: attack.id, weight: attack.weight ?? 1 }));
  return {
    id,
    name: id,
    side: 'enemy',
    senses: { sight: 400, lose: 500 },
    choice: { priorities: [{ entries }] },
    attacks: attacks.map(({ weight: _, ...attack }) => ({
      name: attack.id,
      delivery: 'melee',
      range: { min: 0, max: 5 },
      arc: 360,
      ...attack,
    })),
    ...rest,
  };
}

/** A dummy that neither moves nor attacks. */
export const dummy = (id: string, max: number, rest: Loose = {}): Loose => unit({ id, side: 'party', health: { max }, ...rest });

export interface FightSketch {
  party: Loose[];
  enemies: { unit: Loose; count?: number; x?: number; y?: number; facing?: number; scatter?: number; group?: Loose }[];
  /** More units of the project: what is summoned. */
  others?: Loose[];
  /** More of the arena, the encounter and its one wave. */
  arena?: Loose;
  encounter?: Loose;
  wave?: Loose;
  /** Waves besides the one. */
  waves?: Loose[];
  styles?: Loose[];
  variants?: Loose[];
  partyAt?: { x: number; y: number; facing?: number };
  limit?: number;
  width?: number;
  depth?: number;
  tiers?: Loose[];
  traits?: Loose[];
  skills?: Loose[];
}

/** One wave at once on open ground; each enemy group at its own point. */
export function sketched({
  party,
  enemies,
  others = [],
  partyAt = { x: 0, y: 0 },
  limit = 60,
  width = 800,
  depth = 800,
  tiers = [],
  traits = [],
  skills = [],
  styles = [],
  variants = [],
  arena = {},
  encounter = {},
  wave = {},
  waves = [],
}: FightSketch): Loose {
  const units = new Map([...party, ...enemies.map((enemy) => enemy.unit), ...others].map((u) => [u.id as string, u]));
  const spawnPoints = enemies.map(({ x = 2, y = 0, facing = 180, scatter = 0 }, i) => ({
    id: `p${i}`,
    name: `p${i}`,
    x,
    y,
    facing,
    scatter,
  }));
  const groups = enemies.map(({ unit: { id }, count = 1, group }, i) => ({
    id: `g${i}`,
    enemy: id,
    count: { min: count, max: count },
    at: [`p${i}`],
    alerted: true,
    ...group,
  }));
  return {
    format: 'insidia-project',
    version: FORMAT_VERSION,
    id: 'test',
    name: 'Test',
    units: [...units.values()],
    variants,
    arenas: [{ id: 'ground', name: 'Ground', width, depth, partyStart: partyAt, spawnPoints, ...arena }],
    encounters: [
      {
        id: 'fight',
        name: 'Fight',
        arena: 'ground',
        party: party.map((member, i) => ({ id: `m${i}`, unit: member.id })),
        limit,
        waves: [{ id: 'w1', name: 'Wave 1', groups, ...wave }, ...waves],
        ...encounter,
        ends: { also: standing(arena, encounter?.ends), ...(encounter?.ends as object) },
      },
    ],
    traits,
    tiers,
    skills,
    styles,
  };
}

/** Points with health stand unless a sketch says who keeps or attacks them, or which stand besides. */
function standing(arena: Loose | undefined, ends: unknown): string[] {
  const { defend = [], destroy = [] } = (ends ?? {}) as { defend?: string[]; destroy?: string[] };
  const points = (arena?.points ?? []) as { id: string; health?: number }[];
  return points.filter(({ id, health }) => health !== undefined && ![...defend, ...destroy].includes(id)).map(({ id }) => id);
}

export function project(sketch: FightSketch): Project {
  return parseProject(sketched(sketch));
}

/** A class's defaults under what a sketch says, at every depth: what parsing does, without judging it. For generated fights. */
function filled(type: Constructor, value: Loose): Loose {
  const whole: Loose = { ...(new type() as Loose), ...value };
  const fields = classFields(type);
  fields?.groups.forEach((group, key) => {
    if (whole[key] !== undefined) whole[key] = filled(group(), whole[key] as Loose);
  });
  fields?.lists.forEach((item, key) => {
    if (whole[key] !== undefined) whole[key] = (whole[key] as Loose[]).map((one) => filled(item(), one));
  });
  return Object.fromEntries(Object.entries(whole).filter(([, v]) => v !== undefined));
}

export function compiled(sketch: FightSketch, stepSeconds?: number): Compiled {
  return compile(project(sketch), { encounter: 'fight', stepSeconds });
}

/** The same for a sketch that is known to be valid, many times faster. */
export function compiledTrusted(sketch: FightSketch, stepSeconds?: number): Compiled {
  return compile(projectTrusted(sketch), { encounter: 'fight', stepSeconds });
}

export function projectTrusted(sketch: FightSketch): Project {
  return filled(Project, sketched(sketch)) as unknown as Project;
}

export interface Entry {
  time: number;
  actor: number;
  other: number;
  what: number;
  a: number;
  b: number;
  c: number;
  d: number;
}

/** The events of one kind, in seconds. */
export function eventsOf(log: EventLog, kind: keyof typeof EVENT): Entry[] {
  const found: Entry[] = [];
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] !== EVENT[kind]) continue;
    found.push({
      time: log.time[i] / 1e6,
      actor: log.actor[i],
      other: log.other[i],
      what: log.what[i],
      a: log.a[i],
      b: log.b[i],
      c: log.c[i],
      d: log.d[i],
    });
  }
  return found;
}

export function fought(sketch: FightSketch, seed = 1, stepSeconds?: number) {
  return run(compiled(sketch, stepSeconds), seed);
}
