import { shown, density, linear, rulerOf, ticks } from '@insidia/core';
import { useMemo, useRef } from 'react';
import { useChart } from './useChart';
import { guarded } from '../parts/guarded';

interface Props {
  label: string;
  unit: string;
  now: readonly number[];
  before?: readonly number[];
  median: number;
  interval: { low: number; high: number };
  medianBefore?: number;
  width: number;
  theme: string;
}

const HEIGHT = 32;

/** The values of a batch as a smooth shape, with the median, its interval, and where it was before. */
export const Distribution = guarded(
  'The distribution',
  function Distribution({ label, unit, now, before, median, interval, medianBefore, width, theme }: Props) {
    const canvas = useRef<HTMLCanvasElement>(null);
    const curves = useMemo(() => {
      const [from, to] = rulerOf([...now, ...(before ?? [])], 0.12);
      return { from, to, now: density(now, from, to), before: before && density(before, from, to) };
    }, [now, before]);
    useChart(canvas, (charts, on) => charts.distributionChart(on), curves, theme);
    const x = linear(curves.from, curves.to, 0, width);
    const clamp = (value: number) => Math.min(Math.max(x(value), 0), width);
    const marks = ticks(curves.from, curves.to, 4);
    // The last tick bears the unit: one before it that this would run into gives way.
    const room = width - 7 * `${shown(marks[marks.length - 1] ?? 0)} ${unit}`.length;
    return (
      <div
        role="img"
        aria-label={`${label}: median ${shown(median, 2)} ${unit}, 95 % interval ${shown(interval.low, 2)} to ${shown(interval.high, 2)}`}
        className="relative"
        style={{ width, height: HEIGHT + 14 }}
      >
        <div style={{ width, height: HEIGHT }}>
          <canvas ref={canvas} width={width} height={HEIGHT} aria-hidden />
        </div>
        <svg width={width} height={HEIGHT + 14} className="absolute inset-0 overflow-visible" aria-hidden>
          <path d={`M0 ${HEIGHT + 0.5} H${width}`} className="axis" />
          {medianBefore !== undefined && Number.isFinite(medianBefore) && (
            <circle cx={clamp(medianBefore)} cy={HEIGHT} r={2.8} fill="var(--ghost)" />
          )}
          {Number.isFinite(median) && (
            <g>
              <path d={`M${clamp(interval.low)} ${HEIGHT} H${clamp(interval.high)}`} stroke="var(--ink-2)" strokeWidth={4} />
              <circle cx={clamp(median)} cy={HEIGHT} r={3.6} fill="var(--ink)" />
            </g>
          )}
          {marks.map((tick, i) =>
            i < marks.length - 1 && x(tick) + 8 > room && x(marks[marks.length - 1]) > width - 24 ? null : (
              <text
                key={tick}
                x={x(tick)}
                y={HEIGHT + 13}
                textAnchor={x(tick) < 8 ? 'start' : x(tick) > width - 24 ? 'end' : 'middle'}
                className="t3"
              >
                {shown(tick)}
                {i === marks.length - 1 ? ` ${unit}` : ''}
              </text>
            ),
          )}
        </svg>
      </div>
    );
  },
);
