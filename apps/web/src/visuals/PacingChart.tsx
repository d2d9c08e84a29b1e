import { type Curve, type CurvePoint, type PacedWave, intendedAt } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useId } from 'react';
import { clockTime, shown } from '../fields/number';
import { clockTicks, linear, ticks } from './scale';

interface Props {
  label: string;
  curve: Curve;
  /** The values are shares, told in percent. */
  percent?: boolean;
  waves: readonly PacedWave[];
  /** s: stretches in which the party rests. */
  lulls: readonly { from: number; to: number }[];
  intended?: { points: readonly CurvePoint[]; tolerance: number };
  /** s, and share of full health a second, at the far ends of the rulers. */
  until: number;
  top: number;
  width: number;
  height: number;
  /** Names of the waves stand above the first of several charts. */
  named: boolean;
  /** Present where the intended curve may be changed. */
  onPoints?: (points: CurvePoint[], what: string, mark?: string) => void;
}

const LEFT = 34;
const FOOT = 16;
const HEAD = 14;

/** Pressure over the clock: the median with its spread, wave marks, and the intended curve with its tolerance, drawn by hand. */
export function PacingChart({ label, curve, percent, waves, lulls, intended, until, top, width, height, named, onPoints }: Props) {
  const clip = useId();
  const x = linear(0, until, LEFT, width - 6);
  const y = linear(0, top, height - FOOT, HEAD);
  const { times, median, p10, p25, p75, p90 } = curve;
  const last = median.findIndex((value) => value === undefined);
  const bins = Array.from({ length: last < 0 ? median.length : last }, (_, bin) => bin).filter((bin) => times[bin] <= until);
  const at = (bin: number, value: number | undefined) => `${x(times[bin]).toFixed(1)} ${y(Math.min(value ?? 0, top)).toFixed(1)}`;
  const line = (values: Curve['median']) => bins.map((bin) => at(bin, values[bin])).join(' L');
  const area = (low: Curve['median'], high: Curve['median']) =>
    bins.length > 1
      ? `M${line(high)} L${[...bins]
          .reverse()
          .map((bin) => at(bin, low[bin]))
          .join(' L')}Z`
      : '';
  const points = intended?.points ?? [];
  const smooth = points.length > 1 ? smoothed(points, 120) : [];
  const tolerance = intended?.tolerance ?? 0;
  const band = smooth.length
    ? `M${smooth.map(([t, v]) => `${x(t)} ${y(v + tolerance)}`).join(' L')} L${[...smooth]
        .reverse()
        .map(([t, v]) => `${x(t)} ${y(Math.max(0, v - tolerance))}`)
        .join(' L')}Z`
    : '';
  const put = (index: number, next: CurvePoint, mark: string) => {
    const low = index > 0 ? points[index - 1].at + 0.1 : 0;
    const high = index < points.length - 1 ? points[index + 1].at - 0.1 : until;
    const moved = { at: round(Math.min(Math.max(next.at, low), high), 1), value: round(Math.max(0, next.value), 4) };
    onPoints?.(
      points.map((point, i) => (i === index ? moved : point)),
      'a point moved',
      mark,
    );
  };
  const remove = (index: number) =>
    onPoints?.(
      points.filter((_, i) => i !== index),
      'a point less',
    );
  const drag = (index: number) => (event: PointerEvent<SVGCircleElement>) => {
    if (event.button !== 0 || !onPoints) return;
    event.stopPropagation();
    const handle = event.currentTarget;
    const box = handle.ownerSVGElement!.getBoundingClientRect();
    const mark = `curve ${event.timeStamp}`;
    handle.setPointerCapture(event.pointerId);
    const move = (e: globalThis.PointerEvent) =>
      put(index, { at: x.invert(e.clientX - box.left), value: y.invert(e.clientY - box.top) }, mark);
    const end = () => handle.removeEventListener('pointermove', move);
    handle.addEventListener('pointermove', move);
    handle.addEventListener('pointerup', end, { once: true });
    handle.addEventListener('pointercancel', end, { once: true });
  };
  const keys = (index: number) => (event: KeyboardEvent) => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      return remove(index);
    }
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!way) return;
    event.preventDefault();
    const size = event.shiftKey ? 5 : 1;
    const { at: time, value } = points[index];
    put(index, { at: time + way[0] * size * 0.5, value: value + (way[1] * size * top) / 100 }, `curve keys ${index}`);
  };
  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={label}
      onDoubleClick={(event) => {
        if (!onPoints) return;
        const box = event.currentTarget.getBoundingClientRect();
        const made = {
          at: round(Math.max(0, Math.min(until, x.invert(event.clientX - box.left))), 1),
          value: round(Math.max(0, y.invert(event.clientY - box.top)), 4),
        };
        if (points.some((point) => Math.abs(point.at - made.at) < 0.1)) return;
        onPoints(
          [...points, made].sort((a, b) => a.at - b.at),
          'another point',
        );
      }}
    >
      <clipPath id={clip}>
        <rect x={LEFT} y={0} width={width - LEFT} height={height - FOOT} />
      </clipPath>
      {ticks(0, top, 3).map((tick) => (
        <g key={tick}>
          <path d={`M${LEFT} ${y(tick)} H${width - 6}`} stroke="var(--hair)" strokeWidth={0.6} />
          <text x={LEFT - 4} y={y(tick) + 4} textAnchor="end" className="t3">
            {shown(percent ? 100 * tick : tick, 1)}
          </text>
        </g>
      ))}
      {clockTicks(until, 8).map((tick) => (
        <text key={tick} x={x(tick)} y={height - 3} textAnchor="middle" className="t3">
          {clockTime(tick)}
        </text>
      ))}
      <g clipPath={`url(#${clip})`} pointerEvents="none">
        {lulls.map(({ from, to }) => (
          <rect key={from} x={x(from)} y={HEAD} width={Math.max(1, x(to) - x(from))} height={height - FOOT - HEAD} fill="var(--well)" />
        ))}
        {band && <path d={band} fill="var(--band)" />}
        <path d={area(p10, p90)} fill="var(--dist)" opacity={0.6} />
        <path d={area(p25, p75)} fill="var(--dist)" />
        {bins.length > 1 && <path d={`M${line(median)}`} fill="none" stroke="var(--ink)" strokeWidth={1.6} />}
        {smooth.length > 0 && (
          <path
            d={`M${smooth.map(([t, v]) => `${x(t)} ${y(v)}`).join(' L')}`}
            fill="none"
            stroke="var(--focus)"
            strokeWidth={1.6}
            strokeDasharray="5 3"
          />
        )}
      </g>
      {waves.map(
        ({ id, name, started }) =>
          started !== undefined &&
          started <= until && (
            <g key={id} pointerEvents="none">
              <path d={`M${x(started)} ${HEAD - 4} V${height - FOOT}`} stroke="var(--ink-3)" />
              {named && (
                <text x={x(started) + 3} y={HEAD - 4} className="t3 halo">
                  {name}
                </text>
              )}
            </g>
          ),
      )}
      <path d={`M${LEFT} ${height - FOOT + 0.5} H${width - 6}`} className="axis" />
      {points.map((point, i) => (
        <circle
          key={i}
          role="slider"
          tabIndex={onPoints ? 0 : -1}
          aria-label={`Intended, point ${i + 1}`}
          aria-valuenow={point.value}
          aria-valuetext={`${clockTime(point.at)}: ${shown(100 * point.value, 1)} % a second`}
          cx={x(point.at)}
          cy={y(Math.min(point.value, top))}
          r={5}
          fill="var(--sheet)"
          stroke="var(--focus)"
          strokeWidth={2}
          style={{ touchAction: 'none', cursor: onPoints ? 'move' : undefined }}
          onPointerDown={drag(i)}
          onKeyDown={onPoints ? keys(i) : undefined}
        />
      ))}
    </svg>
  );
}

const round = (value: number, places: number) => Number(value.toFixed(places));

function smoothed(points: readonly CurvePoint[], steps: number): [number, number][] {
  const [from, to] = [points[0].at, points[points.length - 1].at];
  return Array.from({ length: steps + 1 }, (_, i): [number, number] => {
    const t = from + ((to - from) * i) / steps;
    return [t, intendedAt(points, Math.min(to, t)) ?? 0];
  });
}
