import { type Arena, type UnitHead, type Wave, waveSentence, linear, withUnit } from '@insidia/core';
import { useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { waveMoved } from './edits';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { useAppSelector } from '../../store/store';
import { ArenaPlan } from '../../visuals/ArenaPlan';
import { PARTY_STARTS, SIGN, partyStartsAt } from '../../visuals/planLabels';
import { PressureRibbon } from '../../visuals/PressureRibbon';
import { WaveTimeline } from '../../visuals/WaveTimeline';
import { planScale } from '../../visuals/plan';
import { useSize, useWidth } from '../../visuals/useWidth';
import { NewWave } from './NewWave';
import { WaveForm } from './WaveForm';
import { guarded } from '../../parts/guarded';

interface Props {
  editor: ObjectEditor<'encounters'>;
  arena: Arena | undefined;
  heads: ReadonlyMap<string, UnitHead>;
  selected: { wave: string; group?: string } | undefined;
  onSelect: (selected: { wave: string; group?: string } | undefined) => void;
}

const LEFT = 148;

/** Where the encounter takes place, what comes when, and the pressure of it: the last two on one clock. */
export const EncounterBench = guarded(
  'The encounter’s bench',
  function EncounterBench({ editor, arena, heads, selected, onSelect }: Props) {
    const { base, project } = editor;
    const [ref, width] = useWidth<HTMLDivElement>(700);
    const [planRef, plan] = useSize<HTMLDivElement>({ width: 400, height: 270 });
    const [instant, setInstant] = useState<number>();
    const navigate = useNavigate();
    const { search } = useLocation();
    const answer = useAppSelector((state) =>
      state.readout.encounter.answer?.scenario.id === base.id ? state.readout.encounter.answer : null,
    );
    const readout = answer?.now;
    const turns = base.clock === 'rounds';
    const until = readout?.until ?? (turns ? (base.rounds?.limit ?? 1) : base.limit);
    const x = linear(0, until, LEFT, width - 46);
    const wave = base.waves.find(({ id }) => id === selected?.wave) ?? base.waves[0];
    const group = wave?.groups.find(({ id }) => id === selected?.group) ?? wave?.groups[0];
    const used = useMemo(
      () => new Set(group?.at ?? base.waves.flatMap(({ groups }) => groups.flatMap(({ at }) => at))),
      [group, base.waves],
    );
    const warned = useMemo(
      () => new Set(editor.warnings.flatMap(({ path }) => /^\/encounters\/[^/]+\/waves\/([^/]+)/.exec(path)?.[1] ?? [])),
      [editor.warnings],
    );
    const addWave = (made: Wave) => {
      editor.change(`${base.name}: new wave ${made.name}`, (encounter) => void encounter.waves.push(made));
      onSelect({ wave: made.id });
    };
    const colourOf = (type: string) => heads.get(type)?.colour ?? 'ink';
    const nameOf = (type: string) => heads.get(type)?.name ?? type;
    return (
      <div ref={ref} className="flex min-h-0 flex-1 flex-col">
        <div className="grid shrink-0 auto-rows-[clamp(264px,38vh,520px)] border-t min-[1180px]:grid-cols-[minmax(0,1fr)_clamp(288px,36%,440px)]">
          <div ref={planRef} className="min-h-0 min-w-0 overflow-hidden">
            {arena && (
              <Plan
                arena={arena}
                {...plan}
                used={used}
                onSpawnPoint={
                  wave && group
                    ? (id) =>
                        editor.change(`${base.name} ${wave.name}: spawn points`, (encounter) => {
                          const own = encounter.waves.find((one) => one.id === wave.id)!.groups.find((one) => one.id === group.id)!;
                          const next = own.at.includes(id) ? own.at.filter((point) => point !== id) : [...own.at, id];
                          if (next.length) own.at = next;
                        })
                    : undefined
                }
                party={base.party.map(({ unit }) => heads.get(unit))}
              />
            )}
          </div>
          <div className="scroll min-h-0 px-3 py-2 max-[1179px]:border-t min-[1180px]:border-l">
            {wave ? (
              <WaveForm editor={editor} wave={wave} group={group} arena={arena} heads={heads} onSelect={onSelect} />
            ) : (
              <p className="text-table text-ink-2">
                Nobody comes. A wave says who does, how many, where and when: add one below, and its form stands here.
              </p>
            )}
          </div>
        </div>
        <section className="border-t px-4 pt-1.5" aria-label="Waves">
          <div className="section-head">
            <h3>Waves</h3>
            <span className="note min-w-0 flex-1 truncate">
              first spawn to last death{readout ? `, median of ${readout.summary.runs} runs; paler to p90` : ''}; drag a bar to put its wave
              off, a name to reorder (Alt ↑ ↓)
            </span>
            <NewWave encounter={base} arena={arena} heads={heads} onWave={addWave} />
          </div>
          {base.waves.length ? (
            <WaveTimeline
              encounter={base}
              readout={readout}
              x={x}
              width={width - 32}
              until={until}
              heads={heads}
              startSentence={(one) => waveSentence(base, one)}
              selected={wave && { wave: wave.id, ...(group && { group: group.id }) }}
              warned={warned}
              instant={instant}
              onInstant={setInstant}
              onSelect={(id, groupId) => onSelect({ wave: id, ...(groupId && { group: groupId }) })}
              onDelay={(id, seconds, mark) => {
                const own = base.waves.find((one) => one.id === id)!;
                const field = own.start === 'clock' ? 'at' : 'delay';
                if (!turns) return editor.write(`/waves/${id}/${field}`, seconds, mark);
                const rounds = { ...(own.rounds ?? { at: 1, delay: 0 }), [field]: Math.max(field === 'at' ? 1 : 0, seconds) };
                editor.change(
                  {
                    what: `${base.name} ${own.name} ${field}`,
                    from: String(own.rounds?.[field] ?? 0),
                    to: withUnit('rounds', String(rounds[field]), 's'),
                  },
                  (one) => {
                    one.waves.find((each) => each.id === id)!.rounds = rounds;
                  },
                  mark,
                );
              }}
              onMove={(id, by) => {
                const index = base.waves.findIndex((one) => one.id === id);
                if (index + by < 0 || index + by >= base.waves.length) return;
                editor.change(`${base.name}: ${base.waves[index].name} ${by < 0 ? 'earlier' : 'later'}`, (encounter) => {
                  encounter.waves = waveMoved(encounter.waves, id, by);
                });
              }}
            />
          ) : (
            <p className="py-3 text-ink-2">No wave yet: nobody comes. Add one, and its fights run at once.</p>
          )}
        </section>
        <section className="border-t px-4 pt-1.5" aria-label="Pressure">
          <div className="section-head">
            <h3>Pressure</h3>
            <span className="note min-w-0 flex-1 truncate">
              share of the party’s full health lost a {turns ? 'round' : 'second, last 3 s'}; same clock; dotted p10 and p90, dashed the
              lull level; a double click opens the median run there
            </span>
          </div>
          {readout ? (
            <PressureRibbon
              readout={readout}
              before={answer?.before}
              x={x}
              width={width - 32}
              colourOf={colourOf}
              nameOf={nameOf}
              instant={instant}
              onInstant={setInstant}
              onOpen={(seconds) => {
                const query = new URLSearchParams(search);
                query.set('seed', String(readout.seeds.median));
                // A replay in turns goes by turns, not by rounds.
                if (!turns) query.set('at', seconds.toFixed(2));
                void navigate({ pathname: `/projects/${project.id}/replay/${base.id}`, search: query.toString() });
              }}
            />
          ) : (
            <p className="py-3 text-ink-3">Running the first fights …</p>
          )}
        </section>
      </div>
    );
  },
);

function Plan({
  arena,
  width,
  height,
  used,
  onSpawnPoint,
  party,
}: {
  arena: Arena;
  width: number;
  height: number;
  used: ReadonlySet<string>;
  onSpawnPoint?: (id: string) => void;
  party: (UnitHead | undefined)[];
}) {
  const plan = planScale(arena, width, height, { margin: 14 });
  const { x, y } = plan;
  const start = arena.partyStart;
  const says = partyStartsAt(arena, plan);
  return (
    <ArenaPlan
      arena={arena}
      width={width}
      height={height}
      plan={plan}
      label={`${arena.name}: ${onSpawnPoint ? 'a click on a spawn point adds it to the group or takes it away' : 'from above'}`}
      used={used}
      onSpawnPoint={onSpawnPoint}
    >
      <g pointerEvents="none">
        <circle cx={x(start.x)} cy={y(start.y)} r={SIGN.partyStart} fill="none" stroke="var(--ink)" />
        {party.map((head, i) => (
          <rect
            key={i}
            x={x(start.x) - 4 + (i - (party.length - 1) / 2) * 10}
            y={y(start.y) - 4}
            width={8}
            height={8}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth={1.5}
            transform={head?.glyph === 'diamond' ? `rotate(45 ${x(start.x) + (i - (party.length - 1) / 2) * 10} ${y(start.y)})` : undefined}
          />
        ))}
        <text x={says.x} y={says.y} textAnchor={says.anchor} className="t3 halo-s">
          {PARTY_STARTS}
        </text>
      </g>
    </ArenaPlan>
  );
}
