import {
  type AlongPoint,
  type Dial,
  type Objective,
  crossingsOf,
  dialValue,
  linear,
  numberOf,
  type Project,
  unitOf,
  wantedWords,
} from '@insidia/core';
import { guarded } from '../../parts/guarded';
import { headOf } from './words';

interface Props {
  project: Project;
  objective: Objective;
  dial: Dial;
  now: number;
  chosen: number | undefined;
  points: readonly AlongPoint[];
  width: number;
  onChoose: (at: number) => void;
}

const short = (value: number) => Number(value.toPrecision(3));

const HEIGHT = 104;
const TOP = 8;
const FOOT = 18;
/** Room for the numbers of the ruler. */
const LEFT = 34;

/** One objective along a dial: its value, the interval of it, the middle half of the runs; the bracket is what is wanted. */
export const AlongCurve = guarded(
  'The curve',
  function AlongCurve({ project, objective, dial, now, chosen, points, width, onChoose }: Props) {
    const { measure, band, clock } = objective;
    const finite = points.filter(({ value }) => Number.isFinite(value));
    const edges = [band?.low, band?.high].filter((edge): edge is number => edge !== undefined);
    const values = [
      ...finite.flatMap(({ value, low, high, spread }) => [value, low, high, spread?.low ?? value, spread?.high ?? value]),
      ...edges,
    ].filter(Number.isFinite);
    const [least, most] = values.length ? [Math.min(...values), Math.max(...values)] : [0, 1];
    const room = (most - least || Math.abs(most) || 1) * 0.06;
    const x = linear(dial.low, dial.high, LEFT, width - 8);
    const y = linear(least - room, most + room, HEIGHT - FOOT, TOP);
    const within = (value: number) => Math.min(HEIGHT - FOOT, Math.max(TOP, y(value)));
    const shape = (of: (point: AlongPoint) => { low: number; high: number } | undefined) => {
      const own = finite.flatMap((point) => {
        const range = of(point);
        return range ? [{ at: point.at, low: within(range.low), high: within(range.high) }] : [];
      });
      if (own.length < 2) return '';
      return `M${own.map(({ at, high }) => `${x(at)} ${high}`).join(' L')} L${[...own]
        .reverse()
        .map(({ at, low }) => `${x(at)} ${low}`)
        .join(' L')} Z`;
    };
    const crossings = band ? crossingsOf(points, band) : [];
    const never = points.filter(({ value, n }) => n > 0 && value === Infinity);
    const bracket = band && `M${LEFT - 2} ${within(band.high ?? Infinity)} H${LEFT - 6} V${within(band.low ?? -Infinity)} H${LEFT - 2}`;
    return (
      <figure className="min-w-0" aria-label={`${headOf(objective)} along the number`}>
        <figcaption className="truncate text-table font-semibold">
          {headOf(objective)} <span className="font-normal text-ink-3">{unitOf(measure, clock)}</span>
        </figcaption>
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={points.map((point) => `${dialValue(project, dial, point.at)}: ${numberOf(measure, point.value, clock)}`).join(', ')}
        >
          {band && (
            <rect
              x={12}
              width={width - 18}
              y={within(band.high ?? Infinity)}
              height={Math.max(0, within(band.low ?? -Infinity) - within(band.high ?? Infinity))}
              fill="var(--well)"
            />
          )}
          {bracket && <path d={bracket} fill="none" stroke="var(--ink-2)" />}
          <path d={shape(({ spread }) => spread)} fill="var(--ink-3)" opacity={0.14} />
          <path d={shape(({ low, high }) => ({ low, high }))} fill="var(--ink-2)" opacity={0.28} />
          <path
            d={finite.length ? `M${finite.map((point) => `${x(point.at)} ${within(point.value)}`).join(' L')}` : ''}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          <path d={`M${LEFT - 6} ${HEIGHT - FOOT + 0.5} H${width - 2}`} className="axis" />
          {crossings.map(({ at, between }) => (
            <g key={at}>
              <path d={`M${x(between.low)} ${HEIGHT - FOOT + 3} H${x(between.high)}`} stroke="var(--ink-3)" strokeWidth={2} />
              <path d={`M${x(at)} ${HEIGHT - FOOT - 4} V${HEIGHT - FOOT + 4}`} stroke="var(--ink)" />
            </g>
          ))}
          {never.map(({ at }) => (
            <path key={at} d={`M${x(at) - 3} ${TOP + 3} L${x(at)} ${TOP - 2} L${x(at) + 3} ${TOP + 3}`} fill="none" stroke="var(--ink)" />
          ))}
          {points.map(({ at, value }) => (
            <circle
              key={at}
              cx={x(at)}
              cy={within(value)}
              r={at === chosen ? 4 : 2.4}
              fill={at === now ? 'var(--sheet)' : 'var(--ink)'}
              stroke={at === now ? 'var(--ghost)' : 'none'}
              strokeWidth={1.8}
            />
          ))}
          {points.map(({ at }) => (
            <rect
              key={at}
              x={x(at) - 8}
              y={0}
              width={16}
              height={HEIGHT}
              fill="transparent"
              className="cursor-pointer"
              onClick={() => onChoose(at)}
            />
          ))}
          <text x={LEFT} y={HEIGHT - 3} textAnchor="middle" className="t3">
            {Number(dial.low.toPrecision(3))}
          </text>
          <text x={width - 2} y={HEIGHT - 3} textAnchor="end" className="t3">
            {Number(dial.high.toPrecision(3))}
          </text>
          <text x={LEFT - 9} y={TOP + 6} textAnchor="end" className="t3" style={{ fontSize: 10 }}>
            {numberOf(measure, most, clock)}
          </text>
          <text x={LEFT - 9} y={HEIGHT - FOOT} textAnchor="end" className="t3" style={{ fontSize: 10 }}>
            {numberOf(measure, least, clock)}
          </text>
        </svg>
        <p className="text-label text-ink-3">
          {[
            ...crossings.map(
              ({ at, between, goes }) => `goes ${goes} at about ${short(at)} (between ${short(between.low)} and ${short(between.high)})`,
            ),
            ...(band && !crossings.length ? [wantedWords(measure, band, clock)] : []),
            ...(never.length ? [`never at ${never.map(({ at }) => short(at)).join(', ')}`] : []),
          ].join('; ')}
        </p>
      </figure>
    );
  },
);
