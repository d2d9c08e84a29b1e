import {
  type Project,
  SETTING_LISTS,
  type SettingList,
  type Tier,
  type Tweak,
  type TweakPlace,
  between,
  idFor,
  nameFor,
  placesOfTweaks,
  samePlace,
  without,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { useNavigate, useParams, useLocation } from 'react-router';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { ListButtons, moved } from '../../fields/Mini';
import { Popover } from '../../fields/Popover';
import { TextField } from '../../fields/TextField';
import { WarningsButton } from '../../fields/WarningList';
import { YesNo } from '../../fields/YesNo';
import { numberOffers, scopeOf, whoseOffers } from '../../fields/tweakPlaces';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useWarnings } from '../../warnings/useWarnings';
import { EffectivePanel } from './EffectivePanel';
import { SettingTable } from './SettingTable';

const KINDS = { tiers: 'tier', skills: 'skill', styles: 'style' } as const;

const WORDS: Record<SettingList, { one: string; many: string; about: string }> = {
  tiers: { one: 'tier', many: 'Tiers', about: 'difficulty settings, from the gentlest to the hardest: a column each' },
  skills: { one: 'skill', many: 'Skills', about: 'how well the simulated player plays' },
  styles: { one: 'style', many: 'Styles', about: 'how the simulated player likes to play' },
};

/** Tiers, skills and styles as tables of what they change, and what comes of it. */
export function DifficultyPage() {
  const project = useAppSelector((state) => state.document.document);
  const { list } = useParams();
  const chosen = SETTING_LISTS.find((one) => one === list) ?? 'tiers';
  return project && <Difficulty key={chosen} project={project} list={chosen} />;
}

function Difficulty({ project, list }: { project: Project; list: SettingList }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { search } = useLocation();
  const [view] = useView(project);
  const settings: Tier[] = project[list];
  const [selected, setSelected] = useState(settings[0]?.id);
  const [place, setPlace] = useState<TweakPlace>();
  const [added, setAdded] = useState<TweakPlace[]>([]);
  const setting = settings.find(({ id }) => id === selected) ?? settings[0];
  const { one, many, about } = WORDS[list];
  const warnings = useWarnings();
  const own = useMemo(
    () => ({
      open: warnings.open.filter(({ path }) => path.startsWith(`/${list}/`)),
      accepted: warnings.accepted.filter(({ path }) => path.startsWith(`/${list}/`)),
    }),
    [warnings, list],
  );
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const places = useMemo(() => {
    const found = placesOfTweaks(settings);
    return [...found, ...added.filter((extra) => !found.some((known) => samePlace(known, extra)))];
  }, [settings, added]);
  const change = (name: string, how: (next: Tier[]) => Tier[], mark?: string) =>
    dispatch(changed({ document: { ...project, [list]: how(settings) }, name, mark }));
  const add = (from?: Tier, tweaks?: Tweak[], at = settings.length, base = from ? from.name : `New ${one}`) => {
    const name = nameFor(
      base,
      settings.map((each) => each.name),
    );
    const id = idFor(name, takenIds(project));
    const made: Tier = { ...(from ? structuredClone(from) : {}), id, name, tweaks: tweaks ?? structuredClone(from?.tweaks ?? []) };
    change(`New ${one}: ${name}`, (next) => [...next.slice(0, at), made, ...next.slice(at)]);
    setSelected(id);
  };
  const edit = (id: string, name: string, how: (tier: Tier) => Tier, mark?: string) =>
    change(name, (next) => next.map((each) => (each.id === id ? how(each) : each)), mark);
  const remove = (id: string) => {
    const document = without(project, { kind: KINDS[list], id });
    dispatch(changed({ document, name: `${settings.find((each) => each.id === id)?.name} removed` }));
  };
  const index = settings.indexOf(setting);
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <aside aria-label={many} className="flex min-h-0 flex-col border-r bg-well">
        <div className="flex px-4 pb-2 pt-3" role="tablist" aria-label="What is set">
          {SETTING_LISTS.map((each) => (
            <button
              key={each}
              type="button"
              role="tab"
              aria-selected={each === list}
              aria-current={each === list ? 'page' : undefined}
              className="switch"
              onClick={() => void navigate({ pathname: `/projects/${project.id}/difficulty/${each}`, search })}
            >
              {WORDS[each].many}
            </button>
          ))}
        </div>
        <ul className="scroll min-h-0 border-t">
          {settings.map((each, i) => (
            <li
              key={each.id}
              className={`flex h-11 items-center border-b border-hair pr-1 ${each === setting ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
            >
              <button
                type="button"
                aria-current={each === setting ? 'true' : undefined}
                className="flex min-w-0 flex-1 items-center gap-2 pl-4 text-left"
                onClick={() => setSelected(each.id)}
              >
                {list === 'tiers' && <span className="tier">{i + 1}</span>}
                <span className="min-w-0">
                  <span className={`block truncate leading-4 ${each === setting ? 'font-semibold' : ''}`} title={each.name}>
                    {each.name}
                  </span>
                  <span className="block text-label text-ink-3">
                    {each.tweaks.length === 1 ? '1 tweak' : `${each.tweaks.length} tweaks`}
                  </span>
                </span>
              </button>
              {each === setting && (
                <ListButtons
                  what={each.name}
                  index={i}
                  count={settings.length}
                  onMove={(by) => change(`${each.name} ${by < 0 ? 'earlier' : 'later'}`, (next) => moved(next, i, by))}
                  onRemove={() => remove(each.id)}
                />
              )}
            </li>
          ))}
        </ul>
        {setting && (
          <div className="flex flex-col gap-1.5 border-t px-4 py-2" role="group" aria-label={setting.name}>
            <TextField
              label="Name"
              value={setting.name}
              limit={80}
              onCommit={(name) => {
                const text = name.trim();
                if (text && !settings.some((each) => each.id !== setting.id && each.name === text))
                  edit(setting.id, `${setting.name} is called ${text}`, (tier) => ({ ...tier, name: text }));
              }}
            />
            <TextField
              label="Notes"
              value={setting.notes ?? ''}
              limit={2000}
              onCommit={(notes) =>
                edit(setting.id, `${setting.name}: notes`, ({ notes: _, ...tier }) =>
                  notes.trim() ? { ...tier, notes: notes.trim() } : tier,
                )
              }
            />
            <YesNo
              label="Only the largest factor counts"
              value={setting.largestOnly ?? false}
              onChange={(yes) =>
                edit(
                  setting.id,
                  `${setting.name}: ${yes ? 'only the largest factor counts' : 'factors compound'}`,
                  ({ largestOnly: _, ...tier }) => (yes ? { ...tier, largestOnly: true } : tier),
                )
              }
            />
          </div>
        )}
        <span className="flex-1" />
        <div className="flex flex-wrap gap-1.5 px-4 pb-3 pt-2">
          <button type="button" className="btn" onClick={() => add()}>
            New {one}
          </button>
          {setting && (
            <button type="button" className="btn" onClick={() => add(setting, undefined, index + 1)}>
              Copy
            </button>
          )}
          {setting && settings[index + 1] && (
            <button
              type="button"
              className="btn"
              title={`a ${one} half-way between ${setting.name} and ${settings[index + 1].name}`}
              onClick={() =>
                add(undefined, between(setting, settings[index + 1], 0.5), index + 1, `${setting.name} to ${settings[index + 1].name}`)
              }
            >
              Half-way to the next
            </button>
          )}
        </div>
      </aside>
      <main className="scroll flex min-h-0 min-w-0 flex-col">
        <header className="flex items-center gap-3 px-4 pb-2 pt-2.5">
          <h1 className="text-page">Difficulty</h1>
          <span className="note min-w-0 flex-1 truncate">
            {many.toLowerCase()}: {about}
          </span>
          <WarningsButton project={project} lens={lens} open={own.open} accepted={own.accepted} apply={(made) => dispatch(changed(made))} />
          <AddRow
            project={project}
            partyOnly={list !== 'tiers'}
            onAdd={(next) => {
              setAdded([...added, next]);
              setPlace(next);
            }}
          />
        </header>
        {settings.length ? (
          <SettingTable
            project={project}
            list={list}
            settings={settings}
            places={places}
            selected={setting?.id}
            place={place}
            onPlace={setPlace}
            onSelect={setSelected}
            lensTier={view.tier}
            warnings={own.open}
            onTweaks={(id, name, tweaks, mark) => edit(id, name, (tier) => ({ ...tier, tweaks }), mark)}
          />
        ) : (
          <p className="px-4 py-6 text-ink-2">
            No {one} yet. A {one} is a list of changes to numbers, {about}. Make one, then say what it changes.
          </p>
        )}
      </main>
      <EffectivePanel project={project} list={list} settings={settings} place={place ?? places[0]} />
    </div>
  );
}

function takenIds(project: Project): string[] {
  return [
    ...project.units,
    ...project.variants,
    ...project.arenas,
    ...project.encounters,
    ...project.tiers,
    ...project.skills,
    ...project.styles,
  ].map(({ id }) => id);
}

/** Chooses whose number a new row is of. */
function AddRow({ project, partyOnly, onAdd }: { project: Project; partyOnly: boolean; onAdd: (place: TweakPlace) => void }) {
  const offers = useMemo(() => {
    const sides = new Map([...project.units.map(({ id, side }) => [id, side] as const)]);
    return whoseOffers(project).filter(
      ({ id }) => !partyOnly || id === 'party' || (id.startsWith('unit ') && sides.get(id.slice(5)) === 'party'),
    );
  }, [project, partyOnly]);
  const [whose, setWhose] = useState(offers[0]?.id ?? 'enemies');
  const numbers = useMemo(() => numberOffers(project, whose), [project, whose]);
  return (
    <Popover
      label="Another number"
      width={300}
      align="end"
      trigger={
        <button type="button" className="btn">
          Change another number …
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-col gap-2">
          <Choose label="Whose" value={whose} options={offers} onChoose={setWhose} />
          <Choose
            label="Number"
            value={undefined}
            options={numbers}
            onChoose={(path) => {
              onAdd({ ...scopeOf(whose), path });
              close();
            }}
          />
        </div>
      )}
    </Popover>
  );
}
