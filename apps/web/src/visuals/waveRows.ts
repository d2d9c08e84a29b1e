/** Where waves and their groups stand on the encounter's clock: a line for each group, and one more where its words find no room on it. Pure. */
import { type Encounter, type EncounterReadout, type Scale, type Unit, shown } from '@insidia/core';
import { type BesidePlace, beside, wideAs } from './labels';

export type Head = Pick<Unit, 'id' | 'name' | 'role' | 'glyph' | 'colour' | 'side'>;

type Wave = Encounter['waves'][number];
type WaveClock = EncounterReadout['waves'][number];

/** px: where the first wave stands; from a group's line to the next; the least height of a wave; under it */
export const WAVES_TOP = 20;
export const GROUP_LINE = 14;
const LEAST = 32;
const GAP = 6;
/** px: what words at its foot need under the last group's line */
const BESIDES = 5;

export interface GroupRow {
  id: string;
  head: Head | undefined;
  /** px: the line of its bar */
  y: number;
  /** px: first spawn, tenth, median and ninetieth percentile of the last death; none: it never came */
  bar: { from: number; early: number; to: number; late: number } | undefined;
  said: string;
  /** `y`: the line of its words */
  says: BesidePlace & { y: number };
}

export interface WaveRow {
  /** Its times are rounds where the encounter's are. */
  wave: Wave;
  w: number;
  top: number;
  bottom: number;
  clock: WaveClock | undefined;
  groups: GroupRow[];
  /** How often something else than its start brought it: at the foot of the wave. */
  besides: string;
}

export function waveRows(
  { waves, clock: by }: Pick<Encounter, 'waves' | 'clock'>,
  readout: Pick<EncounterReadout, 'waves'> | undefined,
  heads: ReadonlyMap<string, Head>,
  within: { x: Scale; width: number; until: number },
): WaveRow[] {
  let next = WAVES_TOP;
  return waves.map((wave, w) => {
    const top = next;
    const clock = readout?.waves.find(({ id }) => id === wave.id);
    let y = top;
    const groups = wave.groups.map((group) => {
      const row = groupRow(group, clock, heads, y, within);
      y = row.says.y + GROUP_LINE;
      return row;
    });
    const besides = clock?.started ? exceptionsOf(clock) : '';
    const bottom = Math.max(top + LEAST, y + (besides ? BESIDES : 0));
    next = bottom + GAP;
    return { wave: by === 'rounds' ? inRounds(wave) : wave, w, top, bottom, clock, groups, besides };
  });
}

function groupRow(
  group: Wave['groups'][number],
  clock: WaveClock | undefined,
  heads: ReadonlyMap<string, Head>,
  y: number,
  { x, width, until }: { x: Scale; width: number; until: number },
): GroupRow {
  const span = clock?.groups.find(({ id }) => id === group.id);
  const at = (moment: number) => x(Math.min(until, moment));
  const bar = span?.first && {
    from: at(span.first.median),
    early: at(Math.max(span.first.median, span.last?.p10 ?? span.first.median)),
    to: at(span.last?.median ?? until),
    late: at(span.last?.p90 ?? until),
  };
  const words = groupWords(group, heads, span?.count);
  // Before anything has been run nobody can have failed to come.
  const said = bar || !clock ? words : `${words}, never came`;
  const place = beside(bar ?? { from: x(0), to: x(0) }, wideAs(said), x(0), width);
  const says = { ...place, y: place.under ? y + GROUP_LINE : y };
  return { id: group.id, head: heads.get(group.enemy ?? group.pool[0]?.enemy ?? ''), y, bar: bar ?? undefined, said, says };
}

/** "timeout 12 %" */
function exceptionsOf({ triggers: { timeout, event } }: WaveClock): string {
  const words = (share: number, what: string) => (share > 0 ? `${what} ${Math.max(1, Math.round(100 * share))} %` : '');
  return [words(timeout, 'timeout'), words(event, 'event')].filter(Boolean).join(', ');
}

/** Its times in rounds, where seconds would be. */
const inRounds = (wave: Wave): Wave => ({ ...wave, at: wave.rounds?.at ?? 1, delay: wave.rounds?.delay ?? 0 });

/** "6 Clippers, north door". */
export function groupWords(group: Encounter['waves'][number]['groups'][number], heads: ReadonlyMap<string, Head>, came?: number): string {
  const { min, max } = group.count;
  const many =
    group.draws === 'budget' && group.pool.length ? `for ${shown(group.budget)} worth` : min === max ? String(min) : `${min}–${max}`;
  const whom = group.pool.length ? `from a pool of ${group.pool.length}` : (heads.get(group.enemy ?? '')?.name ?? group.enemy ?? 'nobody');
  const actual =
    came !== undefined && min === max && Math.abs(came - max) > 0.05 && group.rule !== 'each' ? ` (${came.toFixed(1)} came)` : '';
  return `${many} ${whom}${group.side === 'ours' ? ', ours' : ''}${actual}`;
}
