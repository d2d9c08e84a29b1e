import { drag } from '../fields/drag';
import { type Encounter, type EncounterReadout, type Unit, shown, type Scale, clockTicks, momentWords, withUnit } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useLayoutEffect, useRef, useState } from 'react';
import { Glyph } from './Glyph';
import { beside, wideAs } from './labels';
import { guarded } from '../parts/guarded';

type Head = Pick<Unit, 'id' | 'name' | 'role' | 'glyph' | 'colour' | 'side'>;

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

const ROW = 14;
const TOP = 20;

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
    let y = TOP;
    const rows = encounter.waves.map((wave, w) => {
      const top = y;
      y += Math.max(38, wave.groups.length * ROW + 6);
      return {
        wave: encounter.clock === 'rounds' ? inRounds(wave) : wave,
        w,
        top,
        bottom: y - 6,
        clock: readout?.waves.find(({ id }) => id === wave.id),
      };
    });
    return (
      <svg
        width={width}
        height={y + 4}
        role="group"
        aria-label="Waves on the encounter’s clock"
        onPointerMove={(event) => onInstant?.(Math.max(0, x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left)))}
        onPointerLeave={() => onInstant?.(undefined)}
      >
        <path d={`M${x(0)} ${TOP - 4.5} H${x(until)}`} className="axis" />
        {clockTicks(until, 7).map((tick) => (
          <g key={tick}>
            <path d={`M${x(tick)} ${TOP - 8} v4`} className="axis" />
            <path d={`M${x(tick)} ${TOP - 4} V${y}`} stroke="var(--hair)" strokeWidth={0.5} />
            <text x={x(tick)} y={TOP - 9} textAnchor="middle" className="t3">
              {momentWords(encounter.clock, tick)}
            </text>
          </g>
        ))}
        {rows.map(({ wave, w, top, bottom, clock }) => (
          <WaveRows
            key={wave.id}
            wave={wave}
            number={w}
            top={top}
            bottom={bottom}
            clock={clock}
            x={x}
            until={until}
            width={width}
            heads={heads}
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
          <path d={`M${x(instant)} ${TOP - 4} V${y}`} stroke="var(--ink)" strokeDasharray="3 3" pointerEvents="none" />
        )}
      </svg>
    );
  },
);

/** Its times in rounds, where seconds would be. */
const inRounds = (wave: Encounter['waves'][number]) => ({ ...wave, at: wave.rounds?.at ?? 1, delay: wave.rounds?.delay ?? 0 });

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

interface RowProps extends Pick<Props, 'x' | 'until' | 'width' | 'heads' | 'onSelect' | 'onDelay' | 'onMove'> {
  wave: Encounter['waves'][number];
  number: number;
  top: number;
  bottom: number;
  clock: EncounterReadout['waves'][number] | undefined;
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
  x,
  until,
  width,
  heads,
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
  const newest = useRef({ delay: wave.delay, at: wave.at, onDelay });
  useLayoutEffect(() => {
    newest.current = { delay: wave.delay, at: wave.at, onDelay };
  });
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
    const above = event.currentTarget.closest('svg')!.getBoundingClientRect().top;
    const start = event.clientY;
    let to = number;
    const move = (e: globalThis.PointerEvent) => {
      to = Math.abs(e.clientY - start) > 4 ? placeOf(e.clientY - above) : number;
      onDrop({ wave: number, to });
    };
    drag(event, move, (_, dropped) => {
      onDrop(undefined);
      if (dropped && to !== number) onMove(wave.id, to - number);
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
        {wave.groups.map((group, g) => {
          const span = clock?.groups.find(({ id }) => id === group.id);
          const head = heads.get(group.enemy ?? group.pool[0]?.enemy ?? '');
          if (!span?.first) return null;
          const from = x(Math.min(until, span.first.median));
          const to = x(Math.min(until, span.last?.median ?? until));
          const late = x(Math.min(until, span.last?.p90 ?? until));
          const early = x(Math.min(until, Math.max(span.first.median, span.last?.p10 ?? span.first.median)));
          const yy = top + g * ROW;
          const colour = head ? `var(--e-${head.colour})` : 'var(--ink-3)';
          return (
            <g key={group.id}>
              <rect x={from} y={yy + 1} width={Math.max(2, early - from)} height={ROW - 5} fill={colour} />
              <rect x={early} y={yy + 1} width={Math.max(0, to - early)} height={ROW - 5} fill={colour} opacity={0.75} />
              <rect x={to} y={yy + 1} width={Math.max(0, late - to)} height={ROW - 5} fill={colour} opacity={0.3} />
              {selectedGroup === group.id && (
                <rect
                  x={from - 1}
                  y={yy}
                  width={Math.max(4, to - from + 2)}
                  height={ROW - 3}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={1.6}
                />
              )}
            </g>
          );
        })}
      </g>
      {started && started.median <= until && exceptionsOf(clock) && (
        <text x={x(started.median) + 4} y={bottom + 1} className="t3 halo" pointerEvents="none">
          {exceptionsOf(clock)}
        </text>
      )}
      {wave.groups.map((group, g) => {
        const span = clock?.groups.find(({ id }) => id === group.id);
        const head = heads.get(group.enemy ?? group.pool[0]?.enemy ?? '');
        const yy = top + g * ROW;
        const end = span?.first ? x(Math.min(until, span.last?.median ?? until)) : x(0);
        const words = groupWords(group, heads, span?.count);
        const begin = span?.first ? x(Math.min(until, span.first.median)) : x(0);
        // Before anything has been run nobody can have failed to come.
        const said = span?.first || !clock ? words : `${words}, never came`;
        const place = beside({ from: begin, to: end }, wideAs(said), x(0), width);
        return (
          <g
            key={group.id}
            onClick={() => onSelect(wave.id, group.id)}
            onKeyDown={(event) => event.key === 'Enter' && onSelect(wave.id, group.id)}
            role="button"
            tabIndex={0}
            aria-label={`${wave.name}: ${said}`}
            style={{ cursor: 'pointer' }}
          >
            {head && (
              <g transform={`translate(${place.sign} ${yy})`}>
                <Glyph unit={head} size={11} />
              </g>
            )}
            <text x={place.text} y={yy + 9} textAnchor={place.anchor} className={`t2 halo ${selectedGroup === group.id ? 'tb' : ''}`}>
              {said}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** How often something else than its start brought a wave: "timeout 12 %". */
function exceptionsOf({ triggers: { timeout, event } }: EncounterReadout['waves'][number]): string {
  const words = (share: number, what: string) => (share > 0 ? `${what} ${Math.max(1, Math.round(100 * share))} %` : '');
  return [words(timeout, 'timeout'), words(event, 'event')].filter(Boolean).join(', ');
}

/** "6 Clippers, north door". */
export function groupWords(group: Encounter['waves'][number]['groups'][number], heads: ReadonlyMap<string, Head>, came?: number): string {
  const { min, max } = group.count;
  const many =
    group.draws === 'budget' && group.pool.length ? `for ${shown(group.budget)} worth` : min === max ? String(min) : `${min}–${max}`;
  const whom = group.pool.length ? `from a pool of ${group.pool.length}` : (heads.get(group.enemy ?? '')?.name ?? group.enemy ?? 'nobody');
  const actual =
    came !== undefined && min === max && Math.abs(came - max) > 0.05 && group.rule !== 'each' ? ` (${came.toFixed(1)} came)` : '';
  return `${many} ${whom}${group.side === 'ours' ? ', ours' : ''}${actual}`;
}
