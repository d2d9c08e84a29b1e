import {
  type Arena,
  Arena as ArenaClass,
  type Project,
  type Replay,
  type UnitHead,
  blank,
  partAt,
  unitHeads,
  clockTime,
  outcomeWords,
  type Scenario,
  duelScenario,
} from '@insidia/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { type QueryChange, useQuery } from '../../app/query';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { NumberField } from '../../fields/NumberField';
import { useReasons, useReplay } from '../../readout/useReplay';
import { useAppSelector } from '../../store/store';
import { useWidth } from '../../visuals/useWidth';
import { EventList } from './EventList';
import { ReasonsPanel } from './ReasonsPanel';
import { RunApproach } from './RunApproach';
import { Scrubber } from './Scrubber';
import { Stage } from './Stage';
import { saveFile } from '../../store/saveFile';

/** One run of an encounter or a duel, to be looked at instant by instant. Its address can be shared. */
export function ReplayPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <Replays project={project} />;
}

const SPEEDS = [0.25, 0.5, 1, 2, 4];
const DUEL = 'duel';
const STAGE_HEIGHT = 404;

function Replays({ project }: { project: Project }) {
  const { encounter: subjectId } = useParams();
  const { search } = useLocation();
  const encounter = project.encounters.find(({ id }) => id === subjectId) ?? (subjectId === undefined ? project.encounters[0] : undefined);
  if (!encounter && subjectId !== DUEL)
    return (
      <main className="mx-auto mt-20 w-[440px]">
        <h1 className="text-page">{project.encounters.length ? `There is no ${subjectId} here` : 'Nothing to replay yet'}</h1>
        <p className="mt-2 text-ink-2">A replay shows one run of an encounter, or of a duel, instant by instant.</p>
        <Link className="btn mt-4" to={{ pathname: `/projects/${project.id}/encounters`, search }}>
          To the encounters
        </Link>
      </main>
    );
  return <One key={subjectId ?? encounter?.id} project={project} encounterId={encounter?.id} />;
}

function One({ project, encounterId }: { project: Project; encounterId: string | undefined }) {
  const [query, change] = useQuery();
  const [view] = useView(project);
  const before = useAppSelector((state) => state.document.before);
  const heads = useMemo(() => new Map(unitHeads(project).map((head): [string, UnitHead] => [head.id, head])), [project]);
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const scenario = useMemo<Scenario | undefined>(
    () => (encounterId ? { kind: 'encounter', id: encounterId, ...lens } : duelOf(query, project, lens)),
    [encounterId, query, project, lens],
  );
  const seed = wholeOf(query.get('seed')) ?? 1;
  const vs = query.get('vs');
  const { replay, failure } = useReplay(project, scenario, seed);
  const otherScenario = useMemo(
    () => (scenario && vs?.startsWith('tier:') ? { ...scenario, tier: vs.slice(5) } : scenario),
    [scenario, vs],
  );
  const otherSeed = vs?.startsWith('seed:') ? (wholeOf(vs.slice(5)) ?? seed) : seed;
  const other = useReplay(vs === 'before' && before ? before : project, vs ? otherScenario : undefined, vs ? otherSeed : undefined);
  const compared = vs ? other.replay : undefined;
  const arena = useMemo(() => arenaOf(project, scenario, replay), [project, scenario, replay]);
  const name = encounterId ? (project.encounters.find(({ id }) => id === encounterId)?.name ?? '') : 'Duel';
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      {replay && scenario && arena ? (
        <Player
          key={`${seed} ${replay.digest}`}
          project={project}
          scenario={scenario}
          replay={replay}
          compared={compared}
          comparison={vs}
          arena={arena}
          heads={heads}
          name={name}
          seed={seed}
          query={query}
          hasBefore={before !== null}
          onQuery={change}
        />
      ) : (
        <main className="col-span-3 p-6 text-ink-2" aria-label="Replay">
          <h1 className="text-page">{name}</h1>
          {failure ? (
            <p role="alert" className="mt-3 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
              This run can’t be shown: {failure}.
            </p>
          ) : (
            <p className="mt-3">Running seed {seed} …</p>
          )}
        </main>
      )}
    </div>
  );
}

function wholeOf(text: string | null): number | undefined {
  const value = Number(text ?? NaN);
  return Number.isInteger(value) && value >= 0 && value < 2 ** 31 ? value : undefined;
}

/** A duel as the address says it. */
function duelOf(query: URLSearchParams, project: Project, lens: Pick<Scenario, 'tier' | 'skill'>): Scenario | undefined {
  const enemy = query.get('enemy');
  const against = (query.get('members') ?? '').split(',').filter(Boolean);
  if (!enemy || !against.length) return undefined;
  const arena = project.arenas.find(({ id }) => id === query.get('arena'))?.id;
  const copies = wholeOf(query.get('copies')) ?? 1;
  return duelScenario(project, lens, { enemy, against, copies, distance: Number(query.get('distance') ?? 12) || 12, arena });
}

/** Where it takes place: the encounter's arena, the duel's, or open ground as far as anybody went. */
function arenaOf(project: Project, scenario: Scenario | undefined, replay: Replay | undefined): Arena | undefined {
  if (!scenario) return undefined;
  const { kind, id: of, duel } = scenario;
  const id = kind === 'encounter' ? project.encounters.find((one) => one.id === of)?.arena : duel?.arena;
  const found = project.arenas.find((one) => one.id === id);
  if (found) return found;
  if (!replay) return undefined;
  let far = 10;
  for (let i = 0; i < replay.unitData.length; i += 11)
    far = Math.max(far, Math.abs(replay.unitData[i]) + 2, Math.abs(replay.unitData[i + 1]) + 2);
  return { ...blank(ArenaClass), id: 'open', name: 'open ground', width: 2 * far, depth: 2 * far };
}

interface PlayerProps {
  project: Project;
  scenario: Scenario;
  replay: Replay;
  compared: Replay | undefined;
  comparison: string | null;
  arena: Arena;
  heads: ReadonlyMap<string, UnitHead>;
  name: string;
  seed: number;
  query: URLSearchParams;
  hasBefore: boolean;
  onQuery: (values: QueryChange) => void;
}

function Player({ project, scenario, replay, compared, comparison, arena, heads, name, seed, query, hasBefore, onQuery }: PlayerProps) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const length = Math.max(replay.length, compared?.length ?? 0);
  const [time, setTime] = useState(() => Math.min(length, Math.max(0, Number(query.get('at') ?? 0) || 0)));
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState(1);
  const [names, setNames] = useState(false);
  const [follows, setFollows] = useState(false);
  const unit = wholeOf(query.get('unit'));
  const selected = unit !== undefined && unit < replay.units.length ? unit : undefined;
  const clock = useRef({ time, playing, speed });
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    clock.current = { ...clock.current, playing, speed };
  }, [playing, speed]);
  const go = useCallback(
    (to: number) => {
      const next = Math.min(length, Math.max(0, to));
      clock.current.time = next;
      setTime(next);
    },
    [length],
  );
  // The panels follow ten times a second; the stage draws itself at every frame.
  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let told = last;
    let frame = 0;
    const tick = (now: number) => {
      const next = clock.current.time + ((now - last) / 1000) * clock.current.speed;
      last = now;
      clock.current.time = Math.min(length, next);
      if (now - told > 100 || next >= length) {
        told = now;
        setTime(clock.current.time);
      }
      if (next >= length) setPlaying(false);
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing, length]);
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
    (way: -1 | 1, fits: (event: Replay['events'][number]) => boolean) => {
      const all = way > 0 ? replay.events : [...replay.events].reverse();
      const found = all.find(
        (event) => (way > 0 ? event.time > clock.current.time + 1e-6 : event.time < clock.current.time - 1e-6) && fits(event),
      );
      if (!found) return;
      setPlaying(false);
      go(found.time);
    },
    [replay, go],
  );
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && event.target.closest('input, textarea, [role=combobox], [role=listbox], [role=slider]');
      if (typing || event.ctrlKey || event.metaKey) return;
      const steps = event.shiftKey ? Math.round(1 / replay.step) : 1;
      const act: Record<string, () => void> = {
        ' ': () => setPlaying((old) => !old),
        ArrowRight: () => (setPlaying(false), go((Math.floor(clock.current.time / replay.step + 1e-6) + steps) * replay.step)),
        ArrowLeft: () => (setPlaying(false), go((Math.ceil(clock.current.time / replay.step - 1e-6) - steps) * replay.step)),
        n: () => jump(1, () => true),
        p: () => jump(-1, () => true),
      };
      if (!act[event.key]) return;
      event.preventDefault();
      act[event.key]();
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, [replay.step, go, jump]);
  const isPartyHit = (event: Replay['events'][number]) =>
    event.event === 'hit' && event.other !== undefined && replay.units[event.other]?.side === 'party';
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
      height={STAGE_HEIGHT}
      selected={at}
      reasons={main ? look : undefined}
      names={names}
      follows={follows && at !== undefined}
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
        onTime={(to) => (setPlaying(false), go(to))}
        onSelect={(number) => onQuery({ unit: number })}
      />
      <main ref={ref} className="scroll flex min-h-0 min-w-0 flex-col" aria-label="Replay">
        <div className="flex items-center gap-2.5 px-4 pb-1.5 pt-2">
          <h1 className="min-w-0 truncate text-page tracking-tight">{name}</h1>
          <NumberField
            bare
            compact
            info={{ label: 'Seed', unit: '', min: 0, max: 2147483646, whole: true, about: 'which run' }}
            base={seed}
            width={92}
            onCommit={(next) => onQuery({ seed: next, at: undefined, unit: undefined })}
          />
          <span className="min-w-0 flex-1 truncate text-table text-ink-2">
            {outcomeWords(replay.outcome).short} at {clockTime(replay.length, 2)}; {alive} enemies came; digest{' '}
            <span data-testid="replay-digest">{replay.digest}</span>
          </span>
          <div className="w-[150px]">
            <Choose
              quiet
              label="Compare with"
              value={comparison ?? 'none'}
              options={[
                { id: 'none', name: 'compare …' },
                { id: `seed:${seed + 1}`, name: `seed ${seed + 1}` },
                ...(comparison?.startsWith('seed:') && comparison !== `seed:${seed + 1}`
                  ? [{ id: comparison, name: `seed ${comparison.slice(5)}` }]
                  : []),
                ...project.tiers
                  .filter(({ id }) => id !== scenario.tier)
                  .map((tier) => ({ id: `tier:${tier.id}`, name: `at ${tier.name}` })),
                ...(hasBefore ? [{ id: 'before', name: 'before the last edit' }] : []),
              ]}
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
        {comparison && (
          <p className="px-4 pt-1 text-table text-ink-2">
            {!compared
              ? 'Running the other …'
              : parts === undefined
                ? 'Both runs are the same.'
                : `Left: this run. Right: ${comparison.startsWith('seed:') ? `seed ${comparison.slice(5)}` : comparison === 'before' ? 'before the last edit' : `at ${project.tiers.find(({ id }) => id === comparison.slice(5))?.name}`}, ${outcomeWords(compared.outcome).short} at ${clockTime(compared.length, 2)}. They part at `}
            {compared && parts !== undefined && (
              <button type="button" className="link" onClick={() => (setPlaying(false), go(parts))}>
                {clockTime(parts, 2)}
              </button>
            )}
          </p>
        )}
        <div className="mt-1.5 flex items-center gap-1.5 border-t px-4 pt-1.5">
          <span className="w-[92px] font-title text-page tabular-nums" data-testid="clock">
            {clockTime(time, 2)}
          </span>
          <button type="button" className="btn" aria-label="Previous event" title="previous event (p)" onClick={() => jump(-1, () => true)}>
            ‹‹
          </button>
          <button
            type="button"
            className="btn"
            aria-label="A step back"
            title="a step back (←)"
            onClick={() => (setPlaying(false), go(time - replay.step))}
          >
            ‹
          </button>
          <button
            type="button"
            className="btn btn-primary w-[58px] justify-center"
            onClick={() => (time >= length && go(0), setPlaying(!playing))}
          >
            {playing ? 'Pause' : 'Play'}
          </button>
          <button
            type="button"
            className="btn"
            aria-label="A step on"
            title="a step on (→)"
            onClick={() => (setPlaying(false), go(time + replay.step))}
          >
            ›
          </button>
          <button type="button" className="btn" aria-label="Next event" title="next event (n)" onClick={() => jump(1, () => true)}>
            ››
          </button>
          <span role="radiogroup" aria-label="Speed" className="ml-1 flex">
            {SPEEDS.map((each) => (
              <button key={each} type="button" role="radio" aria-checked={speed === each} className="switch" onClick={() => setSpeed(each)}>
                ×{each === 0.25 ? '¼' : each === 0.5 ? '½' : each}
              </button>
            ))}
          </span>
          <button type="button" className="btn" onClick={() => jump(1, isPartyHit)}>
            Next hit
          </button>
          <button
            type="button"
            className="btn"
            disabled={selected === undefined}
            onClick={() => jump(1, (event) => event.unit === selected && ['start', 'doing', 'state', 'target'].includes(event.event))}
          >
            Its next decision
          </button>
          <span className="flex-1" />
          <button type="button" className="switch" aria-pressed={names} data-state={names ? 'on' : 'off'} onClick={() => setNames(!names)}>
            names
          </button>
          <button
            type="button"
            className="switch"
            aria-pressed={follows}
            data-state={follows ? 'on' : 'off'}
            disabled={selected === undefined}
            onClick={() => setFollows(!follows)}
          >
            follow
          </button>
        </div>
        <Scrubber
          replay={replay}
          width={width - 32}
          length={length}
          time={time}
          parts={parts}
          selected={selected}
          heads={heads}
          onTime={(to) => (setPlaying(false), go(to))}
        />
        <RunApproach replay={replay} selected={selected} width={width - 32} length={length} time={time} heads={heads} />
      </main>
      <ReasonsPanel project={project} replay={replay} heads={heads} selected={selected} time={time} look={look} playing={playing} />
    </>
  );
}
