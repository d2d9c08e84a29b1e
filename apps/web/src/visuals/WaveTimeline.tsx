import { drag } from '../fields/drag';
import { useNewest } from '../fields/useNewest';
import { type Encounter, type EncounterReadout, type Scale, clockTicks, shown, momentWords, withUnit } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useState } from 'react';
import { Glyph } from './Glyph';
import { GROUP_LINE, type GroupRow, type Head, WAVES_TOP, waveRows } from './waveRows';
import { guarded } from '../parts/guarded';

interface Props {
  encounter: Encounter;
  readout: EncounterReadout | undefined;
  x: Scale;
  width: number;
  until: number;
  heads: ReadonlyMap<string, Head>;
  startSentence: (wave: Encounter['waves'][number], index: number) => string;
  selected?: { wave: string; group?: string };
  warned: ReadonlySet<string>;
  instant?: number;
  onInstant?: (seconds: number | undefined) => void;
  onSelect: (wave: string, group?: string) => void;
  /** A wave is put off, or brought forward, by so many seconds. */
  onDelay: (wave: string, seconds: number, mark: string) => void;
  /** A wave changes its place in the order by so many places. */
  onMove: (wave: string, by: number) => void;
}

/**
 * Waves on the encounter's clock: each group a bar from its first spawn to its last death. Dragging a wave along the clock changes
 * its delay, dragging its name up or down its place in the order.
 */
export const WaveTimeline = guarded(
  'The plan of waves',
  function WaveTimeline({
    encounter,
    readout,
    x,
    width,
    until,
    heads,
    startSentence,
    selected,
    warned,
    instant,
    onInstant,
    onSelect,
    onDelay,
    onMove,
  }: Props) {
    const [drop, setDrop] = useState<{ wave: number; to: number }>();
    const rows = waveRows(encounter, readout, heads, { x, width, until });
    const y = rows.length ? rows[rows.length - 1].bottom + 6 : WAVES_TOP;
    return (
      <svg
        width={width}
        height={y + 4}
        role="group"
        aria-label="Waves on the encounter’s clock"
        onPointerMove={(event) => onInstant?.(Math.max(0, x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left)))}
        onPointerLeave={() => onInstant?.(undefined)}
      >
        <path d={`M${x(0)} ${WAVES_TOP - 4.5} H${x(until)}`} className="axis" />
        {clockTicks(until, 7).map((tick) => (
          <g key={tick}>
            <path d={`M${x(tick)} ${WAVES_TOP - 8} v4`} className="axis" />
            <path d={`M${x(tick)} ${WAVES_TOP - 4} V${y}`} stroke="var(--hair)" strokeWidth={0.5} />
            <text x={x(tick)} y={WAVES_TOP - 9} textAnchor="middle" className="t3">
              {momentWords(encounter.clock, tick)}
            </text>
          </g>
        ))}
        {rows.map(({ wave, w, top, bottom, clock, groups, besides }) => (
          <WaveRows
            key={wave.id}
            wave={wave}
            number={w}
            top={top}
            bottom={bottom}
            clock={clock}
            groups={groups}
            besides={besides}
            x={x}
            until={until}
            width={width}
            words={startSentence(encounter.waves[w], w)}
            on={selected?.wave === wave.id}
            selectedGroup={selected?.wave === wave.id ? selected.group : undefined}
            warned={warned.has(wave.id)}
            turns={encounter.clock === 'rounds'}
            onSelect={onSelect}
            onDelay={onDelay}
            onMove={onMove}
            placeOf={(down) => {
              const under = rows.findIndex((row) => down < row.bottom + 3);
              return under < 0 ? rows.length - 1 : under;
            }}
            onDrop={setDrop}
          />
        ))}
        {drop && drop.to !== drop.wave && (
          <path
            d={`M0 ${drop.to < drop.wave ? rows[drop.to].top - 3.5 : rows[drop.to].bottom + 2.5} H${width}`}
            stroke="var(--focus)"
            strokeWidth={2}
            pointerEvents="none"
          />
        )}
        {rows.map(({ wave, w, top, clock }) => {
          const from = fromOf(encounter, w, rows, readout);
          if (!from || !clock?.started) return null;
          return (
            <g key={`to ${wave.id}`} pointerEvents="none">
              <path
                d={`M${x(from.at)} ${from.y} v4 H${x(Math.min(until, clock.started.median))} V${top}`}
                fill="none"
                stroke="var(--ink-2)"
                strokeWidth={1}
              />
              <path d={`M${x(from.at)} ${from.y - 3} l3 3 l-3 3 l-3 -3z`} fill="var(--ink)" />
            </g>
          );
        })}
        {instant !== undefined && instant <= until && (
          <path d={`M${x(instant)} ${WAVES_TOP - 4} V${y}`} stroke="var(--ink)" strokeDasharray="3 3" pointerEvents="none" />
        )}
      </svg>
    );
  },
);

/** Where what a wave waits for happens: under the bars of the wave it waits for, at the instant it started less its delay. */
function fromOf(
  encounter: Encounter,
  w: number,
  rows: { wave: Encounter['waves'][number]; bottom: number }[],
  readout: EncounterReadout | undefined,
): { at: number; y: number } | undefined {
  const wave = encounter.waves[w];
  const started = readout?.waves[w]?.started;
  if (!started || (wave.start !== 'defeated' && wave.start !== 'with')) return undefined;
  const before = wave.after === undefined ? rows[w - 1] : rows.find(({ wave: { id } }) => id === wave.after);
  return before && { at: Math.max(0, started.median), y: before.bottom - 1 };
}

interface RowProps extends Pick<Props, 'x' | 'until' | 'width' | 'onSelect' | 'onDelay' | 'onMove'> {
  wave: Encounter['waves'][number];
  number: number;
  top: number;
  bottom: number;
  clock: EncounterReadout['waves'][number] | undefined;
  groups: readonly GroupRow[];
  besides: string;
  words: string;
  on: boolean;
  selectedGroup?: string;
  warned: boolean;
  /** Its times are rounds. */
  turns: boolean;
  /** The place in the order at so many px from the top. */
  placeOf: (down: number) => number;
  onDrop: (drop: { wave: number; to: number } | undefined) => void;
}

function WaveRows({
  wave,
  number,
  top,
  bottom,
  clock,
  groups,
  besides,
  x,
  until,
  width,
  words,
  on,
  selectedGroup,
  warned,
  turns,
  onSelect,
  onDelay,
  onMove,
  placeOf,
  onDrop,
}: RowProps) {
  const newest = useNewest({ delay: wave.delay, at: wave.at, onDelay, onMove, placeOf });
  const wait = wave.start === 'clock' ? wave.at : wave.delay;
  const down = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return;
    onSelect(wave.id, undefined);
    const start = event.clientX;
    const from = wait;
    const perPixel = x.invert(1) - x.invert(0);
    const mark = `wave ${wave.id} ${event.timeStamp}`;
    drag(event, (e) => {
      const next = Math.max(0, Math.round((from + (e.clientX - start) * perPixel) * (turns ? 1 : 2)) / (turns ? 1 : 2));
      const now = wave.start === 'clock' ? newest.current.at : newest.current.delay;
      if (Math.abs(e.clientX - start) > 2 && next !== now) newest.current.onDelay(wave.id, next, mark);
    });
  };
  const lift = (event: PointerEvent<HTMLButtonElement>) => {
    if (event.button !== 0) return;
    const plan = event.currentTarget.closest('svg')!;
    const start = event.clientY;
    let to = number;
    const move = (e: globalThis.PointerEvent) => {
      // Figures that come in move the rows under the hand: what counts is what is seen.
      to = Math.abs(e.clientY - start) > 4 ? newest.current.placeOf(e.clientY - plan.getBoundingClientRect().top) : number;
      onDrop({ wave: number, to });
    };
    drag(event, move, (_, dropped) => {
      onDrop(undefined);
      if (dropped && to !== number) newest.current.onMove(wave.id, to - number);
    });
  };
  const key = (event: KeyboardEvent) => {
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      return onMove(wave.id, event.key === 'ArrowUp' ? -1 : 1);
    }
    const way = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    onDelay(wave.id, Math.max(0, wait + way * (event.shiftKey ? 5 : turns ? 1 : 0.5)), `wave keys ${wave.id}`);
  };
  const started = clock?.started;
  return (
    <g>
      {number > 0 && <path d={`M0 ${top - 3.5} H${width}`} stroke="var(--hair)" />}
      {on && <rect x={0} y={top - 2} width={3} height={bottom - top + 2} fill="var(--ink)" />}
      <foreignObject x={6} y={top - 3} width={x(0) - 14} height={bottom - top + 6}>
        <button
          type="button"
          className="w-full touch-none text-left text-table leading-[14px]"
          onPointerDown={lift}
          onClick={() => onSelect(wave.id, undefined)}
        >
          <span className={`block truncate ${on ? 'font-semibold' : ''}`}>
            {warned && <span className="text-warn">! </span>}
            {wave.name}
          </span>
          <span className={`line-clamp-2 text-label leading-[12px] ${warned ? 'text-warn' : 'text-ink-3'}`} title={words}>
            {words}
          </span>
        </button>
      </foreignObject>
      <g
        role="slider"
        tabIndex={0}
        aria-label={`${wave.name} ${wave.start === 'clock' ? 'at' : 'delay'}`}
        aria-valuenow={wait}
        aria-valuemin={0}
        aria-valuemax={600}
        aria-valuetext={`${withUnit(turns ? 'rounds' : 'continuous', shown(wait), 's')}; ${words}`}
        className="edge"
        style={{ touchAction: 'none' }}
        onPointerDown={down}
        onKeyDown={key}
      >
        <rect x={x(0)} y={top - 2} width={x(until) - x(0)} height={bottom - top + 3} fill="transparent" />
        {started && started.median <= until && (
          <path
            d={`M${x(started.median)} ${top - 2} V${bottom}`}
            stroke="var(--ink)"
            strokeWidth={1.4}
            strokeDasharray={clock.triggers.start < 0.5 ? '2 2' : undefined}
          />
        )}
        {groups.map(({ id, head, bar, y: yy }) => {
          if (!bar) return null;
          const { from, early, to, late } = bar;
          const colour = head ? `var(--e-${head.colour})` : 'var(--ink-3)';
          return (
            <g key={id}>
              <rect x={from} y={yy + 1} width={Math.max(2, early - from)} height={GROUP_LINE - 5} fill={colour} />
              <rect x={early} y={yy + 1} width={Math.max(0, to - early)} height={GROUP_LINE - 5} fill={colour} opacity={0.75} />
              <rect x={to} y={yy + 1} width={Math.max(0, late - to)} height={GROUP_LINE - 5} fill={colour} opacity={0.3} />
              {selectedGroup === id && (
                <rect
                  x={from - 1}
                  y={yy}
                  width={Math.max(4, to - from + 2)}
                  height={GROUP_LINE - 3}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={1.6}
                />
              )}
            </g>
          );
        })}
      </g>
      {started && started.median <= until && besides && (
        <text x={x(started.median) + 4} y={bottom + 1} className="t3 halo" pointerEvents="none">
          {besides}
        </text>
      )}
      {groups.map(({ id, head, said, says }) => (
        <g
          key={id}
          onClick={() => onSelect(wave.id, id)}
          onKeyDown={(event) => event.key === 'Enter' && onSelect(wave.id, id)}
          role="button"
          tabIndex={0}
          aria-label={`${wave.name}: ${said}`}
          style={{ cursor: 'pointer' }}
        >
          {head && (
            <g transform={`translate(${says.sign} ${says.y})`}>
              <Glyph unit={head} size={11} />
            </g>
          )}
          <text x={says.text} y={says.y + 9} textAnchor={says.anchor} className={`t2 halo ${selectedGroup === id ? 'tb' : ''}`}>
            {said}
          </text>
        </g>
      ))}
    </g>
  );
}
