import {
  BAND_MEASURES,
  type BandMeasure,
  Encounter,
  GOAL_MEASURES,
  scenarioKey,
  columnOf,
  estimate,
  type Chain,
  type ChainStep,
  type Lens,
  type Project,
  type SettingList,
  type Setting,
  type TweakPlace,
  type TweakValue,
  type WordChain,
  valueWords,
  Unit,
  chainSentence,
  effectiveEncounter,
  effectiveUnit,
  pointerSteps,
  quantityAt,
  tweakApplies,
  unitHeads,
  valueAt,
  placesAt,
  pointerOf,
  STATISTIC_WORDS,
  told,
  unitOf,
  shown,
  linear,
  roundUp,
  ticks,
  placeName,
  clockOfScenario,
  goalIn,
  isTold,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { useView } from '../../app/view';
import { READING, useCells } from '../../server/useCells';
import { nameOfPlace } from '../../fields/edits';
import { guarded } from '../../parts/guarded';
import { fitting, wideAs } from '../../visuals/labels';

interface Props {
  project: Project;
  list: SettingList;
  settings: readonly Setting[];
  /** The row that is being looked at. */
  place: TweakPlace | undefined;
}

const WIDTH = 308;
const KEY = { tiers: 'tier', skills: 'skill', styles: 'style' } as const;

/** @typeParam V a number, or a word or a yes-or-no as well */
interface Line<V extends TweakValue = number> {
  path: string;
  name: string;
  unit: string;
  /** As it is written; absent where nothing is. */
  base?: V;
  /** Asked: what a limit cut. */
  values: { value: V; sentence?: string; asked?: number }[];
  /** What its words are called. */
  said: (value: TweakValue | undefined) => string;
}

const isNumeric = (line: Line<TweakValue>): line is Line => line.values.every(({ value }) => typeof value === 'number');

/** What the settings make of somebody's numbers: each with the chain that led to it, and the curve of one across all of them. */
export const EffectivePanel = guarded('The effective values', function EffectivePanel({ project, list, settings, place }: Props) {
  const heads = useMemo(() => unitHeads(project), [project]);
  const [chosen, setChosen] = useState<string>();
  const candidates = useMemo(() => {
    const applies = heads.filter((head) => place && place.scope !== 'encounter' && tweakApplies(place, head));
    const list2 = place?.scope === 'encounter' ? project.encounters : applies.length ? applies : heads;
    return list2.map(({ id, name }) => ({ id, name }));
  }, [heads, place, project.encounters]);
  const id = candidates.some((one) => one.id === chosen) ? chosen : candidates[0]?.id;
  const lines = useMemo(() => (id === undefined ? [] : linesOf(project, list, settings, id)), [project, list, settings, id]);
  const wanted = place && id !== undefined ? pathsOf(project, place, id) : [];
  const shownLine = lines
    .filter(isNumeric)
    .find((line, _, all) => wanted.includes(line.path) || !all.some(({ path }) => wanted.includes(path)));
  const subject = candidates.find((one) => one.id === id)?.name ?? '';
  return (
    <aside aria-label="Effective values" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
      <div className="section-head">
        <h3>Effective values</h3>
        <span className="note">{place ? placeName(place.path, place.scope === 'encounter' ? Encounter : Unit) : ''}</span>
      </div>
      {id !== undefined && (
        <div className="mt-1 w-[180px]">
          <Choose label="Of" value={id} options={candidates} onChoose={setChosen} />
        </div>
      )}
      {shownLine && <Curve line={shownLine} settings={settings} list={list} subject={subject} />}
      <table className="mt-2 w-full text-right text-table" aria-label="Effective values">
        <thead>
          <tr className="text-label text-ink-3">
            <th className="text-left font-normal">what</th>
            <th className="font-normal">base</th>
            {settings.map(({ id: own, name }, i) => (
              <th key={own} className="max-w-[52px] truncate pl-1 font-normal" title={name}>
                {list === 'tiers' ? i + 1 : name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ path, name, unit, base, values, said }) => (
            <tr key={path} className={`border-t border-hair ${wanted.includes(path) ? 'bg-well' : ''}`}>
              <td className="max-w-[112px] truncate text-left" title={`${name}${unit && `, ${unit}`}`}>
                {name}
              </td>
              <td className="text-ink-3">{said(base)}</td>
              {values.map(({ value, sentence, asked }, i) => (
                <td
                  key={settings[i].id}
                  title={sentence}
                  className={`pl-1 ${value === base ? 'text-ink-3' : 'font-semibold'} ${asked === undefined ? '' : 'text-warn'}`}
                >
                  {asked !== undefined && (
                    <s className="block text-label leading-[12px] text-ink-3" aria-label={`asked ${shown(asked, 2)}, granted`}>
                      {shown(asked, 2)}
                    </s>
                  )}
                  {said(value)}
                  {asked !== undefined && '!'}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {id !== undefined && list !== 'styles' && <MeasureCurve key={id} project={project} list={list} settings={settings} id={id} />}
      <p className="mt-2 text-label text-ink-3">
        {lines.length
          ? 'Hover a number for the chain that led to it; an exclamation mark is a value that a limit cut, what was asked stands struck above it.'
          : 'Nothing is changed of it.'}
      </p>
    </aside>
  );
});

/** Every number, word and yes-or-no of a unit or an encounter that some setting touches. */
function linesOf(project: Project, list: SettingList, settings: readonly Setting[], id: string): Line<TweakValue>[] {
  const encounter = project.encounters.find((one) => one.id === id);
  const looked = settings.map((setting) => {
    const lens: Lens = { [KEY[list]]: setting.id };
    return encounter ? effectiveEncounter(project, encounter, lens) : effectiveUnit(project, id, lens);
  });
  const written = encounter ?? effectiveUnit(project, id, {}).unit;
  const root = encounter ? Encounter : Unit;
  const isOwn = (source: ChainStep['source']) => source === KEY[list] || (list === 'tiers' && source === 'tierTrait');
  const own = (chain: Chain | WordChain) => chain.steps.some(({ source }) => isOwn(source));
  const paths = [
    ...new Set(looked.flatMap(({ chains, words }) => [...chains, ...words].flatMap(([path, chain]) => (own(chain) ? [path] : [])))),
  ];
  return paths.map((path) => ({
    path,
    name: encounter ? placeName(path, Encounter) : nameOfPlace(written as Unit, path).slice(written.name.length + 1),
    unit: quantityAt(root, pointerSteps(path))?.unit ?? '',
    base: valueAt(written, path) as TweakValue,
    said: (value) => (typeof value === 'number' ? shown(value, 2) : value === undefined ? '' : valueWords(root, pointerSteps(path), value)),
    values: looked.map(({ unit, chains, words }) => {
      const chain = chains.get(path);
      const value = valueAt(unit, path) as TweakValue;
      const wordChain = words.get(path);
      const cut = chain?.steps.findLast(
        ({ source, asked, granted, tweak }) => isOwn(source) && asked !== granted && tweak.round === undefined,
      );
      return {
        value,
        ...(cut && { asked: cut.asked }),
        ...(chain && { sentence: chainSentence(chain, (number) => shown(number)) }),
        ...(wordChain && { sentence: chainSentence(wordChain, undefined, (word) => valueWords(root, pointerSteps(path), word)) }),
      };
    }),
  }));
}

/** The numbers of a unit or an encounter that a row of the table speaks of. */
function pathsOf(project: Project, place: TweakPlace, id: string): string[] {
  const encounter = project.encounters.find((one) => one.id === id);
  const subject = encounter ?? effectiveUnit(project, id, {}).unit;
  return placesAt(subject, pointerSteps(place.path)).map((steps) => pointerOf(...steps));
}

/** One number across the settings in their order, and as it is written. */
function Curve({ line, settings, list, subject }: { line: Line; settings: readonly Setting[]; list: SettingList; subject: string }) {
  const height = 120;
  const top = roundUp(
    Math.max(line.base ?? 0, ...line.values.flatMap(({ value, asked = 0 }) => [value, asked].filter(Number.isFinite)), 1e-6),
  );
  const unit = line.unit && `, ${line.unit}`;
  const y = linear(0, top, height - 22, 16);
  const x = (i: number) => 40 + ((WIDTH - 56) * i) / Math.max(1, settings.length - 1);
  const points = line.values.flatMap(({ value }, i) => (Number.isFinite(value) ? [`${x(i).toFixed(1)} ${y(value).toFixed(1)}`] : []));
  return (
    <svg
      width={WIDTH}
      height={height}
      className="mt-2"
      role="img"
      aria-label={`${subject} ${line.name}: ${line.values.map(({ value }, i) => `${settings[i].name} ${shown(value, 2)}`).join(', ')}`}
    >
      <text x={0} y={10} className="t12 tb">
        {fitting(line.name, WIDTH - wideAs(unit), 6.8)}
        {unit}
      </text>
      {ticks(0, top, 3).map((tick) => (
        <g key={tick}>
          <path d={`M34 ${y(tick)} H${WIDTH}`} stroke="var(--hair)" />
          <text x={30} y={y(tick) + 4} textAnchor="end" className="t3">
            {shown(tick, 2)}
          </text>
        </g>
      ))}
      {line.base !== undefined && <path d={`M34 ${y(line.base)} H${WIDTH}`} stroke="var(--ghost)" strokeDasharray="3 3" />}
      {points.length > 1 && <path d={`M${points.join(' L')}`} fill="none" stroke="var(--ink)" strokeWidth={1.6} />}
      {line.values.map(({ value, asked }, i) => (
        <g key={settings[i].id}>
          {asked !== undefined && Number.isFinite(asked) && (
            <>
              <path d={`M${x(i)} ${y(asked)} V${y(value)}`} stroke="var(--warn)" strokeDasharray="2 2" />
              <circle cx={x(i)} cy={y(asked)} r={3} fill="var(--sheet)" stroke="var(--warn)" />
            </>
          )}
          {Number.isFinite(value) && <circle cx={x(i)} cy={y(value)} r={3.6} fill={asked === undefined ? 'var(--ink)' : 'var(--warn)'} />}
          <text x={x(i)} y={Number.isFinite(value) ? y(value) - 7 : 30} textAnchor="middle" className="t2 halo-s">
            {Number.isNaN(value) ? '' : Number.isFinite(value) ? shown(value, 2) : 'never'}
          </text>
          <text x={x(i)} y={height - 6} textAnchor="middle" className="t3">
            {list === 'tiers' ? i + 1 : settings[i].name.slice(0, 8)}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** A measure across the settings, as far as the board has been run: of the enemy in a duel, or of the encounter. */
function MeasureCurve({
  project,
  list,
  settings,
  id,
}: {
  project: Project;
  list: 'tiers' | 'skills';
  settings: readonly Setting[];
  id: string;
}) {
  const [view] = useView(project);
  const kind = project.encounters.some((one) => one.id === id) ? 'encounter' : 'duel';
  const subject = kind === 'duel' ? 'enemy' : 'encounter';
  const clock = clockOfScenario(project, { kind, id });
  const offered = BAND_MEASURES.filter((measure) => GOAL_MEASURES[measure].of.includes(subject) && isTold(measure, clock));
  const [measure, setMeasure] = useState<BandMeasure>(kind === 'duel' ? 'timeToKill' : 'dose');
  const column = columnOf(measure, subject, id);
  const keys = settings.map((setting) =>
    scenarioKey({
      kind,
      id,
      ...(list === 'tiers'
        ? { tier: setting.id, ...(view.skill && { skill: view.skill }) }
        : { skill: setting.id, ...(view.tier && { tier: view.tier }) }),
    }),
  );
  const read = useCells(
    project.id,
    keys.map((cell) => ({ cell, columns: [column] })),
  );
  const { usual } = GOAL_MEASURES[measure];
  const values = keys.map((key) => estimate(read?.get(key)?.values[column] ?? [], usual).value);
  const known = values.some(Number.isFinite);
  return (
    <section className="mt-3 border-t border-hair pt-1.5" aria-label="Measured">
      <div className="section-head">
        <h3>Measured</h3>
        <span className="note">{kind === 'duel' ? 'in a duel' : 'in the encounter'}, as far as the board has been run</span>
      </div>
      <div className="mt-1 w-[180px]">
        <Choose
          label="Measure"
          value={measure}
          options={offered.map((one) => ({ id: one, name: goalIn(one, clock).label }))}
          onChoose={(next) => setMeasure(offered.find((one) => one === next) ?? measure)}
        />
      </div>
      {known ? (
        <Curve
          settings={settings}
          list={list}
          subject={project.name}
          line={{
            path: '',
            name: `${goalIn(measure, clock).label}, ${STATISTIC_WORDS[usual]}`,
            unit: unitOf(measure, clock),
            values: values.map((value) => ({ value: told(measure, value), capped: false })),
            said: (value) => (typeof value === 'number' ? shown(value, 2) : ''),
          }}
        />
      ) : (
        <p className="mt-1 text-table text-ink-3">{read ? 'Not run yet: run the board, and its values stand here.' : READING}</p>
      )}
    </section>
  );
}
