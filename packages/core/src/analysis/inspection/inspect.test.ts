import { describe, expect, test } from '@jest/globals';
import type { Lens } from '../../model/effective';
import { parseProject } from '../../model/validate';
import { demoProject } from '../../testing/demo';
import { Dash } from '../../model/attack';
import { blank } from '../../model/blank';
import { type Warning, byCost, mended } from '../warning';
import { encounterWithRounds, withRounds } from '../../model/derive-rounds';
import { BY_COST, INSPECTION_RULES, SIMULATED_RULES } from '../rules';
import { inspect, inspectAll } from './inspect';
import { type Spoil, attack, encounter, found, spoilUnit, spoilt, state } from '../../testing/spoilt';

const CASES: [string, string, Spoil, RegExp, Lens?][] = [
  [
    'stopsOutOfReach',
    '/units/mulcher/states/trudge/stopAt',
    spoilUnit('mulcher', (unit) => (unit.states[0].stopAt = 4)),
    /stops at 4 m, but nothing reaches farther than 3 m/,
  ],
  [
    'stopsOutOfReach',
    '/units/thistlejack/states/keep-band/near',
    spoilUnit('thistlejack', (unit) => Object.assign(state(unit, 'keep-band'), { near: 12, far: 14 })),
    /keeps 12 to 14 m/,
  ],
  ['losesWhatItSees', '/units/clipper/senses/lose', spoilUnit('clipper', (unit) => (unit.senses.lose = 5)), /gives up beyond 5 m/],
  ['leashInsideSight', '/units/briar-hound/leash/radius', () => undefined, /23\.4 m far but turns back 12 m/, { tier: 'bramble' }],
  [
    'reachBeyondSight',
    '/units/thistlejack/attacks/quill/range/max',
    spoilUnit('thistlejack', (unit) => (unit.senses.sight = 8)),
    /reaches 11 m/,
  ],
  [
    'eyesAboveFoes',
    '/units/head-gardener/body/eyeHeight',
    spoilUnit('head-gardener', (unit) => Object.assign(unit.body, { height: 9, eyeHeight: 8 })),
    /more than twice as high/,
  ],
  [
    'gateNeverOpens',
    '/units/head-gardener/health/gates/second',
    spoilUnit('head-gardener', (unit) => {
      unit.health.gates[0].holds = true;
      state(unit, 'survey').leaves.find(({ to }) => to === 'prune')!.when!.value = unit.health.gates[0].share;
    }),
    /holds health at 66 % until .*, which waits for less than 66 %: it can’t be hurt any further/,
  ],
  [
    'rangeInsideBody',
    '/units/mulcher/attacks/slam/area/radius',
    spoilUnit('mulcher', (unit) => (attack(unit, 'slam').area!.radius = 0.5)),
    /nobody can be in it/,
  ],
  ['areaShorterThanRange', '/units/mulcher/attacks/slam/range/max', () => undefined, /begun up to 3 m away/],
  [
    'shotFallsShort',
    '/units/thistlejack/attacks/quill/projectile/lifetime',
    spoilUnit('thistlejack', (unit) => (attack(unit, 'quill').projectile!.lifetime = 0.2)),
    /flies 4 m/,
  ],
  [
    'cooldownInsideSwing',
    '/units/clipper/attacks/bite/beat/cooldown',
    spoilUnit('clipper', (unit) => (unit.attacks[0].beat.cooldown = 0.1)),
    /is over before/,
  ],
  [
    'repeatBeyondActive',
    '/units/clipper/attacks/bite/beat/every',
    spoilUnit('clipper', (unit) => (unit.attacks[0].beat.every = 5)),
    /it hits once/,
  ],
  ['cueAfterWindup', '/units/mulcher/attacks/slam/beat/cue', spoilUnit('mulcher', (unit) => (unit.attacks[0].beat.cue = 9)), /after 9 s/],
  [
    'neverTicks',
    '/units/clipper/attacks/bite/effects/overTime/for',
    spoilUnit('clipper', (unit) => (unit.attacks[0].effects.overTime = { amount: 2, every: 3, for: 1, stacking: 'refresh' })),
    /it never does/,
  ],
  [
    'nothingToStrike',
    '/units/clipper/states/rush/strikes',
    spoilUnit('clipper', (unit) => Object.assign(unit.states[0], { does: 'goTo', to: 'nowhere', strikes: 'it' })),
    /in no encounter does a thing of its foes stand there/,
  ],
  [
    'movementCutShort',
    '/units/clipper/attacks/bite/dash',
    spoilUnit('clipper', (unit) => (unit.attacks[0].dash = { ...blank(Dash), distance: 50, speed: 10, hurts: 'end' })),
    /it is cut short at .* m and never strikes/,
  ],
  [
    'unaffordable',
    '/units/sapwright/attacks/raise/energy',
    spoilUnit('sapwright', (unit) => (attack(unit, 'raise').energy = 500)),
    /costs 500 energy and it holds 120 at most/,
  ],
  ['unaffordable', '/units/clipper/attacks/bite/energy', spoilUnit('clipper', (unit) => (unit.attacks[0].energy = 5)), /it has none/],
  [
    'unaffordable',
    '/units/sapwright/energy/start',
    spoilUnit('sapwright', (unit) => Object.assign(unit.energy!, { start: 1, regen: 0 })),
    /appears with 1 energy/,
  ],
  ['manyHitsNoWindow', '/units/clipper/attacks/bite/hits/perTarget', () => undefined, /up to 4 times 0\.1 s apart, 12 hp in all/],
  [
    'noAnswer',
    '/units/mulcher/attacks/slam/answers',
    spoilUnit('mulcher', (unit) => Object.assign(attack(unit, 'slam'), { answers: ['block'] })),
    /has no answer to Slam/,
  ],
  [
    'tooQuickToAnswer',
    '/units/mulcher/attacks/slam/beat/windup',
    spoilUnit('mulcher', (unit) => (attack(unit, 'slam').beat.windup = 0.1)),
    /Warden reacts in 0\.34 s|Tender reacts/,
  ],
  [
    'tooQuickToAnswer',
    '/units/mulcher/attacks/slam/beat/windup',
    spoilUnit('mulcher', (unit) => {
      const { beat } = attack(unit, 'slam');
      beat.cue = beat.windup - 0.15;
    }),
    /hits 0\.15 s after it can be read/,
  ],
  [
    'neverChosen',
    '/units/thistlejack/attacks/kick',
    spoilUnit('thistlejack', (unit) => unit.choice.priorities[0].entries.shift()),
    /it is never begun/,
  ],
  [
    'neverReached',
    '/units/thistlejack/choice/priorities/0/entries/0/weight',
    spoilUnit('thistlejack', (unit) => (unit.choice.priorities[0].entries[0].weight = 0)),
    /has no weight in priority 1: it is never drawn/,
  ],
  [
    'neverReached',
    '/units/sapwright/choice/priorities/0/condition',
    spoilUnit('sapwright', (unit) => (unit.choice.priorities[0].condition = { subject: 'healthShare', is: 'above', value: 1 })),
    /priority 1 can never be tried/,
  ],
  [
    'neverReached',
    '/units/sapwright/choice/priorities/1/entries/0/condition',
    spoilUnit('sapwright', (unit) => (unit.choice.priorities[1].entries[0].condition = { subject: 'healthShare', is: 'above', value: 1 })),
    /can never be usable in priority 2: its condition can’t hold/,
  ],
  [
    'neverReached',
    '/units/sapwright/choice/priorities/2/entries/1',
    spoilUnit('sapwright', (unit) => unit.choice.priorities[2].entries.push({ attack: 'mend', weight: 1 })),
    /higher priority/,
  ],
  [
    'stateUnreachable',
    '/units/thistlejack/states/hesitate',
    spoilUnit('thistlejack', (unit) => state(unit, 'keep-band').leaves.pop()),
    /leads to Hesitate/,
  ],
  [
    'stateWithoutEnd',
    '/units/thistlejack/states/hesitate/leaves',
    spoilUnit('thistlejack', (unit) => (state(unit, 'hesitate').leaves = [])),
    /stays to the end/,
  ],
  [
    'neverLeaves',
    '/units/thistlejack/states/close-in/leaves/0/when',
    spoilUnit('thistlejack', (unit) => (state(unit, 'close-in').leaves[0].when!.value = 0)),
    /can never lead to Keep band/,
  ],
  [
    'neverLeaves',
    '/units/thistlejack/states/close-in/leaves/0',
    spoilUnit('thistlejack', (unit) => (state(unit, 'close-in').leaves[0].weight = 0)),
    /can never lead to Keep band: its weight is 0/,
  ],
  [
    'neverLeaves',
    '/units/thistlejack/states/close-in/leaves/1',
    spoilUnit('thistlejack', (unit) => {
      const { leaves } = state(unit, 'close-in');
      leaves[0] = { to: leaves[0].to, after: 1 };
      leaves[1] = { to: leaves[0].to, after: 2 };
    }),
    /another way is taken otherwise before it/,
  ],
  [
    'flickers',
    '/units/thistlejack/states/close-in/leaves/0',
    spoilUnit('thistlejack', (unit) => (state(unit, 'close-in').leaves[0].to = 'close-in')),
    /Close in leads to itself: it can begin anew at every step/,
  ],
  [
    'flickers',
    '/units/thistlejack/states/close-in/leaves/0/when',
    spoilUnit('thistlejack', (unit) => (state(unit, 'keep-band').leaves[0].when!.value = 9)),
    /lead to one another at 10 and 9/,
  ],
  [
    'nobodyToTarget',
    '/units/clipper/targeting/only',
    spoilUnit('clipper', (unit) => (unit.targeting.only = { roles: ['boss'], units: [] })),
    /nobody on the other side/,
  ],
  [
    'nobodyToTarget',
    '/units/clipper/targeting/never',
    spoilUnit('clipper', (unit) => (unit.targeting.never = { roles: [], units: ['warden', 'tender'] })),
    /never goes for any/,
  ],
  [
    'outheals',
    '/units/mulcher/health/regen',
    spoilUnit('mulcher', (unit) => Object.assign(unit.health, { regen: 500, regenDelay: 0 })),
    /regains 500 hp a second/,
  ],
  [
    'outheals',
    '/units/sapwright/attacks',
    spoilUnit('sapwright', (unit) => {
      attack(unit, 'mend').effects.heal!.amount = 5000;
    }),
    /mends \d+/,
  ],
  [
    'healthWithoutWeight',
    '/units/head-gardener/weakPoint/lethal',
    spoilUnit('head-gardener', (unit) => Object.assign(unit.weakPoint!, { lethal: true, exposed: 'always' })),
    /one hit on its weak point kills it/,
  ],
  [
    'tweakOfNothing',
    '/tiers/bloom/tweaks/0',
    (project) => void project.tiers[1].tweaks.push({ scope: 'role', of: 'nobody', path: '/health/max', op: '×', value: 2 }),
    /speaks of nobody/,
  ],
  [
    'traitIdle',
    '/traits/quick',
    (project) => void project.traits.push({ id: 'quick', name: 'Quick', tweaks: [] }),
    /nobody is given Quick/,
  ],
  [
    'tweakOfNothing',
    '/traits/hardened/tweaks/1',
    (project) => void project.traits[0].tweaks.push({ path: '/shield/max', op: '×', value: 2 }),
    /of Hardened changes nobody/,
  ],
  [
    'tweakVoid',
    '/traits/hardened/tweaks/1',
    (project) => void project.traits[0].tweaks.push({ path: '/movement/run', op: '+', value: 0 }),
    /Run \(movement\) \+ 0 changes nothing/,
  ],
  [
    'shieldNotScaled',
    '/units/lantern-stalk/shield/max',
    (project) => {
      project.tiers.forEach((tier) => (tier.tweaks = []));
      project.units.find(({ id }) => id === 'lantern-stalk')!.traits = ['hardened'];
    },
    /Hardened scales the health of Lantern Stalk \(48 → 72\) but not its shield/,
  ],
  [
    'tweakVoid',
    '/tiers/bloom/tweaks/0',
    (project) => void project.tiers[1].tweaks.push({ scope: 'enemies', path: '/health/max', op: '×', value: 1 }),
    /changes nothing/,
  ],
  [
    'tweakVoid',
    '/tiers/bloom/tweaks/0',
    (project) =>
      void project.tiers[1].tweaks.push({ scope: 'unit', of: 'head-gardener', path: '/health/max', op: '×', value: 3, max: 420 }),
    /is taken away by a limit: Head Gardener asked for 1260, granted 420/,
  ],
  [
    'tweakOutOfOrder',
    '/tiers/bramble/tweaks/5',
    () => undefined,
    /Health of Briar Hound is × 0.8 at Bramble, × 1 below it and × 1 at Blight/,
  ],
  [
    'tiersAlike',
    '/tiers/blight',
    (p) => void (p.tiers[3].tweaks = p.tiers[2].tweaks),
    /Blight comes out the same as Bramble for every enemy and encounter/,
  ],
  ['tweakUndone', '/tiers/blight/tweaks/1', () => undefined, /meets its cap of 420: Head Gardener has 420/],
  ['shieldNotScaled', '/units/lantern-stalk/shield/max', () => undefined, /but not its shield/],
  [
    'wavesAllAtOnce',
    '/encounters/evening-shift/waves',
    (project) => void encounter(project, 'evening-shift').waves.forEach((wave) => Object.assign(wave, { start: 'atOnce', delay: 0 })),
    /waves start at once/,
  ],
  [
    'waveNeverStarts',
    '/encounters/first-bell/waves/bell/start',
    (project) => void Object.assign(encounter(project, 'first-bell').waves[0], { start: 'called' }),
    /no event calls it/,
  ],
  [
    'waveNeverStarts',
    '/encounters/first-bell/waves/bell/start',
    (project) =>
      void Object.assign(encounter(project, 'first-bell').waves[0], { start: 'condition', when: { subject: 'flag', is: 'yes', of: 'x' } }),
    /nothing raises the flag x/,
  ],
  [
    'emptyWave',
    '/encounters/first-bell/waves/bell/groups',
    (project) => void (encounter(project, 'first-bell').waves[0].groups = []),
    /brings nobody/,
  ],
  [
    'eventNever',
    '/encounters/first-bell/events/late',
    (project) =>
      void encounter(project, 'first-bell').events.push({
        id: 'late',
        name: 'Late',
        when: { subject: 'flag', is: 'yes', of: 'x' },
        then: [],
      }),
    /nothing raises the flag x/,
  ],
  [
    'eventNever',
    '/encounters/first-bell/events/late',
    (project) => {
      const first = encounter(project, 'first-bell');
      first.counters = [{ id: 'bells', name: 'Bells', start: 2 }];
      const counts = { counter: 'bells', how: 'add', by: 1 } as const;
      first.events.push(
        {
          id: 'one',
          name: 'One',
          when: { subject: 'clock', is: 'above', value: 5 },
          then: [{ does: 'count', counts, tweaks: [], as: 'ended' }],
        },
        { id: 'late', name: 'Late', when: { subject: 'counter', of: 'bells', is: 'above', value: 3 }, then: [] },
      );
    },
    /nothing takes the counter Bells above 3/,
  ],
  [
    'forestalled',
    '/units/clipper/choice/priorities/1',
    (document) => {
      document.units = document.units.map((one) => withRounds(one, { round: 2, cell: 1 }));
      document.encounters[0] = encounterWithRounds(document.encounters[0], { round: 2, cell: 1 });
      const clipper = document.units.find(({ id }) => id === 'clipper')!;
      const [bite] = clipper.attacks;
      clipper.attacks.push({ ...structuredClone(bite), id: 'snap', name: 'Snap', rounds: { ...bite.rounds!, cooldown: 3 } });
      clipper.choice.priorities = [{ entries: [{ attack: 'bite', weight: 1 }] }, { entries: [{ attack: 'snap', weight: 1 }] }];
    },
    /nothing of priority 2 is ever begun in turns: Bite, above it, is ready in every turn and reaches as far/,
  ],
];

describe('warnings by inspection', () => {
  test.each(CASES)('%s at %s', (rule, path, spoil, sentence, lens = {}) => {
    const project = spoilt(spoil);
    parseProject(structuredClone(project)); // unwise, but not refused
    const warning = found(project, rule, path, lens);
    expect(warning?.message).toMatch(sentence);
    expect(warning?.mend).not.toBe('');
    for (const fix of warning?.fixes ?? []) {
      const better = mended(project, fix, lens);
      parseProject(structuredClone(better));
      const left = found(better, rule, path, lens);
      expect(left?.message).not.toBe(warning!.message);
      // Quick for one of the party may be quick enough for another.
      if (rule !== 'tooQuickToAnswer') expect([fix.name, left]).toEqual([fix.name, undefined]);
    }
    expect(new Set(warning?.fixes?.map(({ name }) => name)).size).toBe(warning?.fixes?.length ?? 0);
  });

  test('what costs most stands first: problems before notices, each in the order of their cost', () => {
    expect(new Set(BY_COST)).toEqual(new Set([...INSPECTION_RULES, ...SIMULATED_RULES]));
    expect(BY_COST.length).toBe(new Set(BY_COST).size);
    const of = (rule: Warning['rule'], severity: Warning['severity']) => ({ rule, severity, path: rule });
    const mixed = [
      of('eyesAboveFoes', 'notice'),
      of('neverChosen', 'notice'),
      of('manyHitsNoWindow', 'problem'),
      of('nobodyHurt', 'problem'),
    ];
    expect(byCost(mixed).map(({ rule }) => rule)).toEqual(['nobodyHurt', 'manyHitsNoWindow', 'neverChosen', 'eyesAboveFoes']);
    const all = inspectAll(demoProject());
    expect(all).toEqual(byCost(all));
  });

  test('no cooldown is asked of what only follows: it is no use to say that it holds nothing up', () => {
    const project = spoilt((document) => {
      const hound = document.units.find(({ id }) => id === 'briar-hound')!;
      for (const attack of hound.attacks) Object.assign(attack.beat, { cooldown: 0.1, cooldownFrom: 'start' });
    });
    const told = inspect(project, {}).filter(({ rule, path }) => rule === 'cooldownInsideSwing' && path.includes('briar-hound'));
    expect(told.map(({ path }) => path.split('/')[4])).toEqual(['bite-one']);
  });

  test('a tweak that brings back what one before it took, below its own cap, does not meet that cap', () => {
    const project = demoProject();
    const ask = (value: number, max?: number) => ({
      scope: 'role' as const,
      of: 'boss',
      path: '/health/max',
      op: '×' as const,
      value,
      max,
    });
    project.tiers[3].tweaks.push(ask(0.5), ask(2, 5000));
    project.tiers[3].tweaks.splice(0, project.tiers[3].tweaks.length - 2);
    const said = inspect(project, { tier: 'blight' }).map(({ rule, path }) => `${rule} ${path}`);
    expect(said).toContain('tweakUndone /tiers/blight/tweaks/0');
    expect(said).not.toContain('tweakUndone /tiers/blight/tweaks/1');
  });

  test('a window for the victim is a mend of the victim, where it is one', () => {
    const project = spoilt((document) => void (document.units = document.units.filter(({ id }) => id !== 'tender')));
    const warning = found(project, 'manyHitsNoWindow', '/units/clipper/attacks/bite/hits/perTarget')!;
    const window = warning.fixes!.find(({ name }) => name.startsWith('shield'))!;
    expect(window).toMatchObject({ name: 'shield Warden for 0.4 s', unit: 'warden' });
    const better = mended(project, window, {});
    expect(better.units.find(({ id }) => id === 'warden')!.invulnerability.duration).toBe(0.4);
  });

  test('every rule has a case', () => {
    expect(new Set(CASES.map(([rule]) => rule))).toEqual(new Set(INSPECTION_RULES));
  });

  test('the healthy parts of the demo have no problem, and what is planted is found', () => {
    const problems = inspectAll(demoProject()).filter(({ severity }) => severity === 'problem');
    expect(problems.map(({ rule, path }) => `${rule} ${path}`)).toEqual([
      'leashInsideSight /units/briar-hound/leash/radius',
      'manyHitsNoWindow /units/clipper/attacks/bite/hits/perTarget',
      'manyHitsNoWindow /units/clipper-elder/attacks/bite/hits/perTarget',
      'tweakUndone /tiers/blight/tweaks/1',
    ]);
  });

  test('a mend of a variant is written into the variant alone', () => {
    const project = demoProject();
    const warning = found(project, 'manyHitsNoWindow', '/units/clipper-elder/attacks/bite/hits/perTarget')!;
    const better = mended(project, warning.fixes![0], {});
    expect(better.variants[0].changes).toEqual([{ op: 'replace', path: '/attacks/bite/hits/perTarget', value: 'once' }]);
    expect(better.units).toEqual(project.units);
  });

  test('a mend seen through a tier gives what it says there', () => {
    const project = demoProject();
    const lens = { tier: 'bramble' };
    const better = mended(project, found(project, 'leashInsideSight', '/units/briar-hound/leash/radius', lens)!.fixes![0], lens);
    expect(better.units.find(({ id }) => id === 'briar-hound')?.leash?.radius).toBe(29.25);
    expect(better.tiers).toEqual(project.tiers);
  });
});
