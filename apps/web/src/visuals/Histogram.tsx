import { drag } from '../fields/drag';
import { useNewest } from '../fields/useNewest';
import { type Estimate, binned, linear, rulerOf, ticks } from '@insidia/core';
import { useMemo, useRef } from 'react';
import { useChart } from './useChart';
import { guarded } from '../parts/guarded';

interface Props {
  values: readonly number[];
  estimate: Estimate;
  statistic: string;
  band?: { low?: number; high?: number };
  /** Numbers as they are told: percent, clock. */
  number: (value: number) => string;
  /** The same for the ruler, whose values are round. */
  tick: (value: number) => string;
  unit: string;
  paper?: number;
  width: number;
  theme: string;
  /** An edge of the band is dragged to a value. */
  onEdge?: (edge: 'low' | 'high', value: number, mark: string) => void;
}

const TOP = 16;
const HEIGHT = 118;
const BINS = 24;

/** Every run in bars, the band as a bracket whose edges can be dragged, the statistic with its interval, and the paper value. */
export const Histogram = guarded(
  'The histogram',
  function Histogram({ values, estimate, statistic, band, number, tick: tickWords, unit, paper, width, theme, onEdge }: Props) {
    const canvas = useRef<HTMLCanvasElement>(null);
    const newest = useNewest(onEdge);
    const { from, to, counts } = useMemo(() => bins(values, band, paper), [values, band, paper]);
    const x = linear(from, to, 0, width);
    const clamp = (value: number) => Math.min(Math.max(x(value), 0), width);
    const bars = useMemo(() => {
      const step = (to - from) / BINS;
      const inBand = counts.map((_, i) => {
        const middle = from + (i + 0.5) * step;
        return band === undefined || (middle >= (band.low ?? -Infinity) && middle <= (band.high ?? Infinity));
      });
      return { counts, inBand };
    }, [counts, band, from, to]);
    useChart(canvas, (charts, on) => charts.histogramChart(on), bars, theme);
    const { value, low, high } = estimate;
    const survivors = values.filter((one) => one === Infinity).length;
    const edge = (which: 'low' | 'high') => {
      const at = band?.[which];
      if (at === undefined) return null;
      const foot = which === 'low' ? 6 : -6;
      return (
        <g
          key={which}
          role="slider"
          tabIndex={onEdge ? 0 : -1}
          aria-label={which === 'low' ? 'Band, at least' : 'Band, at most'}
          aria-valuenow={at}
          aria-valuetext={`${number(at)} ${unit}`}
          className={onEdge ? 'edge' : undefined}
          style={{ touchAction: 'none' }}
          onKeyDown={(event) => {
            const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
            if (!way || !onEdge) return;
            event.preventDefault();
            onEdge(which, at + (way * (to - from)) / (event.shiftKey ? 20 : 200), `band keys ${which}`);
          }}
          onPointerDown={(event) => {
            if (event.button !== 0 || !onEdge) return;
            const start = event.clientX;
            const mark = `band drag ${event.timeStamp}`;
            drag(event, (e) => newest.current?.(which, at + ((e.clientX - start) * (to - from)) / width, mark));
          }}
        >
          <rect x={clamp(at) - 6} y={TOP - 4} width={12} height={HEIGHT + 4} fill="transparent" />
          <path
            d={`M${clamp(at) + foot} ${TOP + 0.5} H${clamp(at)} V${TOP + HEIGHT}`}
            fill="none"
            stroke="var(--band-edge)"
            strokeWidth={1.5}
          />
        </g>
      );
    };
    const labelLeft = clamp(value) > width * 0.62;
    return (
      <div className="relative" style={{ width, height: TOP + HEIGHT + 34 }}>
        <div className="absolute" style={{ left: 0, top: TOP, width, height: HEIGHT }}>
          <canvas ref={canvas} width={width} height={HEIGHT} aria-hidden />
        </div>
        <svg
          width={width}
          height={TOP + HEIGHT + 34}
          className="absolute inset-0 overflow-visible"
          role="group"
          aria-label={`Histogram of ${values.length} runs: ${statistic} ${number(value)} ${unit}, 95 % interval ${number(low)} to ${number(high)}`}
        >
          {band && (
            <rect
              x={clamp(band.low ?? from)}
              y={TOP}
              width={Math.max(0, clamp(band.high ?? to) - clamp(band.low ?? from))}
              height={HEIGHT}
              fill="var(--band)"
              pointerEvents="none"
            />
          )}
          <path d={`M0 ${TOP + HEIGHT + 0.5} H${width}`} className="axis" />
          {ticks(from, to, 6).map((tick) => (
            <g key={tick}>
              <path d={`M${x(tick)} ${TOP + HEIGHT} v4`} className="axis" />
              <text
                x={x(tick)}
                y={TOP + HEIGHT + 14}
                textAnchor={x(tick) < 8 ? 'start' : x(tick) > width - 12 ? 'end' : 'middle'}
                className="t3"
              >
                {tickWords(tick)}
              </text>
            </g>
          ))}
          {Number.isFinite(value) && (
            <g pointerEvents="none">
              <path d={`M${clamp(value)} ${TOP} V${TOP + HEIGHT}`} stroke="var(--ink)" strokeWidth={1.6} />
              <text x={clamp(value) + (labelLeft ? -5 : 5)} y={TOP - 4} textAnchor={labelLeft ? 'end' : 'start'} className="t12 tb halo-s">
                {statistic} {number(value)}
              </text>
              <path
                d={`M${clamp(Math.max(from, low))} ${TOP + HEIGHT + 22} H${clamp(Math.min(to, high))}`}
                stroke="var(--ink)"
                strokeWidth={4}
              />
            </g>
          )}
          {paper !== undefined && Number.isFinite(paper) && (
            <g pointerEvents="none">
              <circle cx={clamp(paper)} cy={TOP + HEIGHT + 22} r={4} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.5} />
              <text x={clamp(paper)} y={TOP + HEIGHT + 34} textAnchor={clamp(paper) < 24 ? 'start' : 'middle'} className="t2">
                paper {number(paper)}
              </text>
            </g>
          )}
          {survivors > 0 && (
            <text x={width} y={TOP + HEIGHT + 34} textAnchor="end" className="t2">
              {survivors} never
            </text>
          )}
          {edge('low')}
          {edge('high')}
        </svg>
      </div>
    );
  },
);

function bins(values: readonly number[], band: Props['band'], paper: number | undefined) {
  // Where every run says yes or no, no share is beyond none and all.
  const yesNo = values.length > 0 && values.every((value) => value === 0 || value === 1);
  const [from, to] = rulerOf([...values, band?.low, band?.high, paper, ...(yesNo ? [0, 1] : [])]);
  return { from, to, counts: binned(values, from, to, BINS) };
}
