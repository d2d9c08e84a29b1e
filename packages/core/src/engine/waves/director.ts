/** The encounter as a whole: zones, events, waves that wait for a condition, units that stray too far. */
import { EVENT, GONE } from '../../record/log';
import { ENEMY, PARTY } from '../../record/sides';
import { inReach } from '../body/reach';
import type { Fight } from '../fight';
import { depart } from '../harm/death';
import { addBoost } from '../harm/effects';
import { holds } from '../mind/conditions';
import { count, setFlag } from '../mind/signals';
import { NOBODY } from '../numbers';
import type { CompiledConsequence } from '../tables';
import { enters } from './zones';
import { opponents } from './spawns';
import { checkWaves, stopWave } from './waves';

/** Whether a fight has anything for this phase to do. */
export function isDirected({ compiled: { zones, events, waves, hasStrayers } }: Fight): boolean {
  return zones.length > 0 || events.length > 0 || hasStrayers || waves.some(({ when }) => when !== null);
}

/** Phase of a step. */
export function direct(fight: Fight): void {
  watchZones(fight);
  watchEvents(fight);
  checkWaves(fight);
  if (fight.compiled.hasStrayers) letStrayersGo(fight);
}

function watchZones(fight: Fight): void {
  for (const zone of fight.compiled.zones) {
    if (fight.flags[zone.flag]) continue;
    const entered = fight.alive.find((unit) => enters(fight, zone, unit, fight.x[unit], fight.y[unit]));
    if (entered !== undefined) setFlag(fight, entered, zone.flag, true);
  }
}

function watchEvents(fight: Fight): void {
  const { events } = fight.compiled;
  for (let number = 0; number < events.length; number++) {
    if (fight.happened[number] || !holds(fight, NOBODY, events[number].when)) continue;
    fight.happened[number] = true;
    fight.log.add(fight.now, EVENT.happening, NOBODY, NOBODY, number);
    events[number].then.forEach((act, i) => carryOut(fight, act, number, i));
  }
}

function carryOut(fight: Fight, act: CompiledConsequence, number: number, place: number): void {
  switch (act.does) {
    case 'raise':
    case 'lower':
      return setFlag(fight, NOBODY, act.of, act.does === 'raise');
    case 'count':
      if (act.counts) count(fight, NOBODY, act.counts);
      return;
    case 'score':
      fight.log.add(fight.now, EVENT.score, NOBODY, NOBODY, number, act.score);
      return;
    case 'stopWave':
      return stopWave(fight, act.of);
    case 'tweak':
    case 'trait':
      act.boosts.forEach((boost, type) => {
        if (!boost) return;
        fight.standingBoosts.push({ type, id: number, tweaks: place });
        for (const unit of [...fight.alive]) if (fight.kinds[unit].type === type) addBoost(fight, NOBODY, unit, -1, boost);
      });
      return;
    case 'startWave':
      fight.waves[act.of].called = true;
      return;
    case 'end':
      fight.over = true;
      fight.outcome = act.outcome;
      fight.log.add(fight.now, EVENT.end, NOBODY, NOBODY, act.outcome);
  }
}

function letStrayersGo(fight: Fight): void {
  const { waves } = fight.compiled;
  const against = [PARTY, ENEMY].map((side) => opponents(fight, side));
  for (const unit of [...fight.living[ENEMY], ...fight.living[PARTY]]) {
    if (fight.wave[unit] < 0) continue;
    const beyond = waves[fight.wave[unit]].groups[fight.group[unit]]?.leavesBeyond ?? Infinity;
    if (beyond === Infinity) continue;
    const near = against[fight.side[unit]].some((foe) => fight.isAlive[foe] && inReach(fight.apart(unit, foe), beyond));
    if (!near) depart(fight, unit, GONE.farAway);
  }
}
