import { drag } from '../fields/drag';
import { useNewest } from '../fields/useNewest';
import { type KeyboardEvent, type PointerEvent, type ReactNode, useRef } from 'react';

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  unit: string;
  /** Arrow-key step. */
  step: number;
  /** Value at a place on the page, in the strip's own pixels from its left edge. */
  valueAt: (x: number) => number;
  onMove: (value: number, mark: string) => void;
  children: ReactNode;
}

/** Something on a strip that can be dragged along it, or moved by the arrow keys (×10 with Shift, ÷10 with Alt). */
export function DragEdge({ label, value, min, max, unit, step, valueAt, onMove, children }: Props) {
  const group = useRef<SVGGElement>(null);
  const newest = useNewest({ value, min, max, onMove });
  const move = (wanted: number, mark: string) => {
    const { value: now, min: low, max: high, onMove: write } = newest.current;
    const next = Math.min(Math.max(Math.round(wanted * 1e4) / 1e4, low), high);
    if (next !== now) write(next, mark);
  };
  const down = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return;
    event.preventDefault();
    const handle = group.current;
    const svg = handle?.ownerSVGElement;
    if (!handle || !svg) return;
    handle.focus();
    const place = (x: number) => x - svg.getBoundingClientRect().left;
    // The edge keeps the distance to the pointer that it had when it was taken hold of.
    const offset = value - valueAt(place(event.clientX));
    const mark = `edge ${label} ${event.timeStamp}`;
    const follow = (e: globalThis.PointerEvent) => {
      const fine = e.altKey ? step / 10 : step / 5;
      move(Math.round((valueAt(place(e.clientX)) + offset) / fine) * fine, mark);
    };
    drag(event, follow, undefined, handle);
  };
  const key = (event: KeyboardEvent) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    move(value + way * step * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1), `edge keys ${label}`);
  };
  return (
    <g
      ref={group}
      className="edge"
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuetext={`${Number(value.toFixed(3))} ${unit}`}
      onPointerDown={down}
      onKeyDown={key}
      style={{ touchAction: 'none' }}
    >
      {children}
    </g>
  );
}
