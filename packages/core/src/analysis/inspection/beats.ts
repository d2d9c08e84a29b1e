/** Times and prices that are not what they seem, and attacks that cannot come. */
import { hitInstants } from '../../engine/hit-instants';
import { SECOND } from '../../record/time';
import type { Attack } from '../../model/attack';
import { traitsOf } from '../../model/delivery';
import { dashOnPaper } from '../dash-on-paper';
import { type Inspected, amount, impossible } from './context';

export function beats(one: Inspected): void {
  for (const attack of one.unit.attacks) {
    durations(one, attack);
    movement(one, attack);
    prices(one, attack);
    manyHits(one, attack);
    answerable(one, attack);
  }
  choices(one);
}

function durations({ unit, warn }: Inspected, { id, name, beat, effects }: Attack): void {
  const swing = beat.windup + beat.active + beat.recovery;
  // Of an attack that only follows another no cooldown is asked.
  const chosen = unit.choice.priorities.some(({ entries }) => entries.some(({ attack }) => attack === id));
  if (chosen && beat.cooldownFrom === 'start' && beat.cooldown > 0 && beat.cooldown < swing)
    warn('cooldownInsideSwing', {
      at: ['attacks', id, 'beat', 'cooldown'],
      severity: 'notice',
      message: `${name} takes ${amount(swing)} s, its cooldown of ${amount(beat.cooldown)} s from the start is over before: it holds nothing up`,
      mend: 'count the cooldown from the end, or make it longer than the swing',
      causes: [['attacks', id, 'beat']],
      fixes: [
        { name: 'count from the end', set: [{ path: `/attacks/${id}/beat/cooldownFrom`, value: 'end' }] },
        {
          name: `cooldown of ${amount(swing + beat.cooldown)} s`,
          set: [{ path: `/attacks/${id}/beat/cooldown`, value: round(swing + beat.cooldown) }],
        },
        { name: 'no cooldown', set: [{ path: `/attacks/${id}/beat/cooldown`, value: 0 }] },
      ],
    });
  if (beat.every !== undefined && beat.every > beat.active)
    warn('repeatBeyondActive', {
      at: ['attacks', id, 'beat', 'every'],
      severity: 'notice',
      message: `${name} should hit every ${amount(beat.every)} s but is active for ${amount(beat.active)} s: it hits once`,
      mend: 'lengthen the active part or take the repeat away',
      causes: [['attacks', id, 'beat']],
      fixes: [
        { name: 'hit once', set: [{ path: `/attacks/${id}/beat/every`, value: undefined }] },
        {
          name: `active for ${amount(2 * beat.every)} s: three hits`,
          set: [{ path: `/attacks/${id}/beat/active`, value: round(2 * beat.every) }],
        },
      ],
    });
  if (beat.cue !== undefined && beat.cue > beat.windup)
    warn('cueAfterWindup', {
      at: ['attacks', id, 'beat', 'cue'],
      message: `${name} can be read after ${amount(beat.cue)} s, when its wind-up of ${amount(beat.windup)} s is over`,
      mend: 'let the cue come within the wind-up',
      causes: [['attacks', id, 'beat']],
      fixes: [{ name: 'readable at once', set: [{ path: `/attacks/${id}/beat/cue`, value: undefined }] }],
    });
  const { overTime } = effects;
  if (overTime && overTime.for < overTime.every)
    warn('neverTicks', {
      at: ['attacks', id, 'effects', 'overTime', 'for'],
      message: `damage over time of ${name} lasts ${amount(overTime.for)} s but ticks first after ${amount(overTime.every)} s: it never does`,
      mend: 'let it last as long as a tick at least',
      causes: [['attacks', id, 'effects', 'overTime']],
      fixes: [{ name: `lasts ${amount(overTime.every)} s`, set: [{ path: `/attacks/${id}/effects/overTime/for`, value: overTime.every }] }],
    });
}

/** A movement ends with its attack at the latest. */
function movement({ warn }: Inspected, attack: Attack): void {
  const { id, name, beat, dash } = attack;
  const way = dash && dashOnPaper(attack, Infinity);
  if (!dash || !way) return;
  const whole = beat.windup + beat.active + beat.recovery;
  if (way.to <= whole + 1e-9) return;
  const could = Math.max(0, whole - way.from) * dash.speed;
  warn('movementCutShort', {
    at: ['attacks', id, 'dash'],
    message: `${name} takes ${amount(whole)} s, its movement would be over after ${amount(way.to)} s: it is cut short${could > 0 ? ` at ${amount(could)} m` : ' before it begins'}${dash.hurts === 'end' ? ' and never strikes' : ''}`,
    mend: 'let it go faster or less far, or lengthen the attack',
    causes: [
      ['attacks', id, 'dash'],
      ['attacks', id, 'beat'],
    ],
    ...(could >= 0.05 && {
      fixes: [{ name: `goes ${amount(could)} m`, set: [{ path: `/attacks/${id}/dash/distance`, value: Math.floor(could * 1000) / 1000 }] }],
    }),
  });
}

function prices({ unit, warn }: Inspected, { id, name, energy }: Attack): void {
  if (!energy) return;
  const most = unit.energy?.max ?? 0;
  if (energy > most)
    warn('unaffordable', {
      at: ['attacks', id, 'energy'],
      message: unit.energy
        ? `${name} costs ${amount(energy)} energy and it holds ${amount(most)} at most`
        : `${name} costs ${amount(energy)} energy and it has none`,
      mend: 'lower the price or give it more energy',
      causes: [['attacks', id, 'energy'], ['energy']],
      fixes: unit.energy
        ? [
            { name: `costs ${amount(most)}`, set: [{ path: `/attacks/${id}/energy`, value: most }] },
            { name: `holds ${amount(energy)}`, set: [{ path: '/energy/max', value: energy }] },
          ]
        : [
            { name: 'costs nothing', set: [{ path: `/attacks/${id}/energy`, value: undefined }] },
            {
              name: `give it ${amount(energy)} energy`,
              set: [{ path: '/energy', value: { max: energy, start: energy, regen: round(energy / 10) } }],
            },
          ],
    });
  else if (unit.energy && unit.energy.regen === 0 && unit.energy.start < energy)
    warn('unaffordable', {
      at: ['energy', 'start'],
      message: `it appears with ${amount(unit.energy.start)} energy, regains none, and ${name} costs ${amount(energy)}`,
      mend: 'let it start with more, or regain some',
      causes: [['attacks', id, 'energy'], ['energy']],
      fixes: [{ name: `starts with ${amount(most)}`, set: [{ path: '/energy/start', value: most }] }],
    });
}

/** A blow that lands again and again within one swing, on somebody whom nothing shields. */
function manyHits({ unit, foes, warn }: Inspected, attack: Attack): void {
  const { id, name, delivery, beat, hits, effects } = attack;
  if (unit.side !== 'enemy' || hits.perTarget !== 'every' || !effects.damage || beat.every === undefined) return;
  if (!traitsOf(delivery).wide) return;
  const instants = hitInstants(attack);
  const bare = foes.filter(({ invulnerability }) => invulnerability.duration < (beat.every ?? 0));
  if (instants < 2 || !bare.length) return;
  const whom = bare.length === foes.length ? 'anybody' : bare.map((foe) => foe.name).join(', ');
  warn('manyHitsNoWindow', {
    at: ['attacks', id, 'hits', 'perTarget'],
    message: `one ${name} lands up to ${instants} times ${amount(beat.every)} s apart, ${amount(instants * effects.damage.amount)} hp in all, and no invulnerability window shields ${whom}`,
    mend: 'let it hit each target once a use, or give its victims a window',
    causes: [
      ['attacks', id, 'hits'],
      ['attacks', id, 'beat'],
      ['attacks', id, 'effects', 'damage'],
    ],
    fixes: [
      { name: 'hit once a use', set: [{ path: `/attacks/${id}/hits/perTarget`, value: 'once' }] },
      ...(bare.length === 1
        ? [
            {
              name: `shield ${bare[0].name} for ${amount(beat.active)} s`,
              unit: bare[0].id,
              set: [{ path: '/invulnerability/duration', value: beat.active }],
            },
          ]
        : []),
    ],
  });
}

/** Heavy hits that leave a player no time, or no answer at all. */
function answerable({ unit, foes, warn }: Inspected, { id, name, delivery, beat, effects, answers, area }: Attack): void {
  if (unit.side !== 'enemy' || !effects.damage || !traitsOf(delivery).chosen) return;
  for (const foe of foes) {
    if (!foe.player || effects.damage.amount < HEAVY * foe.health.max) continue;
    const known = foe.player.answers.filter(({ kind }) => answers.includes(kind));
    if (foe.player.answers.length && !known.length) {
      warn('noAnswer', {
        at: ['attacks', id, 'answers'],
        severity: 'notice',
        message: `${foe.name} has no answer to ${name}, which takes ${share(effects.damage.amount / foe.health.max)} of its health`,
        mend: 'let one of its answers work, or take less',
        causes: [
          ['attacks', id, 'answers'],
          ['attacks', id, 'effects', 'damage'],
        ],
      });
      continue;
    }
    const time = beat.windup + (area?.delay ?? 0) - (beat.cue ?? 0);
    if (time < foe.player.attention.mean)
      warn('tooQuickToAnswer', {
        at: ['attacks', id, 'beat', 'windup'],
        severity: 'notice',
        message: `${name} hits ${amount(time)} s after it can be read; ${foe.name} reacts in ${amount(foe.player.attention.mean)} s, and it takes ${share(effects.damage.amount / foe.health.max)} of its health`,
        mend: 'lengthen the wind-up or lower the damage',
        causes: [
          ['attacks', id, 'beat'],
          ['attacks', id, 'effects', 'damage'],
        ],
        fixes: [
          {
            name: `wind up ${amount(beat.windup + foe.player.attention.mean - time + 0.1)} s`,
            set: [
              {
                path: `/attacks/${id}/beat/windup`,
                value: Math.round((beat.windup + foe.player.attention.mean - time + 0.1) * SECOND) / SECOND,
              },
            ],
          },
          {
            name: `take ${amount(0.1 * foe.health.max)} hp`,
            set: [{ path: `/attacks/${id}/effects/damage/amount`, value: round(0.1 * foe.health.max) }],
          },
        ],
      });
  }
}

/** Share of full health from which one hit counts as heavy. */
const HEAVY = 0.12;
const round = (value: number) => Number(value.toFixed(2));
const share = (value: number) => `${Math.round(100 * value)} %`;

/** What a choice never comes to. */
export function choices({ unit, attacks, warn }: Inspected): void {
  const interrupts = unit.player?.answers.some(({ kind }) => kind === 'interrupt');
  for (const { id, name, delivery, effects } of unit.attacks) {
    if (!traitsOf(delivery).chosen || unit.onDeath.attack === id || attacks.some((one) => one.id === id)) continue;
    if (interrupts && (effects.stagger || effects.damage)) continue; // begun to break off an attack
    warn('neverChosen', {
      at: ['attacks', id],
      severity: 'notice',
      message: `${name} is in no priority of the choice and follows no attack: it is never begun`,
      mend: 'put it into the choice',
      causes: [['choice'], ['attacks', id]],
      fixes: [
        {
          name: 'add to the last priority',
          set: [
            {
              path: '/choice/priorities',
              value: unit.choice.priorities.map((priority, i, all) =>
                i < all.length - 1 ? priority : { ...priority, entries: [...priority.entries, { attack: id, weight: 1 }] },
              ),
            },
          ],
        },
      ],
    });
  }
  const settled = new Set<string>();
  unit.choice.priorities.forEach((priority, p) => {
    const place = ['choice', 'priorities', p];
    if (priority.condition && impossible(priority.condition))
      warn('neverReached', {
        at: [...place, 'condition'],
        message: `priority ${p + 1} can never be tried: its condition can’t hold`,
        mend: 'change the condition',
      });
    priority.entries.forEach((entry, e) => {
      const name = unit.attacks.find(({ id }) => id === entry.attack)?.name ?? entry.attack;
      const here = [...place, 'entries', e];
      if (entry.weight === 0)
        warn('neverReached', {
          at: [...here, 'weight'],
          message: `${name} has no weight in priority ${p + 1}: it is never drawn`,
          mend: 'give it a weight',
          fixes: [{ name: 'weight 1', set: [{ path: `/choice/priorities/${p}/entries/${e}/weight`, value: 1 }] }],
        });
      if (entry.condition && impossible(entry.condition))
        warn('neverReached', {
          at: [...here, 'condition'],
          message: `${name} can never be usable in priority ${p + 1}: its condition can’t hold`,
          mend: 'change the condition',
        });
      if (settled.has(entry.attack))
        warn('neverReached', {
          at: here,
          severity: 'notice',
          message: `${name} stands in a higher priority without any condition: whenever it is usable it has been begun there`,
          mend: 'take it out here, or give the higher entry a condition',
          causes: [['choice']],
        });
    });
    if (priority.condition) return;
    const alone = priority.entries.length === 1;
    for (const { attack, condition, weight } of priority.entries) if (alone && !condition && weight > 0) settled.add(attack);
  });
}
