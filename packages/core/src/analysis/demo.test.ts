import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import {
  type BatchSummary,
  type Project,
  Batch,
  Runner,
  VERDICT,
  compile,
  effectiveUnit,
  examine,
  isWon,
  parseProject,
  runBatch,
  simulatedWarnings,
  tierWarnings,
} from '../index';
import { eventsOf } from '../testing/builders';

test('the file of the demo says everything that the page would write: a save of it changes nothing, nor the order', () => {
  const raw = file('verdance.insidia.json') as object;
  expect(JSON.stringify(parseProject(structuredClone(raw)))).toBe(JSON.stringify(raw));
});

const file = (name: string) => JSON.parse(readFileSync(join(__dirname, '../../../../demo', name), 'utf8'));
const demo = (change: (project: Project) => void = () => undefined): Project => {
  const project = file('verdance.insidia.json') as Project;
  change(project);
  return parseProject(project);
};
const batch = (encounter: string, more: object = {}, runs = 100, project = demo()) =>
  runBatch(compile(project, { encounter, tier: 'bloom', skill: 'regular', ...more }), 1, runs);
const kind = (summary: BatchSummary, id: string) => summary.kinds.find((one) => one.id === id)!;
const attack = (summary: BatchSummary, id: string, name: string) => kind(summary, id).attacks.find((one) => one.id === name)!;
const encounter = (project: Project, id: string) => project.encounters.find((one) => one.id === id)!;
const unit = (project: Project, id: string) => project.units.find((one) => one.id === id)!;

describe('Verdance Station', () => {
  const project = demo();

  test('is what it says: nine enemies and a nest, two members, encounters, tiers, skills, styles', () => {
    const heads = [...project.units.filter(({ side }) => side === 'enemy'), ...project.variants].map(({ name }) => name);
    expect(heads).toHaveLength(10);
    expect(project.units.filter(({ side }) => side === 'party').map(({ name }) => name)).toEqual(['Warden', 'Tender']);
    expect([project.encounters, project.tiers, project.skills, project.styles].map(({ length }) => length)).toEqual([5, 4, 3, 4]);
    expect(effectiveUnit(project, 'clipper-elder', {}).unit.health.max).toBeCloseTo(22 * 1.6, 9);
  });

  test('every skill and style is a fight of its own; those who stand still suffer most', () => {
    const doses = ['still', 'careful', 'forward', 'near-perfect'].map(
      (style) => batch('evening-shift', { style }, 20).encounter.dose!.mean!,
    );
    expect(new Set(doses).size).toBe(4);
    expect(Math.max(...doses)).toBe(doses[0]);
    const wins = ['novice', 'regular', 'expert'].map((skill) => batch('evening-shift', { skill }, 16).cleared.value);
    expect(wins[0]).toBeLessThan(wins[1]);
    expect(wins[0]).toBeLessThan(wins[2]);
  });

  test('near-perfect players see nearly everything and mistake nothing, the others by their skill', () => {
    /** Of what was announced to the party: the share that was not seen, and that was mistaken. */
    const missed = (style?: string) => {
      const runner = new Runner(compile(project, { encounter: 'evening-shift', tier: 'bloom', skill: 'regular', style }));
      const told = [1, 2, 3, 4, 5, 6].flatMap((seed) => eventsOf(runner.run(seed).log, 'exposed').map(({ b }) => b));
      const share = (verdict: number) => told.filter((one) => one === verdict).length / told.length;
      return { unseen: share(VERDICT.notSeen), mistaken: share(VERDICT.mistake), told: told.length };
    };
    const [perfect, plain] = [missed('near-perfect'), missed()];
    expect(Math.min(perfect.told, plain.told)).toBeGreaterThan(100);
    expect([perfect.mistaken, plain.mistaken > 0.02]).toEqual([0, true]);
    expect(perfect.unseen).toBeLessThan(plain.unseen / 2);
  });

  test('parties of one to four: alone it is harder', () => {
    const won = [1, 2].map((players) => batch('the-head-gardener', { players, tier: 'blight' }, 40).cleared.value);
    expect(won[0]).toBeLessThan(won[1]);
  });

  test('Glasshouse Defence is healthy: won by most at Bloom, harder tier by tier, no warning worse than a notice', () => {
    const found = examine(
      'glasshouse-defence',
      compile(project, { encounter: 'glasshouse-defence', tier: 'bloom', skill: 'regular' }),
      1,
      60,
    );
    expect(found.summary.cleared.value).toBeGreaterThan(0.9);
    const shares = project.tiers.map(({ id }) => batch('glasshouse-defence', { tier: id }, 20).encounter.dose!.mean!);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
  });
});

describe('its planted faults, each measured, and gone once mended', () => {
  test('1: one bite hits again and again, and nothing shields the Warden', () => {
    const hitsPerBite = (project: Project) => {
      const { starts, hits } = attack(
        runBatch(compile(project, { encounter: 'first-bell', tier: 'blight', skill: 'novice' }), 1, 200),
        'clipper',
        'bite',
      );
      return hits / starts;
    };
    expect(hitsPerBite(demo())).toBeGreaterThan(1.2);
    expect(hitsPerBite(demo((p) => (unit(p, 'clipper').attacks[0].hits.perTarget = 'once')))).toBeLessThan(1);
    expect(hitsPerBite(demo((p) => (unit(p, 'warden').invulnerability.duration = 0.6)))).toBeLessThan(1);
  });

  test('2: planters stand in the Thistlejack’s band: it circles without a line', () => {
    const noLine = (project: Project) => kind(batch('evening-shift', {}, 24, project), 'thistlejack').timeUse!.line.value;
    const planted = noLine(demo());
    expect(planted).toBeGreaterThan(0.2);
    const lower = demo((p) =>
      p.arenas.find(({ id }) => id === 'propagation-hall')!.walls.forEach((wall) => wall.id.startsWith('p') && (wall.height = 0.5)),
    );
    expect(noLine(lower)).toBeLessThan(planted * 0.8);
  });

  test('3: wave 3 comes while wave 2 still has its Mulcher; a longer wait restores the rest without breaking the length', () => {
    const two = (summary: BatchSummary) => summary.waves.find(({ id }) => id === 'two')!;
    const planted = batch('evening-shift', {}, 24);
    const mended = batch(
      'evening-shift',
      {},
      24,
      demo((p) =>
        Object.assign(
          encounter(p, 'evening-shift').waves.find(({ id }) => id === 'three')!,
          { share: 1, delay: 5 },
        ),
      ),
    );
    expect(two(planted).overlap!.median).toBeGreaterThan(2);
    expect(two(mended).overlap!.median).toBe(0);
    expect(two(mended).rest!.median).toBeGreaterThan(two(planted).rest!.median);
    expect(mended.encounter.length!.median).toBeLessThan(planted.encounter.length!.median * 1.35);
  });

  test('4: slam and quill fan can each be answered, but not both within one dodge', () => {
    const clashes = (enemies: string[]) => {
      const project = demo((p) => {
        const bell = encounter(p, 'first-bell');
        bell.waves[0].groups = enemies.map((enemy, i) => ({ ...bell.waves[0].groups[0], id: `g${i}`, enemy, alerted: true }));
        // Close quarters: the Warden holds its ground.
        unit(p, 'warden').states[0] = { ...unit(p, 'warden').states[0], does: 'hold' };
        for (const one of [unit(p, 'warden'), ...enemies.map((id) => unit(p, id))]) one.health.max = 1e5;
      });
      const { clashes: count, announced } = batch('first-bell', {}, 40, project).fairness;
      return count / announced;
    };
    expect(clashes(['mulcher'])).toBeLessThan(0.02);
    expect(clashes(['mulcher', 'thistlejack'])).toBeGreaterThan(0.05);
  });

  test('5: the Sapwright raises Clippers faster than a novice kills them for good', () => {
    const raised = (project: Project) => {
      const summary = batch('evening-shift', { skill: 'novice' }, 30, project);
      return kind(summary, 'sapwright').healing.revives / kind(summary, 'sapwright').spawned;
    };
    expect(raised(demo())).toBeGreaterThan(3);
    expect(raised(demo((p) => (unit(p, 'sapwright').energy!.regen = 0)))).toBeLessThan(3);
    // The same seen from the encounter: enemies raised are what its Sapwrights raised; a Warden helped up is none of them.
    const all = new Batch(compile(demo(), { encounter: 'evening-shift', tier: 'bloom', skill: 'novice' }), 1, 20);
    all.advance(20);
    const sapwright = all.summary().kinds.findIndex(({ id }) => id === 'sapwright');
    for (const row of all.rows) expect(row.raised).toBe(row.kinds[sapwright].healing.revives);
    expect(all.summary().encounter.raised!.mean).toBeGreaterThan(3);
    const found = examine('evening-shift', compile(demo(), { encounter: 'evening-shift', tier: 'bloom', skill: 'novice' }), 1, 24);
    expect(simulatedWarnings(found).map(({ rule }) => rule)).toContain('reviveLoop');
  });

  test('6: Bramble’s longer sight draws the Hounds past their leash: easier than Bloom', () => {
    const doses = (project: Project, tier: string) => {
      const all = new Batch(compile(project, { encounter: 'cellar-beat', tier, skill: 'regular' }), 1, 120);
      all.advance(120);
      return all.rows.map(({ dose }) => dose);
    };
    const tiers = (project: Project) => ['bloom', 'bramble'].map((id) => ({ id, name: id, doses: doses(project, id) }));
    expect(tierWarnings(tiers(demo())).map(({ rule }) => rule)).toEqual(['tierOutOfOrder']);
    const mended = demo((p) => (p.tiers[2].tweaks = p.tiers[2].tweaks.filter(({ path }) => path !== '/senses/sight')));
    expect(tierWarnings(tiers(mended))).toEqual([]);
  });

  test('7: experts burst through the Head Gardener’s second conduct; a gate that holds mends it', () => {
    const skipped = (project: Project, skill: string) => {
      const boss = kind(batch('the-head-gardener', { skill }, 40, project), 'head-gardener');
      return boss.gatesSkipped / boss.spawned;
    };
    expect(skipped(demo(), 'expert')).toBeGreaterThan(0.3);
    expect(skipped(demo(), 'novice')).toBe(0);
    expect(batch('the-head-gardener', { skill: 'expert' }, 40).encounter.gatesSkipped!.mean).toBe(skipped(demo(), 'expert'));
    expect(
      skipped(
        demo((p) => (unit(p, 'head-gardener').health.gates[0].holds = true)),
        'expert',
      ),
    ).toBe(0);
  });

  test('8: Blight’s health for the boss meets a cap and comes to nothing', () => {
    const health = (tier?: string) => effectiveUnit(demo(), 'head-gardener', { tier });
    const { unit: boss, chains } = health('blight');
    expect(boss.health.max).toBe(health('bloom').unit.health.max);
    expect(chains.get('/health/max')!.steps.at(-1)).toMatchObject({ asked: 945, granted: 420 });
  });

  test('two more: the Thistlejack hardly kicks, and the Sporecasks hurt their friends more than the party', () => {
    const found = examine('evening-shift', compile(demo(), { encounter: 'evening-shift', tier: 'bloom', skill: 'regular' }), 1, 60);
    const warnings = simulatedWarnings(found);
    expect(warnings).toContainEqual(expect.objectContaining({ rule: 'attackHardlyUsed', path: '/units/thistlejack/attacks/kick' }));
    expect(warnings).toContainEqual(expect.objectContaining({ rule: 'friendsHurt', path: '/units/sporecask/attacks' }));
  });

  test('every outcome that counts as won is one of two', () => {
    expect((['cleared', 'survived', 'partyDown', 'lost', 'timeOut', 'ended', 'runaway'] as const).filter(isWon)).toEqual([
      'cleared',
      'survived',
    ]);
  });
});
