import { outcomeWords, partAt, type Arena, type Project, type Replay, type Scenario, type UnitHead } from '@insidia/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { QueryChange } from '../../app/query';
import { Choose } from '../../fields/Choose';
import { NumberField } from '../../fields/NumberField';
import { useReasons } from './useReplay';
import { saveFile } from '../../parts/saveFile';
import { useSize } from '../../visuals/useWidth';
import { type Beside, besideWords, comparisons, wholeOf } from './address';
import { EventList } from './EventList';
import { type Event, mostTelling, nextEvent, stepped } from './moments';
import type { GroundShown } from '../../visuals/boardCanvas';
import { BoardWords } from './BoardWords';
import { ReasonsPanel } from './ReasonsPanel';
import { RunApproach } from './RunApproach';
import { Scrubber } from './Scrubber';
import { Stage } from './Stage';
import { Transport } from './Transport';
import { usePlayback } from './usePlayback';
import { replayTime } from './replayTime';

/** How high the stage is at least, px, and which share of the page it has where that is more. */
const STAGE = { least: 404, share: 0.53 };

interface PlayerProps {
  project: Project;
  scenario: Scenario;
  replay: Replay;
  compared: Replay | undefined;
  comparison: string | null;
  beside: Beside | undefined;
  arena: Arena;
  heads: ReadonlyMap<string, UnitHead>;
  name: string;
  seed: number;
  query: URLSearchParams;
  hasBefore: boolean;
  onQuery: (values: QueryChange) => void;
}

/** One run, or two side by side: its stage, its clock, its events and reasons. */
export function Player({
  project,
  scenario,
  replay,
  compared,
  comparison,
  beside,
  arena,
  heads,
  name,
  seed,
  query,
  hasBefore,
  onQuery,
}: PlayerProps) {
  const [ref, { width, height }] = useSize<HTMLDivElement>({ width: 700, height: 756 });
  const length = Math.max(replay.length, compared?.length ?? 0);
  const playback = usePlayback(length, Number(query.get('at') ?? 0) || 0);
  const { time, playing, clock, setPlaying, stopAt } = playback;
  const [names, setNames] = useState(false);
  const [follows, setFollows] = useState(false);
  const [shown, setShown] = useState<GroundShown>('reach');
  const [cell, setCell] = useState<number>();
  const unit = wholeOf(query.get('unit'));
  const telling = useMemo(() => mostTelling(replay), [replay]);
  const selected = unit !== undefined && unit < replay.units.length ? unit : telling;
  const canvas = useRef<HTMLCanvasElement>(null);
  // The address keeps the instant, so that it can be shared; written when nothing moves.
  useEffect(() => {
    if (playing) return;
    const timer = setTimeout(() => {
      if (query.get('at') !== time.toFixed(2)) onQuery({ at: time.toFixed(2) });
    }, 250);
    return () => clearTimeout(timer);
  }, [playing, time, query, onQuery]);
  const asked = Math.round(time / replay.step) * replay.step;
  const reasons = useReasons(project, scenario, seed, playing ? undefined : selected, asked);
  const look = selected !== undefined && !playing && reasons?.reasons.unit === selected ? reasons : undefined;
  const parts = useMemo(() => (compared ? partAt(replay, compared) : undefined), [replay, compared]);
  const jump = useCallback(
    (way: -1 | 1, fits: (event: Event) => boolean) => {
      const found = nextEvent(replay.events, clock.current.time, way, fits);
      if (found) stopAt(found.time);
    },
    [replay, clock, stopAt],
  );
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && event.target.closest('input, textarea, [role=combobox], [role=listbox], [role=slider]');
      const ofCells = event.target instanceof HTMLElement && event.target.dataset.keys === 'own' && event.key.startsWith('Arrow');
      if (typing || ofCells || event.ctrlKey || event.metaKey) return;
      const steps = event.shiftKey ? Math.round(1 / replay.step) : 1;
      const act: Record<string, () => void> = {
        ' ': () => setPlaying((old) => !old),
        ArrowRight: () => stopAt(stepped(clock.current.time, replay.step, steps)),
        ArrowLeft: () => stopAt(stepped(clock.current.time, replay.step, -steps)),
        n: () => jump(1, () => true),
        p: () => jump(-1, () => true),
      };
      if (!act[event.key]) return;
      event.preventDefault();
      act[event.key]();
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, [replay.step, clock, setPlaying, stopAt, jump]);
  const each = compared ? (width - 40) / 2 : width - 32;
  const stage = (of: Replay, at: number | undefined, wide: number, main: boolean) => (
    <Stage
      ref={main ? canvas : undefined}
      replay={of}
      arena={arena}
      heads={heads}
      clock={clock}
      time={time}
      playing={playing}
      width={wide}
      height={Math.max(STAGE.least, Math.round(STAGE.share * height))}
      selected={at}
      reasons={main ? look : undefined}
      names={names}
      follows={follows && at !== undefined}
      shown={main ? shown : 'none'}
      cell={main ? cell : undefined}
      onCell={main ? setCell : () => {}}
      onSelect={(number) => onQuery({ unit: number })}
    />
  );
  const alive = replay.units.filter(({ side }) => side === 'enemy').length;
  return (
    <>
      <EventList
        replay={replay}
        heads={heads}
        time={time}
        selected={selected}
        onTime={(to) => stopAt(to)}
        onSelect={(number) => onQuery({ unit: number })}
      />
      <main ref={ref} className="scroll flex min-h-0 min-w-0 flex-col" aria-label="Replay">
        <div className="flex items-center gap-2.5 px-4 pb-1.5 pt-2">
          <h1 className="min-w-0 truncate text-page tracking-tight" title={name}>
            {name}
          </h1>
          <NumberField
            bare
            compact
            info={{ label: 'Seed', unit: '', min: 0, max: 2147483646, whole: true, about: 'which run' }}
            base={seed}
            width={92}
            onCommit={(next) => onQuery({ seed: next, at: undefined, unit: undefined })}
          />
          <span className="min-w-0 flex-1 truncate text-table text-ink-2">
            {outcomeWords(replay.outcome).short} at {replayTime(replay, replay.length, 2)}; {alive} enemies came; digest{' '}
            <span data-testid="replay-digest">{replay.digest}</span>
          </span>
          <div className="w-[150px]">
            <Choose
              quiet
              label="Compare with"
              value={comparison ?? 'none'}
              options={comparisons(project, scenario, seed, comparison, hasBefore)}
              onChoose={(id) => onQuery({ vs: id === 'none' ? undefined : id })}
            />
          </div>
          <button
            type="button"
            className="btn"
            onClick={() => saveFile(`${name} ${seed}.jsonl`, replay.events.map((event) => JSON.stringify(event)).join('\n') + '\n')}
          >
            JSON lines
          </button>
          <button
            type="button"
            className="btn"
            onClick={() =>
              canvas.current?.toBlob((blob) => {
                if (blob) saveFile(`${name} ${seed} at ${time.toFixed(2)}.png`, blob);
              })
            }
          >
            PNG
          </button>
        </div>
        <div className="flex gap-2 px-4">
          {stage(replay, selected, each, true)}
          {compared && stage(compared, undefined, each, false)}
        </div>
        {replay.board && (
          <BoardWords replay={replay} look={look} selected={selected} cell={cell} time={time} shown={shown} onShown={setShown} />
        )}
        {beside && (
          <p className="px-4 pt-1 text-table text-ink-2">
            {!compared
              ? 'Running the other …'
              : parts === undefined
                ? 'Both runs are the same.'
                : `Left: this run. Right: ${beside && besideWords(beside, project)}, ${outcomeWords(compared.outcome).short} at ${replayTime(compared, compared.length, 2)}. They part at `}
            {compared && parts !== undefined && (
              <button type="button" className="link" onClick={() => stopAt(parts)}>
                {replayTime(replay, parts, 2)}
              </button>
            )}
          </p>
        )}
        <Transport
          replay={replay}
          playback={playback}
          length={length}
          selected={selected}
          names={names}
          follows={follows}
          onJump={jump}
          onNames={setNames}
          onFollows={setFollows}
        />
        <Scrubber
          replay={replay}
          width={width - 32}
          length={length}
          time={time}
          parts={parts}
          selected={selected}
          heads={heads}
          onTime={(to) => stopAt(to)}
        />
        <RunApproach replay={replay} selected={selected} width={width - 32} length={length} time={time} heads={heads} />
      </main>
      <ReasonsPanel
        project={project}
        replay={replay}
        heads={heads}
        selected={selected}
        time={time}
        look={look}
        playing={playing}
        onSelect={(number) => onQuery({ unit: number })}
      />
    </>
  );
}
