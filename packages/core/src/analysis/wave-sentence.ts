/** When a wave starts, read aloud. */
import { conditionSentence } from '../model/condition';
import type { Encounter, Wave } from '../model/encounter';
import { waveInRounds } from '../model/in-rounds';
import { type Clock, withUnit } from '../record/clock';
import { numberWords as n } from '../model/number-words';

/** "75 % of First defeated, then 4 s". */
export function waveSentence(encounter: Encounter, given: Wave): string {
  const { clock } = encounter;
  const wave = clock === 'rounds' ? waveInRounds(given) : given;
  const time = (value: number) => withUnit(clock, n(value), 's');
  const index = encounter.waves.indexOf(given);
  const other = wave.after === undefined ? encounter.waves[index - 1] : encounter.waves.find(({ id }) => id === wave.after);
  const named = other?.name ?? 'no wave';
  const parts = [start(given, named, clock)];
  if (wave.delay > 0) parts.push(`then ${time(wave.delay)}`);
  if (wave.timeout !== undefined) parts.push(`at the latest after ${time(wave.timeout)}`);
  if (wave.repeat && wave.repeat.times > 1)
    parts.push(
      `${n(wave.repeat.times)} times${wave.repeat.when === 'defeated' && wave.repeat.pause > 0 ? `, ${time(wave.repeat.pause)} between` : ''}`,
    );
  return parts.join(', ');
}

function start(wave: Wave, named: string, clock: Clock): string {
  switch (wave.start) {
    case 'atOnce':
      return 'at once';
    case 'clock':
      return clock === 'rounds' ? `in round ${wave.rounds?.at ?? 1}` : `at ${n(wave.at)} s`;
    case 'with':
      return `with ${named}`;
    case 'defeated':
      return `${n(100 * wave.share)} % of ${named} defeated`;
    case 'condition':
      return wave.when ? `when ${conditionSentence(wave.when, clock)}` : 'when nothing says';
    case 'called':
      return 'when an event calls it';
  }
}
