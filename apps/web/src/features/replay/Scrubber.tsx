import { type Replay, type UnitHead, clockTicks, linear } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, memo } from 'react';
import { guarded } from '../../parts/guarded';
import { replayTime } from './replayTime';

interface Props {
  replay: Replay;
  width: number;
  length: number;
  time: number;
  /** s: where this run and the compared one part. */
  parts?: number;
  selected?: number;
  heads: ReadonlyMap<string, UnitHead>;
  onTime: (seconds: number) => void;
}

const HEIGHT = 62;
const BOTTOM = 34;

/** The whole run on a line: pressure, waves, hits on the party, deaths. Dragged, or by the arrow keys. */
export const Scrubber = guarded('The clock', function Scrubber({ replay, width, length, time, parts, heads, onTime }: Props) {
  const x = linear(0, length || 1, 6, width - 6);
  const at = (event: PointerEvent<SVGSVGElement>) => x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left);
  const keys = (event: KeyboardEvent) => {
    const far = event.shiftKey ? 1 : replay.step;
    const to = { ArrowRight: time + far, ArrowLeft: time - far, Home: 0, End: length, PageUp: time + 5, PageDown: time - 5 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onTime(to);
  };
  return (
    <div className="px-4">
      <svg
        width={width}
        height={HEIGHT}
        role="slider"
        tabIndex={0}
        aria-label="Instant"
        aria-valuenow={Number(time.toFixed(2))}
        aria-valuemin={0}
        aria-valuemax={Number(length.toFixed(2))}
        aria-valuetext={replayTime(replay, time, 2)}
        style={{ cursor: 'ew-resize', touchAction: 'none' }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          onTime(at(event));
        }}
        onPointerMove={(event) => event.buttons === 1 && onTime(at(event))}
        onKeyDown={keys}
      >
        <Marks replay={replay} width={width} length={length} heads={heads} />
        {parts !== undefined && <path d={`M${x(parts)} 2 V${BOTTOM + 12}`} stroke="var(--warn)" strokeWidth={1.4} strokeDasharray="3 2" />}
        <path d={`M${x(time)} 2 V${BOTTOM + 14}`} stroke="var(--ink)" strokeWidth={2} />
        <path d={`M${x(time)} ${BOTTOM - 6} l6 6 l-6 6 l-6 -6z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.6} />
      </svg>
    </div>
  );
});

/** px of a letter in the label's size, a little more than its mean. */
const NAME_WIDTH = 6;

/** What does not move with the clock. */
const Marks = memo(function Marks({ replay, width, length, heads }: Pick<Props, 'replay' | 'width' | 'length' | 'heads'>) {
  const x = linear(0, length || 1, 6, width - 6);
  const most = Math.max(0.02, ...replay.pressure);
  const points: string[] = [];
  const every = Math.max(1, Math.floor(replay.pressure.length / width));
  for (let i = 0; i < replay.pressure.length; i += every)
    points.push(`${x(i * replay.step).toFixed(1)} ${(BOTTOM - (replay.pressure[i] / most) * (BOTTOM - 10)).toFixed(1)}`);
  const hits = replay.events.filter(({ event, other }) => event === 'hit' && other !== undefined && replay.units[other]?.side === 'party');
  const waves = replay.events.filter(({ event }) => event === 'wave');
  // A name that would run into the next wave's mark waits in its tooltip.
  const named = waves.map(
    ({ time, what = '' }, i) => i === waves.length - 1 || x(time) + 3 + what.length * NAME_WIDTH < x(waves[i + 1].time),
  );
  const deaths = replay.events.filter(({ event, unit }) => (event === 'death' || event === 'down') && unit !== undefined);
  return (
    <g>
      {points.length > 1 && <path d={`M6 ${BOTTOM} L${points.join(' L')} L${x(replay.length)} ${BOTTOM}Z`} fill="var(--dist)" />}
      <path d={`M6 ${BOTTOM + 0.5} H${width - 6}`} className="axis" />
      {waves.map((event, i) => (
        <g key={i}>
          <path d={`M${x(event.time)} 2 V${BOTTOM}`} stroke="var(--ink-2)" />
          {named[i] && (
            <text x={x(event.time) + 3} y={10} className="t3">
              {event.what}
            </text>
          )}
          <title>{event.what}</title>
        </g>
      ))}
      <path d={hits.map(({ time }) => `M${x(time).toFixed(1)} ${BOTTOM + 3} v5`).join(' ')} stroke="var(--ink)" strokeWidth={1} />
      {deaths.map(({ time, unit }, i) => (
        <circle
          key={i}
          cx={x(time)}
          cy={BOTTOM + 12}
          r={2.6}
          fill={`var(--e-${heads.get(replay.units[unit ?? 0]?.kind ?? '')?.colour ?? 'ink'})`}
        >
          <title>{replay.units[unit ?? 0]?.name} dies</title>
        </circle>
      ))}
      {clockTicks(length, 8).map((tick) => (
        <text key={tick} x={x(tick)} y={BOTTOM + 27} textAnchor={tick === 0 ? 'start' : 'middle'} className="t3">
          {replayTime(replay, tick)}
        </text>
      ))}
    </g>
  );
});
