/** What a new attack may begin as. Its damage, beat and reach are plausible for a fight against a hundred of health. */
import type { Attack } from '../attack';
import { traitsOf } from '../delivery';
import { type Beginning, type Written, wholeUnit } from './beginning';

export interface AttackBeginning extends Beginning {
  written: Written & { delivery: Attack['delivery'] };
}

const damage = (amount: number, spread = 1) => ({ damage: { amount, spread } });

export const ATTACK_BEGINNINGS: readonly AttackBeginning[] = [
  {
    id: 'bite',
    called: 'a quick bite',
    about: 'short reach, a short wind-up, soon again',
    name: 'Bite',
    written: {
      delivery: 'melee',
      range: { min: 0, max: 1 },
      facing: 40,
      arc: 100,
      beat: { windup: 0.4, active: 0, recovery: 0.3, cooldown: 1.2, moving: 'slow' },
      effects: damage(7),
      hits: { limit: 1 },
    },
  },
  {
    id: 'sweep',
    called: 'a wide sweep',
    about: 'longer reach, everybody in an arc, a wind-up that can be read',
    name: 'Sweep',
    written: {
      delivery: 'melee',
      range: { min: 0, max: 2 },
      facing: 45,
      arc: 150,
      beat: { windup: 0.6, active: 0, recovery: 0.6, cooldown: 2.4, moving: 'slow' },
      effects: damage(14, 2),
    },
  },
  {
    id: 'shot',
    called: 'a shot that flies',
    about: 'from a distance; a step aside lets it pass',
    name: 'Shot',
    written: {
      delivery: 'projectile',
      range: { min: 3, max: 12 },
      facing: 15,
      beat: { windup: 0.5, recovery: 0.3, cooldown: 1.8, moving: 'slow' },
      effects: damage(8),
      hits: { limit: 1 },
      projectile: { speed: 18, radius: 0.1, lead: 0.5 },
      aim: { near: 0.95, far: 0.75 },
    },
  },
  {
    id: 'burst-fire',
    called: 'a burst of shots',
    about: 'five flying shots one after another, each of which hurts',
    name: 'Burst of shots',
    written: {
      delivery: 'projectile',
      range: { min: 2, max: 10 },
      facing: 15,
      beat: { windup: 0.6, active: 0.6, every: 0.15, recovery: 0.5, cooldown: 3, tracking: 'fixed' },
      effects: damage(3),
      hits: { perTarget: 'every', limit: 1 },
      projectile: { speed: 20, radius: 0.08, spread: 6 },
      aim: { near: 0.95, far: 0.75 },
    },
  },
  {
    id: 'ray',
    called: 'an instant shot',
    about: 'strikes along a line at once; only cover or distance helps',
    name: 'Ray',
    written: {
      delivery: 'hitscan',
      range: { min: 0, max: 16 },
      facing: 10,
      beat: { windup: 0.8, recovery: 0.4, cooldown: 2.2 },
      effects: damage(8),
      hits: { limit: 1 },
      aim: { near: 0.9, far: 0.6 },
      answers: ['dodge', 'block', 'breakLine', 'interrupt'],
    },
  },
  {
    id: 'slam',
    called: 'a slam about itself',
    about: 'long announced, heavy, pushes away everybody near',
    name: 'Slam',
    written: {
      delivery: 'area',
      range: { min: 0, max: 2 },
      needsLine: false,
      beat: { windup: 1, recovery: 0.9, cooldown: 4, moving: 'slow' },
      effects: { ...damage(22, 3), knockback: { distance: 2 } },
      area: { about: 'self', radius: 3.5 },
    },
  },
  {
    id: 'marked',
    called: 'a burst at a marked point',
    about: 'marks the ground under its target and bursts there a second later',
    name: 'Marked burst',
    written: {
      delivery: 'area',
      range: { min: 3, max: 12 },
      beat: { windup: 0.5, recovery: 0.5, cooldown: 4 },
      effects: damage(16, 2),
      area: { about: 'mark', radius: 2, delay: 1 },
      answers: ['stepOut', 'dodge'],
    },
  },
  {
    id: 'charge',
    called: 'a charge',
    about: 'gathers itself, then runs straight at where its target stood and hurts whom it meets',
    name: 'Charge',
    written: {
      delivery: 'melee',
      range: { min: 3, max: 9 },
      facing: 20,
      beat: { windup: 0.7, active: 0.8, recovery: 0.8, cooldown: 5, tracking: 'fixed' },
      effects: { ...damage(16, 2), knockback: { distance: 1.5 } },
      dash: { way: 'ahead', distance: 9, speed: 12, during: 'active', hurts: 'way' },
      answers: ['stepOut', 'dodge', 'interrupt'],
    },
  },
  {
    id: 'burning',
    called: 'a touch that lingers',
    about: 'little at once, the rest over five seconds',
    name: 'Lingering touch',
    written: {
      delivery: 'melee',
      range: { min: 0, max: 1.2 },
      facing: 45,
      beat: { windup: 0.4, recovery: 0.3, cooldown: 3, moving: 'slow' },
      effects: { ...damage(2, 0), overTime: { amount: 2, every: 1, for: 5 } },
      hits: { limit: 1 },
    },
  },
  {
    id: 'mend',
    called: 'help for a hurt friend',
    about: 'heals one friend at a time, and can be broken off by a hit',
    name: 'Mend',
    written: {
      delivery: 'support',
      range: { min: 0, max: 8 },
      targets: 'friends',
      beat: { windup: 0.9, recovery: 0.4, cooldown: 3.5 },
      effects: { heal: { amount: 14 } },
      interruptible: { stagger: true, hit: 4 },
    },
  },
];

/** An attack that begins so, with an id and a name of its own. */
export function beginAttack({ written }: AttackBeginning, own: { id: string; name: string }): Attack {
  const chosen = traitsOf(written.delivery).chosen;
  const unit = wholeUnit({
    id: 'unit',
    name: 'Unit',
    side: 'enemy',
    attacks: [{ ...written, ...own }],
    choice: { priorities: [{ entries: chosen ? [{ attack: own.id }] : [] }] },
  });
  return unit.attacks[0];
}
