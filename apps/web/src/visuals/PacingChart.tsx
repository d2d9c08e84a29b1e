import { drag } from '../fields/drag';
import { useNewest } from '../fields/useNewest';
import { type CurvePoint, type PacingPictureOptions, clockTime, pacingPicture, pacingScales, shown, momentWords } from '@insidia/core';
import type { KeyboardEvent, PointerEvent } from 'react';
import { Shapes } from './Shapes';
import { guarded } from '../parts/guarded';

interface Props extends PacingPictureOptions {
  label: string;
  /** Present where the intended curve may be changed. */
  onPoints?: (points: CurvePoint[], what: string, mark?: string) => void;
}

/** Pressure over the clock: the median with its spread, wave marks, and the intended curve with its tolerance, drawn by hand. */
export const PacingChart = guarded('The curve', function PacingChart({ label, onPoints, ...picture }: Props) {
  const { intended, until, top, width, height } = picture;
  const { x, y } = pacingScales(picture);
  const points = intended?.points ?? [];
  const put = (index: number, next: CurvePoint, mark: string) => {
    // One that is held may have been taken back.
    if (index >= points.length) return;
    const low = index > 0 ? points[index - 1].at + 0.1 : 0;
    const high = index < points.length - 1 ? points[index + 1].at - 0.1 : until;
    const moved = { at: round(Math.min(Math.max(next.at, low), high), 1), value: round(Math.max(0, next.value), 4) };
    onPoints?.(
      points.map((point, i) => (i === index ? moved : point)),
      'a point moved',
      mark,
    );
  };
  const newest = useNewest(put);
  const remove = (index: number) =>
    onPoints?.(
      points.filter((_, i) => i !== index),
      'a point less',
    );
  const grab = (index: number) => (event: PointerEvent<SVGCircleElement>) => {
    if (event.button !== 0 || !onPoints) return;
    event.stopPropagation();
    const chart = event.currentTarget.ownerSVGElement!;
    const mark = `curve ${event.timeStamp}`;
    drag(event, (e) => {
      const { left, top: above } = chart.getBoundingClientRect();
      // By the scales that it began with: those that are drawn grow with what is dragged.
      newest.current(index, { at: x.invert(e.clientX - left), value: y.invert(e.clientY - above) }, mark);
    });
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
      <g pointerEvents="none">
        <Shapes shapes={pacingPicture(picture)} />
      </g>
      {points.map((point, i) => (
        <circle
          key={i}
          role="slider"
          tabIndex={onPoints ? 0 : -1}
          aria-label={`Intended, point ${i + 1}`}
          aria-valuenow={point.value}
          aria-valuetext={`${picture.clock === 'rounds' ? `round ${momentWords('rounds', point.at)}` : clockTime(point.at)}: ${shown(100 * point.value, 1)} % a ${picture.clock === 'rounds' ? 'round' : 'second'}`}
          cx={x(point.at)}
          cy={y(Math.min(point.value, top))}
          r={5}
          fill="var(--sheet)"
          stroke="var(--focus)"
          strokeWidth={2}
          style={{ touchAction: 'none', cursor: onPoints ? 'move' : undefined }}
          onPointerDown={grab(i)}
          onKeyDown={onPoints ? keys(i) : undefined}
        />
      ))}
    </svg>
  );
});

const round = (value: number, places: number) => Number(value.toFixed(places));
