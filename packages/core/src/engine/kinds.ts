/** The kinds of units of one encounter, and who stands where at its start. */
import type { Arena } from '../model/arena';
import { effectiveUnit, type Lens, sideIn, traitsAt, tweakApplies, tweakedUnit } from '../model/effective';
import type { Encounter, PartyMember } from '../model/encounter';
import { withRounds } from '../model/derive-rounds';
import { metIn } from '../model/meets';
import type { Project } from '../model/project';
import { traitsBy, tweaksBy } from '../model/trait';
import type { FieldTweak, Tweak } from '../model/tweak';
import { Unit } from '../model/unit';
import { unitHeads } from '../model/variants';
import { microseconds } from '../record/time';
import { cosine, sine } from './body/rotation';
import { shapeOf } from './compile-ground';
import { inRounds } from './compile-rounds';
import { compileUnit, type UnitContext } from './compile-unit';
import type { CompiledMember, CompiledShape, Names } from './tables';
import type { CompiledUnit } from './unit-tables';
import { textKey } from './time/chance';

/** The unit kinds of one encounter: each unit once, and once more for all that traits and growth of waves make of it. */
export class Kinds {
  readonly all: CompiledUnit[] = [];
  readonly names: Names;
  private readonly numbers = new Map<string, number>();
  readonly context: UnitContext;

  constructor(
    private readonly project: Project,
    private readonly lens: Lens,
    private readonly encounter: Encounter,
    private readonly arena: Arena,
    stepSeconds: number,
  ) {
    const heads = new Map(unitHeads(project).map((head) => [head.id, head]));
    const types = this.reachable();
    const units = types.map((type) => this.effective(type));
    this.names = {
      flags: [],
      counters: encounter.counters.map(({ id }) => id),
      waves: encounter.waves.map(({ id }) => id),
      pools: encounter.slots.map(({ id }) => id),
      types: [
        ...types,
        ...arena.points.filter(({ id, health }) => health !== undefined && standsIn(encounter, id)).map(({ id }) => `point:${id}`),
      ],
      roles: [...new Set([...types.map((type) => heads.get(type)?.role ?? ''), POINT_ROLE])],
      attackNames: [],
      damageTypes: [],
      points: arena.points.map(({ id }) => id),
      zones: arena.zones.map(({ id }) => id),
      boosts: [],
    };
    const changes = encounter.events.some(({ then }) => then.some(({ does }) => does === 'tweak' || does === 'trait'));
    const boosts = units.some(({ attacks }) => attacks.some(({ effects }) => effects.boost));
    this.context = {
      names: this.names,
      turns: inRounds(encounter),
      groundless: inRounds(encounter) && encounter.rounds!.ground === 'none',
      step: microseconds(stepSeconds),
      kindOf: (id) => this.of(id),
      groundRules: [{ only: [], never: [] }],
      roleOfType: this.names.types.map((type) => (type.startsWith('point:') ? POINT_ROLE : (heads.get(type)?.role ?? ''))),
      keepSource: changes || boosts || units.some(({ states }) => states.some(({ tweaks }) => tweaks.length)),
    };
  }

  /** Every unit that may appear: the party, allies, waves, and what they summon. */
  private reachable(): string[] {
    const { party } = this.encounter;
    const members = party.slice(0, this.lens.players ?? party.length);
    return metIn(this.encounter, members, (id) => this.effective(id));
  }

  private effective(id: string): Unit {
    return effectiveUnit(this.project, id, this.lens, this.encounter).unit;
  }

  /** The kind of a unit with traits laid over it, and what its wave has grown by. */
  of(id: string, traits: readonly string[] = [], grown: readonly FieldTweak[] = []): number {
    const key = traits.length + grown.length ? `${id} ${JSON.stringify([traits, grown])}` : id;
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    const number = this.all.length;
    this.numbers.set(key, number);
    // Its place is kept while it is being made: it may summon its own kind.
    this.all.push(undefined as unknown as CompiledUnit);
    const unit = this.effective(id);
    const born = tweakedUnit(unit, tweaksBy(this.project, traits));
    const kind = compileUnit(tweakedUnit(born, grown), this.context);
    const bears = [...traitsAt(this.project, this.asFound(unit), this.lens), ...traitsBy(this.project, traits)].map(({ name }) => name);
    this.all[number] = { ...kind, bears, ...(kind.source && { source: born, grown }) };
    return number;
  }

  /** What stands at a point that can be destroyed. */
  ofPoint(id: string, name: string, radius: number, height: number, health: number): number {
    const unit = Object.assign(new Unit(), { id: `point:${id}`, name, side: 'party', role: POINT_ROLE });
    Object.assign(unit.body, { radius, height, eyeHeight: height, muzzleHeight: height });
    unit.health.max = health;
    unit.temper.manner = 'passive';
    unit.onDeath.worth = 0;
    this.numbers.set(unit.id, this.all.length);
    const { rounds } = this.encounter;
    return this.all.push(compileUnit(rounds ? withRounds(unit, { round: 1, cell: rounds.cell }) : unit, this.context)) - 1;
  }

  /** A kind by which a type is known: without what traits and growth make of it, where it comes so. */
  plainKind(type: string): number {
    return this.numbers.get(type) ?? this.all.findIndex(({ id }) => id === type);
  }

  /** A unit on the side on which tweaks and traits find it. */
  private asFound(unit: Unit): Pick<Unit, 'id' | 'side' | 'role' | 'traits'> {
    const { id, role, traits } = unit;
    return { id, role, traits, side: sideIn(this.encounter, unit) };
  }

  worth(id: string): number {
    return this.effective(id).onDeath.worth;
  }

  /** What a trait of the project changes. */
  changesOf(trait: string): FieldTweak[] {
    return tweaksBy(this.project, [trait]);
  }

  /** Which of the encounter's units a scope speaks of, by type. */
  spokenOf(tweak: Pick<Tweak, 'scope' | 'of'>): boolean[] {
    return this.names.types.map((type) => !type.startsWith('point:') && tweakApplies(tweak, this.asFound(this.effective(type))));
  }

  /** At a point of the arena where one is named; the others side by side across the way the party faces, an average radius between edges; rows behind one another. */
  lineUp(members: PartyMember[], luck: string, arena: Arena, row: number): CompiledMember[] {
    const inLine = this.rowOf(
      members.filter(({ at }) => at === undefined),
      luck,
      arena,
      row,
    );
    return members.map(({ id, unit, at }) => {
      const point = at === undefined ? undefined : arena.points.find((one) => one.id === at);
      if (!point) return inLine.shift()!;
      const { facing } = arena.partyStart;
      const key = textKey(textKey(1, luck), id);
      return { kind: this.of(unit), key, x: point.x, y: point.y, fx: cosine(facing), fy: sine(facing) };
    });
  }

  private rowOf(members: PartyMember[], luck: string, { partyStart }: Arena, row: number): CompiledMember[] {
    const key = textKey(1, luck);
    const [fx, fy] = [cosine(partyStart.facing), sine(partyStart.facing)];
    const kinds = members.map(({ unit }) => this.of(unit));
    const radii = kinds.map((kind) => this.all[kind].radius);
    const apart = radii.reduce((sum, radius) => sum + radius, 0) / Math.max(1, radii.length);
    const width = radii.reduce((sum, radius) => sum + 2 * radius, 0) + (members.length - 1) * apart;
    const back = row * 4 * apart;
    let offset = -width / 2;
    return members.map(({ id }, i) => {
      const centre = members.length === 1 ? 0 : offset + radii[i];
      offset += 2 * radii[i] + apart;
      return {
        kind: kinds[i],
        key: textKey(key, id),
        x: partyStart.x - fy * centre - fx * back,
        y: partyStart.y + fx * centre - fy * back,
        fx,
        fy,
      };
    });
  }

  /** Areas closed to each class: of a kind it may never enter, or not of the kinds it is confined to. */
  closedGround(): CompiledShape[][] {
    return this.context.groundRules.map(({ only, never }) =>
      this.arena.ground
        .filter(({ kind }) => never.includes(kind) || (only.length > 0 && !only.includes(kind)))
        .map(({ corners }) => shapeOf(corners)),
    );
  }

  /** Filters were made while types were still being met: every list of types has its full length now. */
  finish(): void {
    for (const kind of this.all) {
      const { allowed } = kind.targeting;
      while (allowed && allowed.length < this.names.types.length) allowed.push(true);
    }
  }
}

const POINT_ROLE = 'point';

/** Whether something stands at a point that has health. */
export function standsIn({ ends: { defend, destroy, also } }: Encounter, point: string): boolean {
  return also.includes(point) || defend.includes(point) || destroy.includes(point);
}
