import type { Arena, ReasonLook, Replay, UnitHead } from '@insidia/core';
import { type Ref, useEffect, useMemo, useRef } from 'react';
import { useTheme } from '../../app/theme';
import { cellAt, cellBeside } from '../../visuals/board';
import type { GroundShown } from '../../visuals/boardCanvas';
import { planScale } from '../../visuals/plan';
import { drawReplay, placedAt } from '../../visuals/replayCanvas';
import { replayTime } from './replayTime';

interface Props {
  ref?: Ref<HTMLCanvasElement>;
  replay: Replay;
  arena: Arena;
  heads: ReadonlyMap<string, UnitHead>;
  /** The clock while it plays; `time` is where it stands. */
  clock: React.RefObject<{ time: number; playing: boolean }>;
  time: number;
  playing: boolean;
  width: number;
  height: number;
  selected: number | undefined;
  reasons: ReasonLook | undefined;
  names: boolean;
  follows: boolean;
  /** Of a fight on a board: what its cells show, which of them is pointed at, and another one is. */
  shown: GroundShown;
  cell: number | undefined;
  onCell: (cell: number | undefined) => void;
  onSelect: (unit: number | undefined) => void;
}

/** The arena with everybody in it; a click chooses a unit. On a board the arrow keys go from cell to cell, and Enter chooses who stands there. */
export function Stage({
  ref,
  replay,
  arena,
  heads,
  clock,
  time,
  playing,
  width,
  height,
  selected,
  reasons,
  names,
  follows,
  shown,
  cell,
  onCell,
  onSelect,
}: Props) {
  const own = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const plan = useMemo(() => planScale(arena, width, height, { margin: 12 }), [arena, width, height]);
  const look = useMemo(
    () => ({ heads, selected, reasons, names, shown, ...(cell !== undefined && { cell }) }),
    [heads, selected, reasons, names, shown, cell],
  );
  useEffect(() => {
    const canvas = own.current;
    const ctx = canvas?.getContext('2d');
    if (!canvas || !ctx) return;
    const ratio = devicePixelRatio || 1;
    canvas.width = width * ratio;
    canvas.height = height * ratio;
    let frame = 0;
    const draw = () => {
      const at = clock.current.playing ? clock.current.time : time;
      const followed = follows && selected !== undefined ? placedAt(replay, at).find(({ unit }) => unit === selected) : undefined;
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
      drawReplay(ctx, replay, arena, plan, at, followed ? { ...look, follow: followed } : look, width, height);
      if (clock.current.playing) frame = requestAnimationFrame(draw);
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [replay, arena, plan, clock, playing, playing ? 0 : time, width, height, look, selected, follows, theme]); // eslint-disable-line react-hooks/exhaustive-deps -- while it plays, the frames read the clock
  const { board } = replay;
  const placeOf = (event: React.MouseEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return plan.at(event.clientX - box.left, event.clientY - box.top);
  };
  const nearest = (at: { x: number; y: number }) =>
    placedAt(replay, clock.current.time)
      .map((one) => ({ unit: one.unit, far: Math.hypot(one.x - at.x, one.y - at.y) - one.radius }))
      .sort((a, b) => a.far - b.far)[0];
  const pick = (at: { x: number; y: number }) => {
    const found = nearest(at);
    onSelect(found && found.far < 0.8 ? found.unit : undefined);
  };
  const key = (event: React.KeyboardEvent) => {
    if (!board || event.ctrlKey || event.metaKey || event.altKey) return;
    const own = placedAt(replay, time).find(({ unit }) => unit === selected);
    const from = cell ?? cellAt(board, own ?? { x: 0, y: 0 }) ?? 0;
    const to = cell === undefined && event.key.startsWith('Arrow') ? from : cellBeside(board, from, event.key);
    if (event.key === 'Escape') onCell(undefined);
    else if (event.key === 'Enter' && cell !== undefined) pick({ x: board.x[cell], y: board.y[cell] });
    else if (to !== undefined) onCell(to);
    else if (!event.key.startsWith('Arrow')) return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <canvas
      ref={(element) => {
        own.current = element;
        if (typeof ref === 'function') ref(element);
        else if (ref) ref.current = element;
      }}
      style={{ width, height }}
      // Over cells the arrow keys are its own, whoever reads the screen.
      role={board ? 'application' : 'img'}
      aria-label={`${arena.name} at ${replayTime(replay, time, 2)}; units are listed with the events${board ? '; the arrow keys go over its cells' : ''}`}
      data-testid="stage"
      onClick={(event) => pick(placeOf(event))}
      {...(board && {
        tabIndex: 0,
        'data-keys': 'own',
        onKeyDown: key,
        onPointerMove: (event: React.PointerEvent<HTMLCanvasElement>) => onCell(follows ? undefined : cellAt(board, placeOf(event))),
        onPointerLeave: () => onCell(undefined),
      })}
    />
  );
}
