import {
  type Lens,
  type Project,
  type Trait,
  Unit,
  bearersOf,
  editUnit,
  pointerSteps,
  quantityAt,
  shown,
  type TweakValue,
  traitOn,
  valueWords,
  unitHeads,
  usesOf,
  without,
  writtenUnit,
  placeName,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { useView } from '../../app/view';
import { SomeOf } from '../../fields/SomeOf';
import { newTrait } from '../../fields/traits';
import { TweaksField } from '../../fields/TweaksField';
import { WarningsButton } from '../../fields/WarningList';
import { nameOfPlace } from '../../fields/edits';
import { guarded } from '../../parts/guarded';
import { NewNamed } from '../../parts/NewNamed';
import { changed } from '../../store/document';
import { useAppDispatch } from '../../store/store';
import { Glyph } from '../../visuals/Glyph';
import { useWarnings } from '../../warnings/useWarnings';
import { NameAndNotes } from './NameAndNotes';
import { NamedList, WORDS } from './NamedList';

/** Traits: what each changes, of whom it changes what and leaves what alone, and who has it. */
export function TraitsPage({ project }: { project: Project }) {
  const dispatch = useAppDispatch();
  const [view] = useView(project);
  const { traits } = project;
  const [chosen, setChosen] = useState<string>();
  const trait = traits.find(({ id }) => id === chosen) ?? traits[0];
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const warnings = useWarnings();
  const own = useMemo(
    () => ({
      open: warnings.open.filter(({ path }) => path.startsWith('/traits/')),
      accepted: warnings.accepted.filter(({ path }) => path.startsWith('/traits/')),
    }),
    [warnings],
  );
  const put = (next: Trait[], name: string) => dispatch(changed({ document: { ...project, traits: next }, name }));
  const edit = (name: string, how: (one: Trait) => Trait) =>
    put(
      traits.map((one) => (one.id === trait.id ? how(one) : one)),
      name,
    );
  const add = (from?: Trait, name = from?.name) => {
    const made = { ...newTrait(project, name), ...(from && { tweaks: structuredClone(from.tweaks), notes: from.notes }) };
    if (made.notes === undefined) delete made.notes;
    put([...traits, made], `New trait: ${made.name}`);
    setChosen(made.id);
  };
  const sample = useMemo(() => trait && sampleFor(project, trait), [project, trait]);
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <NamedList
        project={project}
        list="traits"
        items={traits}
        selected={trait}
        onSelect={setChosen}
        onOrder={put}
        onRemove={({ id, name }) => dispatch(changed({ document: without(project, { kind: 'trait', id }), name: `${name} removed` }))}
        form={
          trait && (
            <NameAndNotes
              of={trait}
              others={traits}
              onChange={(name, next) => edit(name, (one) => ({ ...one, ...next }))}
              onNoNotes={(name) => edit(name, ({ notes: _, ...one }) => one)}
            />
          )
        }
        buttons={
          <>
            <NewNamed label="New trait" suggested={newTrait(project).name} onName={(name) => add(undefined, name)} />
            {trait && (
              <button type="button" className="btn" onClick={() => add(trait)}>
                Copy
              </button>
            )}
          </>
        }
      />
      <main className="scroll flex min-h-0 min-w-0 flex-col">
        <header className="flex items-center gap-3 px-4 pb-2 pt-2.5">
          <h1 className="text-page">{trait ? trait.name : 'Traits'}</h1>
          <span className="note min-w-0 flex-1 truncate">{WORDS.traits.about}</span>
          <WarningsButton project={project} lens={lens} open={own.open} accepted={own.accepted} apply={(made) => dispatch(changed(made))} />
        </header>
        {trait ? (
          <>
            <div className="px-4 pb-3">
              {sample && (
                <TweaksField
                  label="Whoever has it"
                  tweaks={trait.tweaks}
                  unit={sample}
                  onChange={(tweaks) => edit(`${trait.name}: tweaks`, (one) => ({ ...one, tweaks }))}
                />
              )}
            </div>
            <Touches project={project} trait={trait} lens={lens} />
          </>
        ) : (
          <p className="px-4 py-6 text-ink-2">
            No trait yet. A trait is a named list of changes to a unit’s numbers, such as half as much health again: make one, then give it
            to a unit, to all or a share of a group, to a wave, at a tier, or by an event.
          </p>
        )}
      </main>
      {trait && <GivenTo project={project} trait={trait} />}
    </div>
  );
}

/** Somebody whose numbers a trait’s changes may name: of those who have it, else anybody. */
function sampleFor(project: Project, trait: Trait): Unit | undefined {
  const id = bearersOf(project, trait.id)[0] ?? unitHeads(project)[0]?.id;
  return id === undefined ? undefined : writtenUnit(project, id);
}

/** Of everybody: what it changes, what of the same kind it leaves alone, and what is not there to change. */
const Touches = guarded('What it comes to', function Touches({ project, trait, lens }: { project: Project; trait: Trait; lens: Lens }) {
  const rows = useMemo(() => {
    const bearers = new Set(bearersOf(project, trait.id));
    return unitHeads(project)
      .map((head) => ({ head, has: bearers.has(head.id), ...traitOn(project, trait, head.id, lens) }))
      .sort((a, b) => Number(b.has) - Number(a.has));
  }, [project, trait, lens]);
  const named = (id: string, path: string) => {
    const unit = writtenUnit(project, id);
    const label = nameOfPlace(unit, path).slice(unit.name.length + 1);
    return label.charAt(0).toUpperCase() + label.slice(1);
  };
  const said = (path: string, value: TweakValue) =>
    typeof value === 'number' ? shown(value) : valueWords(Unit, pointerSteps(path), value);
  const measured = (path: string) => {
    const unit = quantityAt(Unit, pointerSteps(path))?.unit;
    return unit ? ` ${unit}` : '';
  };
  return (
    <section className="border-t px-4 py-2" aria-label="What it comes to">
      <div className="section-head">
        <h3>What it comes to</h3>
        <span className="note">through the tier and skill viewed as; those who have it first</span>
      </div>
      <table className="mt-1 w-full text-table" aria-label="What it comes to">
        <thead>
          <tr className="text-left text-label text-ink-3">
            <th className="w-[180px] font-normal">unit</th>
            <th className="font-normal">touches</th>
            <th className="font-normal">leaves alone</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ head, has, touched, missing, spared }) => (
            <tr key={head.id} className={`border-t border-hair align-top ${has ? '' : 'text-ink-3'}`}>
              <td className="py-1 pr-2">
                <span className="flex items-center gap-1.5">
                  <Glyph unit={head} size={14} />
                  <span
                    className={`min-w-0 truncate ${has ? 'font-semibold' : ''}`}
                    title={has ? `${head.name} has it` : `${head.name} does not have it`}
                  >
                    {head.name}
                  </span>
                </span>
              </td>
              <td className="py-1 pr-3">
                {touched.map(({ path, before, after }) => (
                  <span key={path} className="block">
                    {named(head.id, path)} {said(path, before)} → {said(path, after)}
                    {measured(path)}
                  </span>
                ))}
                {!touched.length && <span className="text-ink-3">nothing of it</span>}
              </td>
              <td className="py-1">
                {spared
                  .filter(({ value }) => value !== 0)
                  .map(({ path, value }) => `${named(head.id, path)} ${shown(value)}${measured(path)}`)
                  .join(', ')}
                {missing.length > 0 && (
                  <span className="block text-ink-3">
                    {missing.length === trait.tweaks.length
                      ? 'has none of these numbers'
                      : `has no ${missing.map((i) => placeName(trait.tweaks[i].path).toLowerCase()).join(', no ')}`}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
});

/** Who has it of themselves, to be changed here; and everywhere else that gives it. */
const GivenTo = guarded('Who has it', function GivenTo({ project, trait }: { project: Project; trait: Trait }) {
  const dispatch = useAppDispatch();
  const heads = useMemo(() => unitHeads(project), [project]);
  const own = useMemo(
    () => heads.filter(({ id }) => writtenUnit(project, id).traits.includes(trait.id)).map(({ id }) => id),
    [project, heads, trait.id],
  );
  const uses = useMemo(() => usesOf(project, { kind: 'trait', id: trait.id }), [project, trait.id]);
  const give = (next: string[]) => {
    const id = [...next, ...own].find((one) => next.includes(one) !== own.includes(one));
    if (id === undefined) return;
    const yes = next.includes(id);
    const document = editUnit(project, id, (unit) => {
      unit.traits = yes ? [...unit.traits, trait.id] : unit.traits.filter((one) => one !== trait.id);
    });
    const name = heads.find((head) => head.id === id)?.name ?? id;
    dispatch(changed({ document, name: yes ? `${name} is ${trait.name}` : `${name} is not ${trait.name} any more` }));
  };
  return (
    <aside aria-label="Who has it" className="scroll flex min-h-0 flex-col gap-2 border-l bg-sheet px-4 pb-3 pt-[10px]">
      <div className="section-head">
        <h3>Who has it</h3>
      </div>
      <SomeOf label="Of themselves" options={heads} value={own} onChange={give} empty="no unit yet" />
      <div>
        <span className="block text-label text-ink-3">Given by</span>
        <ul className="text-table">
          {uses.map(({ where }) => (
            <li key={where} className="border-t border-hair py-0.5">
              {where}
            </li>
          ))}
        </ul>
        {!uses.length && <p className="text-table text-ink-3">nobody yet</p>}
      </div>
      <p className="text-label text-ink-3">
        A unit’s own traits are laid over its numbers before any tier; those of tiers, waves, groups and events after it, before a wave’s
        growth. Give it to a group or a wave in the encounter, to a tier among the tiers, by an event among an encounter’s events.
      </p>
    </aside>
  );
});
