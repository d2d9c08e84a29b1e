import {
  type Project,
  type ReasonLook,
  type Replay,
  type SightLine,
  type UnitHead,
  rowOfUnit,
  stepAt,
  UNIT_WIDTH,
  type Clock,
  countedTurns,
  withUnit,
  clockTime,
  fixed,
  shown,
} from '@insidia/core';
import { Link, useLocation } from 'react-router';
import { Glyph } from '../../visuals/Glyph';
import { OrderOfTurns } from './OrderOfTurns';
import { plainSentence } from './sentences';
import { guarded } from '../../parts/guarded';
import { replayTime } from './replayTime';

interface Props {
  project: Project;
  replay: Replay;
  heads: ReadonlyMap<string, UnitHead>;
  selected: number | undefined;
  time: number;
  look: ReasonLook | undefined;
  playing: boolean;
  onSelect: (unit: number) => void;
}

/** Why the selected unit does what it does at this instant, in sentences with numbers. */
export const ReasonsPanel = guarded(
  'The reasons',
  function ReasonsPanel({ project, replay, heads, selected, time, look, playing, onSelect }: Props) {
    const { search } = useLocation();
    const unit = selected === undefined ? undefined : replay.units[selected];
    const head = unit && heads.get(unit.kind);
    const row = selected === undefined ? -1 : rowOfUnit(replay, selected, stepAt(replay, time));
    const health = row >= 0 ? replay.unitData[row * UNIT_WIDTH + 4] : undefined;
    return (
      <aside aria-label="Reasons" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
        {!unit || selected === undefined ? (
          <>
            <h3 className="text-section">Reasons</h3>
            <p className="mt-1 text-table text-ink-2">
              Choose a unit on the stage, in the list of units or by one of its events, and ask at any instant why it did what it did.
            </p>
          </>
        ) : (
          <>
            <div className="flex items-center gap-2">
              {head && <Glyph unit={head} size={20} />}
              <h3 className="min-w-0 truncate text-section">{unit.name}</h3>
              <span className="min-w-0 flex-1 truncate text-label text-ink-3">{unit.wave}</span>
              {health !== undefined && (
                <span className="text-table">
                  <b>{fixed(health * unit.maxHealth, 0)}</b> of {shown(unit.maxHealth, 0)}
                </span>
              )}
            </div>
            {health === undefined && <p className="mt-1 text-table text-ink-2">It is not on the field at {replayTime(replay, time, 2)}.</p>}
            {playing && <p className="mt-1 text-table text-ink-3">Pause to ask why.</p>}
            {look?.turn && <OrderOfTurns replay={replay} heads={heads} turn={look.turn} selected={selected} onSelect={onSelect} />}
            {look && <Look look={look} time={time} />}
            <Lately replay={replay} selected={selected} time={time} />
            {head && (
              <p className="mt-2 border-t border-hair pt-2">
                <Link
                  className="btn max-w-full"
                  to={{
                    pathname: `/projects/${project.id}/${head.side === 'enemy' ? 'enemies' : 'party'}/${head.id}`,
                    search: keepLens(search),
                  }}
                >
                  <span className="truncate">Open {head.name}</span>
                </Link>
              </p>
            )}
          </>
        )}
      </aside>
    );
  },
);

function keepLens(search: string): string {
  const old = new URLSearchParams(search);
  const next = new URLSearchParams();
  for (const name of ['tier', 'skill', 'edit']) if (old.has(name)) next.set(name, old.get(name) ?? '');
  return next.toString();
}

function Look({ look, time }: { look: ReasonLook; time: number }) {
  const { reasons, line, timers, targets, would, energy } = look;
  const clock: Clock = reasons.round === undefined ? 'continuous' : 'rounds';
  const told = (value: number, unit: string, places: number) => withUnit(clock, fixed(value, clock === 'rounds' ? 0 : places), unit);
  const wait = (seconds: number) => (clock === 'rounds' ? countedTurns(Math.ceil(seconds - 1e-6)) : `${fixed(seconds, 2)} s`);
  return (
    <>
      <section className="mt-1.5 border-t border-hair pt-1.5 text-table" aria-label="In sentences">
        {look.sentences.map((sentence) => (
          <p key={sentence} data-reason>
            {sentence}
          </p>
        ))}
      </section>
      {line?.wall && <SideView line={line} />}
      <section className="mt-1.5 border-t border-hair pt-1.5" aria-label="Its choice">
        <div className="section-head">
          <h3>Its choice {look.reasons.round === undefined ? `at ${clockTime(time, 2)}` : `in round ${look.reasons.round}`}</h3>
        </div>
        {reasons.priorities.map(({ condition, entries }, p) => (
          <div key={p} className="mt-1 border-t border-hair pt-1 text-table">
            <p>
              <b>{p + 1}</b> {condition ? `${condition.holds ? '' : 'passed over: '}${condition.detail}` : 'always'}
            </p>
            {entries.map(({ attack, usable, detail }) => (
              <p key={attack} className="grid grid-cols-[14px_86px_minmax(0,1fr)] gap-1">
                <span aria-hidden>{usable ? '✓' : '×'}</span>
                <b className="truncate">{attack}</b>
                <span className={usable ? '' : 'text-ink-2'}>{detail}</span>
              </p>
            ))}
          </div>
        ))}
      </section>
      <section className="mt-1.5 grid grid-cols-2 gap-3 border-t border-hair pt-1.5 text-table" aria-label="State and targets">
        <div>
          <h3 className="text-section">State</h3>
          <p>
            {reasons.state} for <b>{told(reasons.stateFor, 's', 2)}</b>
          </p>
          {energy && (
            <p>
              energy {fixed(energy.now, 0)} of {shown(energy.max)}
            </p>
          )}
        </div>
        <div>
          <h3 className="text-section">Targets</h3>
          {targets.slice(0, 4).map(({ name, gap, chosen }) => (
            <p key={name} className="flex">
              <span className={`flex-1 ${chosen ? 'font-semibold' : ''}`}>{name}</span>
              {gap !== undefined && told(gap, 'm', 1)}
            </p>
          ))}
        </div>
      </section>
      <section className="mt-1.5 border-t border-hair pt-1.5" aria-label="Timers">
        <h3 className="text-section">Timers</h3>
        {timers.map(({ name, left, of }) => (
          <div key={name} className="grid grid-cols-[92px_minmax(0,1fr)_76px] items-center gap-2 text-table">
            <span className="truncate">{name}</span>
            <svg width="100%" height={6} aria-hidden preserveAspectRatio="none">
              <rect width="100%" height={2} y={2} fill="var(--hair)" />
              <rect width={`${100 * (of > 0 ? 1 - Math.min(1, left / of) : 1)}%`} height={2} y={2} fill="var(--ink)" />
            </svg>
            <span className="text-right">{left > 0 ? `in ${wait(left)}` : 'ready'}</span>
          </div>
        ))}
      </section>
      {would.length > 0 && (
        <section className="mt-1.5 border-t border-hair pt-1.5 text-table" aria-label="It would have">
          <h3 className="text-section">It would have …</h3>
          {would.map(({ sentence }) => (
            <p key={sentence}>{sentence.charAt(0).toUpperCase() + sentence.slice(1)}.</p>
          ))}
          <p className="text-label text-ink-3">Each was tried: with that one change nothing else is in its way.</p>
        </section>
      )}
    </>
  );
}

/** The line from the side, to scale along its way: where it passes, and what stands in it. */
function SideView({ line }: { line: SightLine }) {
  const width = 308;
  const ground = 66;
  const wall = line.wall!;
  const tall = Math.max(line.from.height, line.to.height, wall.height) * 1.1;
  const x = (share: number) => 24 + share * (width - 72);
  const y = (metres: number) => ground - (metres / tall) * 52;
  const at = line.from.height + (line.to.height - line.from.height) * wall.at;
  return (
    <svg
      width={width}
      height={84}
      className="mt-1"
      role="img"
      aria-label={`from the side: ${wall.name} is ${shown(wall.excess, 2)} m too high for the line`}
    >
      <path d={`M0 ${ground + 0.5} H${width}`} className="axis" />
      <rect
        x={x(wall.at) - 9}
        y={y(wall.height)}
        width={18}
        height={ground - y(wall.height)}
        fill="var(--warn-wash)"
        stroke="var(--warn)"
        strokeWidth={1.4}
      />
      <path d={`M${x(0)} ${y(line.from.height)} L${x(wall.at)} ${y(at)}`} stroke="var(--ink)" strokeWidth={1.6} />
      <path d={`M${x(wall.at)} ${y(at)} L${x(1)} ${y(line.to.height)}`} stroke="var(--warn)" strokeDasharray="2 3" />
      <circle cx={x(0)} cy={y(line.from.height)} r={3} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4} />
      <circle cx={x(1)} cy={y(line.to.height)} r={3} fill="none" stroke="var(--warn)" strokeWidth={1.4} />
      <text x={2} y={y(line.from.height) - 6} className="t2">
        {shown(line.from.height, 2)} m
      </text>
      <text x={x(wall.at) + 13} y={y(wall.height) + 9} className="t2 tb" style={{ fill: 'var(--warn)' }}>
        {wall.name}, {shown(wall.excess, 2)} m too high
      </text>
      <text x={width} y={y(line.to.height) + 14} textAnchor="end" className="t2">
        {shown(line.to.height, 2)} m, half its height
      </text>
      <text x={x(0.5)} y={81} textAnchor="middle" className="t3">
        {shown(line.long, 1)} m
      </text>
    </svg>
  );
}

/** The last things that concern the unit: for a party member, which answer was tried and why it failed. */
function Lately({ replay, selected, time }: { replay: Replay; selected: number; time: number }) {
  const own = replay.events.filter(
    ({ unit, other, time: at, event }) =>
      at <= time + 1e-6 &&
      at > time - 6 &&
      (unit === selected || other === selected) &&
      ['hit', 'crush', 'answer', 'exposed', 'interrupted', 'stagger', 'heal', 'death', 'down'].includes(event),
  );
  if (!own.length) return null;
  return (
    <section className="mt-1.5 border-t border-hair pt-1.5 text-table" aria-label="Lately">
      <h3 className="text-section">Lately</h3>
      {own.slice(-7).map((event, i) => (
        <p key={i}>
          <span className="text-ink-3">{replayTime(replay, event.time, 2)}</span> {plainSentence(event.sentence)}
        </p>
      ))}
    </section>
  );
}
