/** Distances that do not go together: where it stops and what it reaches, sight and loss, leash and sight. */
import { APPROACH_SHARE } from '../../engine/tuning';
import type { State } from '../../model/state';
import type { Unit } from '../../model/unit';
import { type Inspected, amount, reachFrom, strikesFrom } from './context';

export function distances(one: Inspected): void {
  stops(one);
  senses(one);
  areas(one);
  shots(one);
}

function stops({ unit, warn }: Inspected): void {
  for (const state of unit.states) {
    const reach = reachFrom(unit, state);
    if (reach === undefined) continue;
    const to = amount(APPROACH_SHARE * reach);
    const nearest = Number(to.replace('−', '-'));
    if (state.does === 'approach' && state.stopAt !== undefined && state.stopAt > reach)
      warn('stopsOutOfReach', {
        at: ['states', state.id, 'stopAt'],
        message: `${state.name} stops at ${amount(state.stopAt)} m, but nothing reaches farther than ${amount(reach)} m`,
        mend: `stop at ${to} m, or give an attack a longer range`,
        causes: [['states', state.id, 'stopAt'], ['attacks']],
        fixes: [
          { name: `stop at ${to} m`, set: [{ path: `/states/${state.id}/stopAt`, value: nearest }] },
          ...reachFarther(unit, state, state.stopAt),
        ],
      });
    const { near = 0, far = 0 } = state;
    if ((state.does === 'band' || state.does === 'strafe') && near > reach)
      warn('stopsOutOfReach', {
        at: ['states', state.id, 'near'],
        message: `${state.name} keeps ${amount(near)} to ${amount(far)} m, but nothing reaches farther than ${amount(reach)} m`,
        mend: 'bring the band within reach, or give an attack a longer range',
        causes: [['states', state.id, 'near'], ['attacks']],
        fixes: [
          { name: `keep from ${to} m`, set: [{ path: `/states/${state.id}/near`, value: nearest }] },
          ...reachFarther(unit, state, far),
        ],
      });
  }
}

/** The attack that reaches farthest from a state, made to reach so far. */
function reachFarther(unit: Unit, state: State, metres: number) {
  const [farthest] = strikesFrom(unit, state);
  if (!farthest) return [];
  return [{ name: `${farthest.name} reaches ${amount(metres)} m`, set: [{ path: `/attacks/${farthest.id}/range/max`, value: metres }] }];
}

function senses({ project, unit, attacks, foes, warn }: Inspected): void {
  const { sight, lose } = unit.senses;
  if (lose < sight)
    warn('losesWhatItSees', {
      at: ['senses', 'lose'],
      message: `it sees a foe at ${amount(sight)} m and gives up beyond ${amount(lose)} m: between the two it forgets at once`,
      mend: 'lose a foe farther away than it is noticed',
      causes: [
        ['senses', 'sight'],
        ['senses', 'lose'],
      ],
      fixes: [
        { name: `lose beyond ${amount(sight * 1.25)} m`, set: [{ path: '/senses/lose', value: Number((sight * 1.25).toFixed(2)) }] },
        { name: `sight of ${amount(lose)} m`, set: [{ path: '/senses/sight', value: lose }] },
      ],
    });
  if (unit.leash && unit.leash.radius < sight)
    warn('leashInsideSight', {
      at: ['leash', 'radius'],
      message: `it sees ${amount(sight)} m far but turns back ${amount(unit.leash.radius)} m from home: it sets out for foes it will never reach`,
      mend: 'lengthen the leash or shorten its sight',
      causes: [
        ['leash', 'radius'],
        ['senses', 'sight'],
      ],
      fixes: [
        { name: `leash of ${amount(sight * 1.25)} m`, set: [{ path: '/leash/radius', value: Number((sight * 1.25).toFixed(2)) }] },
        { name: `sight of ${amount(unit.leash.radius)} m`, set: [{ path: '/senses/sight', value: unit.leash.radius }] },
      ],
    });
  for (const { id, name, range, targets } of attacks)
    if (targets === 'foes' && range.max > sight + 1e-9 && unit.senses.hearing < range.max)
      warn('reachBeyondSight', {
        at: ['attacks', id, 'range', 'max'],
        severity: 'notice',
        message: `${name} reaches ${amount(range.max)} m, but it notices nobody beyond ${amount(sight)} m`,
        mend: 'let it see as far as it can strike',
        causes: [
          ['attacks', id, 'range', 'max'],
          ['senses', 'sight'],
        ],
        fixes: [
          { name: `sight of ${amount(range.max)} m`, set: [{ path: '/senses/sight', value: range.max }] },
          { name: `reach ${amount(sight)} m`, set: [{ path: `/attacks/${id}/range/max`, value: sight }] },
        ],
      });
  const tallest = foes.reduce((most, { body }) => Math.max(most, body.height), 0);
  const low = project.arenas.some(({ walls }) => walls.some(({ height }) => height < unit.body.eyeHeight));
  if (low && tallest > 0 && unit.body.eyeHeight > 2 * tallest)
    warn('eyesAboveFoes', {
      at: ['body', 'eyeHeight'],
      severity: 'notice',
      message: `its eyes at ${amount(unit.body.eyeHeight)} m are more than twice as high as anybody it should see (${amount(tallest)} m): low cover hides nobody from it`,
      mend: 'lower the eyes, if cover is meant to work',
    });
}

function areas({ unit, attacks, warn }: Inspected): void {
  for (const { id, name, area, range } of attacks) {
    if (!area || area.about !== 'self') continue;
    const reaches = area.radius - unit.body.radius;
    if (reaches <= 0)
      warn('rangeInsideBody', {
        at: ['attacks', id, 'area', 'radius'],
        message: `${name} strikes within ${amount(area.radius)} m of its middle, but its own body is ${amount(unit.body.radius)} m: nobody can be in it`,
        mend: 'widen the area beyond the body',
        causes: [
          ['attacks', id, 'area', 'radius'],
          ['body', 'radius'],
        ],
        fixes: [
          {
            name: `radius of ${amount(unit.body.radius + Math.max(range.max, 1))} m`,
            set: [{ path: `/attacks/${id}/area/radius`, value: Number((unit.body.radius + Math.max(range.max, 1)).toFixed(2)) }],
          },
        ],
      });
    else if (range.max > reaches + 1e-9)
      warn('areaShorterThanRange', {
        at: ['attacks', id, 'range', 'max'],
        severity: range.max > 1.5 * reaches ? 'problem' : 'notice',
        message: `${name} is begun up to ${amount(range.max)} m away, but its area reaches only ${amount(reaches)} m from its edge`,
        mend: 'begin it nearer, or widen the area',
        causes: [
          ['attacks', id, 'range', 'max'],
          ['attacks', id, 'area', 'radius'],
          ['body', 'radius'],
        ],
        fixes: [
          { name: `begin within ${amount(reaches)} m`, set: [{ path: `/attacks/${id}/range/max`, value: Number(reaches.toFixed(2)) }] },
          {
            name: `an area of ${amount(range.max + unit.body.radius)} m`,
            set: [{ path: `/attacks/${id}/area/radius`, value: Number((range.max + unit.body.radius).toFixed(2)) }],
          },
        ],
      });
  }
}

function shots({ attacks, warn }: Inspected): void {
  for (const { id, name, projectile, range } of attacks) {
    if (projectile?.lifetime === undefined) continue;
    const flies = projectile.lifetime * projectile.speed;
    if (flies < range.max)
      warn('shotFallsShort', {
        at: ['attacks', id, 'projectile', 'lifetime'],
        message: `a shot of ${name} flies ${amount(flies)} m, but it is begun up to ${amount(range.max)} m away`,
        mend: 'let it fly longer or faster',
        causes: [
          ['attacks', id, 'projectile'],
          ['attacks', id, 'range', 'max'],
        ],
        fixes: [
          {
            name: `flies ${amount(range.max / projectile.speed)} s`,
            set: [{ path: `/attacks/${id}/projectile/lifetime`, value: Math.ceil((range.max / projectile.speed) * 1000) / 1000 }],
          },
          {
            name: `flies at ${amount(range.max / projectile.lifetime)} m/s`,
            set: [{ path: `/attacks/${id}/projectile/speed`, value: Math.ceil((range.max / projectile.lifetime) * 1000) / 1000 }],
          },
          { name: `begin within ${amount(flies)} m`, set: [{ path: `/attacks/${id}/range/max`, value: Number(flies.toFixed(2)) }] },
        ],
      });
  }
}
