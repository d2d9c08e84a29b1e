/** What a new enemy or member may begin as: a body, attacks and conduct that have a fight against somebody of a hundred health. */
import type { Unit } from '../unit';
import { ATTACK_BEGINNINGS } from './attacks';
import { type Beginning, type Written, beginningOf, wholeUnit } from './beginning';

export interface UnitBeginning extends Beginning {
  side: Unit['side'];
  written: Written;
}

/** An attack as its beginning has it, with what this unit has otherwise. */
function attack(id: string, more: Written = {}): Written {
  const { written, name } = beginningOf(ATTACK_BEGINNINGS, id);
  return { id, name, ...written, ...more };
}

const chooses = (...attacks: string[]) => ({ priorities: [{ entries: attacks.map((one) => ({ attack: one })) }] });
const when = (subject: string, is: string, value?: number, more: Written = {}) => ({
  subject,
  is,
  ...(value !== undefined && { value }),
  ...more,
});
const leave = (to: string, condition: Written, after = 0) => ({ to, when: condition, after });
const notices = (sight: number, lose: number, more: Written = {}) => ({ sight, lose, reaction: { mean: 0.4, spread: 0.1 }, ...more });

const ENEMIES: readonly Omit<UnitBeginning, 'side'>[] = [
  {
    id: 'rusher',
    called: 'rushes and bites',
    about: 'fast and weak: runs straight up and bites until it falls',
    name: 'Rusher',
    written: {
      role: 'rusher',
      glyph: 'seeds',
      body: { radius: 0.35, height: 0.9, eyeHeight: 0.7, muzzleHeight: 0.5 },
      health: { max: 45 },
      movement: { walk: 2.4, run: 6.5, acceleration: 20, turnRate: 480 },
      senses: notices(16, 22),
      attacks: [attack('bite')],
      choice: { ...chooses('bite'), pause: { min: 0.1, max: 0.3 } },
      states: [{ id: 'rush', name: 'Rush', does: 'approach' }],
    },
  },
  {
    id: 'shooter',
    called: 'keeps a distance and shoots',
    about: 'circles between 6 and 10 m, shoots, and backs off when it is crowded',
    name: 'Shooter',
    written: {
      role: 'shooter',
      glyph: 'fork',
      health: { max: 50 },
      movement: { walk: 2.2, run: 4.6, turnRate: 420 },
      senses: notices(18, 24),
      attacks: [attack('shot')],
      choice: { ...chooses('shot'), pause: { min: 0.2, max: 0.5 } },
      states: [
        { id: 'close-in', name: 'Close in', does: 'approach', stopAt: 8, leaves: [leave('circle', when('distance', 'below', 9))] },
        {
          id: 'circle',
          name: 'Circle',
          does: 'strafe',
          pace: 'walk',
          near: 6,
          far: 10,
          leaves: [leave('close-in', when('distance', 'above', 11.5)), leave('back-off', when('distance', 'below', 3.5))],
        },
        { id: 'back-off', name: 'Back off', does: 'flee', leaves: [leave('circle', when('distance', 'above', 6), 0.4)] },
      ],
    },
  },
  {
    id: 'heavy',
    called: 'slow, heavy, announced',
    about: 'walks up, raises itself for more than a second and slams; enough damage at once makes it reel',
    name: 'Heavy',
    written: {
      role: 'heavy',
      glyph: 'block',
      body: { radius: 0.8, height: 2.2, eyeHeight: 1.9, muzzleHeight: 1.4 },
      health: { max: 140 },
      armour: { flat: 1, minimumDamage: 1 },
      stagger: { threshold: 40, window: 2, duration: 1.2, immunity: 4 },
      knockback: { resist: 0.7 },
      movement: { walk: 1.5, run: 3, turnRate: 160 },
      senses: notices(16, 24),
      attacks: [attack('slam')],
      choice: { ...chooses('slam'), pause: { min: 0.3, max: 0.6 } },
      states: [{ id: 'trudge', name: 'Trudge', does: 'approach', stopAt: 1 }],
      onDeath: { worth: 3 },
    },
  },
  {
    id: 'mender',
    called: 'mends friends',
    about: 'follows its friends, heals whoever is hurt, runs from foes; it strikes nobody',
    name: 'Mender',
    written: {
      role: 'mender',
      glyph: 'cross',
      health: { max: 40 },
      energy: { max: 60, start: 60, regen: 4 },
      movement: { walk: 2, run: 4.4, turnRate: 360 },
      senses: notices(18, 26),
      attacks: [attack('mend', { energy: 20 })],
      choice: chooses('mend'),
      states: [
        { id: 'tend', name: 'Tend', does: 'follow', near: 2, far: 6, leaves: [leave('shrink', when('nearestFoe', 'below', 4))] },
        { id: 'shrink', name: 'Shrink back', does: 'flee', leaves: [leave('tend', when('nearestFoe', 'above', 7), 0.5)] },
      ],
      onDeath: { worth: 2 },
    },
  },
  {
    id: 'guard',
    called: 'guards a place',
    about: 'stands, goes for whoever comes near or hurts it, and turns back to its place when it is drawn away',
    name: 'Guard',
    written: {
      role: 'guard',
      glyph: 'bars',
      health: { max: 90 },
      armour: { flat: 1, minimumDamage: 1 },
      movement: { walk: 1.8, run: 4.2, turnRate: 300 },
      senses: notices(12, 16),
      leash: { radius: 14, heals: false },
      attacks: [attack('sweep')],
      choice: { ...chooses('sweep'), pause: { min: 0.2, max: 0.4 } },
      states: [
        {
          id: 'watch',
          name: 'Watch',
          does: 'hold',
          leaves: [leave('go', when('distance', 'below', 12)), leave('go', when('sinceHit', 'below', 1))],
        },
        { id: 'go', name: 'Go for them', does: 'approach' },
      ],
      onDeath: { worth: 2 },
    },
  },
  {
    id: 'patroller',
    called: 'patrols and chases',
    about: 'walks round its stops looking ahead, chases what it notices, goes back to its round when it has lost it',
    name: 'Patroller',
    written: {
      role: 'patroller',
      glyph: 'eye',
      health: { max: 60 },
      movement: { walk: 1.8, run: 5.2, turnRate: 300 },
      senses: notices(16, 20, { angle: 140, memory: 3 }),
      attacks: [attack('bite', { name: 'Snap' })],
      choice: { ...chooses('bite'), pause: { min: 0.1, max: 0.4 } },
      states: [
        {
          id: 'round',
          name: 'Its round',
          does: 'patrol',
          pace: 'walk',
          patrol: {
            points: [
              { id: 'a', x: 0, y: 0, pause: 1 },
              { id: 'b', x: -5, y: 3, pause: 1 },
              { id: 'c', x: -5, y: -3, pause: 1 },
            ],
          },
          leaves: [leave('chase', when('sees', 'yes'))],
        },
        { id: 'chase', name: 'Chase', does: 'approach', leaves: [leave('round', when('sees', 'no'), 4)] },
      ],
      onDeath: { worth: 2 },
    },
  },
  {
    id: 'burster',
    called: 'bursts',
    about: 'runs up, swells and bursts about itself, and once more where it falls: best brought down from afar',
    name: 'Burster',
    written: {
      role: 'burster',
      glyph: 'burst',
      body: { radius: 0.45, height: 1, eyeHeight: 0.8, muzzleHeight: 0.5 },
      health: { max: 36 },
      movement: { walk: 2.4, run: 6, turnRate: 420 },
      senses: notices(16, 22),
      attacks: [
        attack('slam', {
          id: 'burst',
          name: 'Burst',
          range: { min: 0, max: 1.2 },
          beat: { windup: 0.6, recovery: 0.6, cooldown: 3, moving: 'free' },
          effects: { damage: { amount: 14, spread: 2 } },
          area: { about: 'self', radius: 2.6 },
        }),
        attack('slam', {
          id: 'last',
          name: 'Last burst',
          range: { min: 0, max: 2 },
          beat: { windup: 0.6, cooldown: 0 },
          effects: { damage: { amount: 18, spread: 2 } },
          area: { about: 'self', radius: 2.5 },
        }),
      ],
      choice: chooses('burst'),
      states: [{ id: 'run-up', name: 'Run up', does: 'approach', stopAt: 0.8 }],
      onDeath: { attack: 'last', worth: 1 },
    },
  },
  {
    id: 'gun',
    called: 'rooted gun',
    about: 'stands where it is, turns slowly, and shoots along a line that a wall breaks',
    name: 'Rooted gun',
    written: {
      role: 'gun',
      glyph: 'lamp',
      body: { radius: 0.5, height: 1.6, eyeHeight: 1.4, muzzleHeight: 1.3 },
      health: { max: 80 },
      movement: { walk: 0, run: 0, turnRate: 90 },
      senses: notices(18, 22),
      attacks: [attack('ray')],
      choice: chooses('ray'),
      states: [{ id: 'rooted', name: 'Rooted', does: 'hold' }],
      onDeath: { worth: 2 },
    },
  },
  {
    id: 'boss',
    called: 'boss of three conducts',
    about: 'shoots from afar, from two thirds of its life on comes close and sweeps, in its last third slams too and is faster',
    name: 'Boss',
    written: {
      role: 'boss',
      glyph: 'elder',
      body: { radius: 1, height: 2.6, eyeHeight: 2.3, muzzleHeight: 1.8 },
      health: { max: 320 },
      armour: { flat: 1, minimumDamage: 1 },
      knockback: { resist: 0.9 },
      movement: { walk: 2, run: 3.8, turnRate: 220 },
      senses: notices(26, 40),
      attacks: [
        attack('burst-fire', { range: { min: 2, max: 14 } }),
        attack('sweep', { range: { min: 0, max: 2.4 } }),
        attack('slam', { range: { min: 0, max: 2.4 }, area: { about: 'self', radius: 3.4 } }),
      ],
      choice: {
        priorities: [
          { entries: [{ attack: 'slam', condition: when('healthShare', 'below', 0.34) }, { attack: 'sweep' }] },
          { entries: [{ attack: 'burst-fire' }] },
        ],
        pause: { min: 0.3, max: 0.7 },
      },
      states: [
        {
          id: 'first',
          name: 'From afar',
          does: 'band',
          near: 5,
          far: 10,
          attacks: 'some',
          only: ['burst-fire'],
          leaves: [leave('second', when('healthShare', 'below', 0.67))],
        },
        {
          id: 'second',
          name: 'Up close',
          does: 'approach',
          stopAt: 1.6,
          leaves: [leave('last', when('healthShare', 'below', 0.34))],
        },
        { id: 'last', name: 'At the end', does: 'approach', stopAt: 1.6, paceFactor: 1.3 },
      ],
      onDeath: { worth: 10 },
    },
  },
];

const SHOT = {
  id: 'shot',
  name: 'Shot',
  delivery: 'hitscan',
  range: { min: 0, max: 15 },
  facing: 15,
  beat: { windup: 0.1, recovery: 0.15, cooldown: 0.5, moving: 'slow' },
  effects: { damage: { amount: 5, spread: 1 } },
  hits: { limit: 1 },
  aim: { near: 0.9, far: 0.7 },
};

const ATTENTION = { angle: 240, follows: 3, mean: 0.3, spread: 0.08, mistakes: 0.08 };
const SEES = { sight: 40, lose: 60, reaction: { mean: 0.3, spread: 0.08 } };

/** Somebody of ordinary reflexes with an ordinary weapon: hits 5 × 0.9 twice a second within 15 m, takes a hundred, steps aside and dodges. */
const ORDINARY = {
  glyph: 'diamond',
  health: { max: 100 },
  movement: { walk: 2, run: 5, turnRate: 540 },
  senses: SEES,
  attacks: [SHOT],
  choice: chooses('shot'),
  states: [{ id: 'keep-away', name: 'Keep away', does: 'band', pace: 'walk', near: 4, far: 10 }],
  player: {
    attention: ATTENTION,
    answers: [
      { id: 'dodge', kind: 'dodge', window: 0.35, distance: 2, cooldown: 1.5 },
      { id: 'step', kind: 'stepOut' },
    ],
  },
};

const MEMBERS: readonly Omit<UnitBeginning, 'side'>[] = [
  {
    id: 'ordinary',
    called: 'keeps away and shoots',
    about: 'ordinary reflexes, an ordinary weapon: steps aside, dodges, keeps between 4 and 10 m',
    name: 'Member',
    written: { role: 'shooter', ...ORDINARY },
  },
  {
    id: 'close',
    called: 'fights up close',
    about: 'runs in and strikes, blocks what it sees coming, has more to lose',
    name: 'Close fighter',
    written: {
      ...ORDINARY,
      role: 'close',
      glyph: 'square',
      health: { max: 140 },
      armour: { flat: 1, minimumDamage: 1 },
      attacks: [
        {
          id: 'strike',
          name: 'Strike',
          delivery: 'melee',
          range: { min: 0, max: 1.4 },
          facing: 45,
          arc: 110,
          beat: { windup: 0.2, recovery: 0.25, cooldown: 0.7, moving: 'slow' },
          effects: { damage: { amount: 9, spread: 1 } },
        },
      ],
      choice: chooses('strike'),
      states: [{ id: 'close-in', name: 'Close in', does: 'approach', stopAt: 1 }],
      player: {
        attention: ATTENTION,
        answers: [
          { id: 'block', kind: 'block', window: 0.4, reduces: 0.7, cooldown: 0.8 },
          { id: 'step', kind: 'stepOut' },
        ],
      },
    },
  },
  {
    id: 'helper',
    called: 'helps the others',
    about: 'shoots less, heals a hurt friend, picks up whoever is down',
    name: 'Helper',
    written: {
      ...ORDINARY,
      role: 'helper',
      glyph: 'cross',
      attacks: [
        { ...SHOT, effects: { damage: { amount: 3, spread: 1 } } },
        {
          id: 'mend',
          name: 'Mend',
          delivery: 'support',
          range: { min: 0, max: 8 },
          targets: 'friends',
          beat: { windup: 0.6, recovery: 0.3, cooldown: 5, moving: 'slow' },
          effects: { heal: { amount: 18 } },
        },
      ],
      choice: { priorities: [{ entries: [{ attack: 'mend' }] }, { entries: [{ attack: 'shot' }] }] },
      player: { ...ORDINARY.player, rescues: { within: 15, safe: 2 } },
    },
  },
];

export const UNIT_BEGINNINGS: readonly UnitBeginning[] = [
  ...ENEMIES.map((one): UnitBeginning => ({ ...one, side: 'enemy' })),
  ...MEMBERS.map((one): UnitBeginning => ({ ...one, side: 'party' })),
];

/** A unit that begins so, with an id, a name and what else is its own. */
export function beginUnit({ side, written }: UnitBeginning, own: { id: string; name: string; colour?: Unit['colour'] } & Written): Unit {
  return wholeUnit({ ...written, ...own, side });
}
