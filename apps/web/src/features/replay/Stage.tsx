import type { Arena, ReasonLook, Replay, UnitHead } from '@insidia/core';
import { type Ref, useEffect, useMemo, useRef } from 'react';
import { useTheme } from '../../app/theme';
import { planScale } from '../../visuals/plan';
import { drawReplay, placedAt } from '../../visuals/replayCanvas';

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
  onSelect: (unit: number | undefined) => void;
}

/** The arena with everybody in it; a click chooses a unit. */
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
  onSelect,
}: Props) {
  const own = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const plan = useMemo(() => planScale(arena, width, height, { margin: 12 }), [arena, width, height]);
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
      drawReplay(ctx, replay, arena, plan, at, { heads, selected, reasons, names, ...(followed && { follow: followed }) }, width, height);
      if (clock.current.playing) frame = requestAnimationFrame(draw);
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [replay, arena, heads, plan, clock, playing, playing ? 0 : time, width, height, selected, reasons, names, follows, theme]); // eslint-disable-line react-hooks/exhaustive-deps -- while it plays, the frames read the clock
  const pick = (event: React.MouseEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = plan.at(event.clientX - box.left, event.clientY - box.top);
    const found = placedAt(replay, clock.current.time)
      .map((one) => ({ unit: one.unit, far: Math.hypot(one.x - at.x, one.y - at.y) - replay.units[one.unit].radius }))
      .sort((a, b) => a.far - b.far)[0];
    onSelect(found && found.far < 0.8 ? found.unit : undefined);
  };
  return (
    <canvas
      ref={(element) => {
        own.current = element;
        if (typeof ref === 'function') ref(element);
        else if (ref) ref.current = element;
      }}
      style={{ width, height }}
      role="img"
      aria-label={`${arena.name} at ${time.toFixed(2)} seconds; units are listed with the events`}
      data-testid="stage"
      onClick={pick}
    />
  );
}
