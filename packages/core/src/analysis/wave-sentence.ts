/** When a wave starts, read aloud. */
import { conditionSentence } from '../model/condition';
import type { Encounter, Wave } from '../model/encounter';
import { numberWords as n } from '../model/number-words';

/** "75 % of First defeated, then 4 s". */
export function waveSentence(encounter: Encounter, wave: Wave): string {
  const index = encounter.waves.indexOf(wave);
  const other = wave.after === undefined ? encounter.waves[index - 1] : encounter.waves.find(({ id }) => id === wave.after);
  const named = other?.name ?? 'no wave';
  const parts = [start(wave, named)];
  if (wave.delay > 0) parts.push(`then ${n(wave.delay)} s`);
  if (wave.timeout !== undefined) parts.push(`at the latest after ${n(wave.timeout)} s`);
  if (wave.repeat && wave.repeat.times > 1)
    parts.push(
      `${n(wave.repeat.times)} times${wave.repeat.when === 'defeated' && wave.repeat.pause > 0 ? `, ${n(wave.repeat.pause)} s between` : ''}`,
    );
  return parts.join(', ');
}

function start(wave: Wave, named: string): string {
  switch (wave.start) {
    case 'atOnce':
      return 'at once';
    case 'clock':
      return `at ${n(wave.at)} s`;
    case 'with':
      return `with ${named}`;
    case 'defeated':
      return `${n(100 * wave.share)} % of ${named} defeated`;
    case 'condition':
      return wave.when ? `when ${conditionSentence(wave.when)}` : 'when nothing says';
    case 'called':
      return 'when an event calls it';
  }
}
