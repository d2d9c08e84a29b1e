import {
  type Project,
  type SettingList,
  type Setting,
  type Tier,
  type Tweak,
  type TweakPlace,
  between,
  idFor,
  nameFor,
  placesOfTweaks,
  sameJson,
  samePlace,
  takenIds,
  without,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { Popover } from '../../fields/Popover';
import { GivenTraits } from '../../fields/TraitFields';
import { WarningsButton } from '../../fields/WarningList';
import { YesNo } from '../../fields/YesNo';
import { placeOffers, scopeOf, whoseOffers } from '../../fields/tweakPlaces';
import { NewNamed } from '../../parts/NewNamed';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useWarnings } from '../../warnings/useWarnings';
import { EffectivePanel } from './EffectivePanel';
import { NameAndNotes } from './NameAndNotes';
import { NamedList, WORDS, listBy } from './NamedList';
import { SettingTable } from './SettingTable';
import { TraitsPage } from './TraitsPage';

const KINDS = { tiers: 'tier', skills: 'skill', styles: 'style' } as const;

/** Tiers, skills and styles as tables of what they change, and what comes of it. */
export function DifficultyPage() {
  const project = useAppSelector((state) => state.document.document);
  const { list } = useParams();
  const chosen = listBy(list);
  if (!project) return null;
  return chosen === 'traits' ? <TraitsPage project={project} /> : <Difficulty key={chosen} project={project} list={chosen} />;
}

function Difficulty({ project, list }: { project: Project; list: SettingList }) {
  const dispatch = useAppDispatch();
  const [view] = useView(project);
  const settings: Setting[] = project[list];
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
  const change = (name: string, how: (next: Setting[]) => Setting[], mark?: string) =>
    dispatch(changed({ document: { ...project, [list]: how(settings) }, name, mark }));
  const freeName = (name: string) =>
    nameFor(
      name,
      settings.map((each) => each.name),
    );
  const add = (from?: Setting, tweaks?: Tweak[], at = settings.length, base = from ? from.name : `New ${one}`) => {
    const name = freeName(base);
    const id = idFor(name, takenIds(project));
    const plain: Setting = { id, name, tweaks: [], ...(list === 'tiers' && { traits: [] }) };
    const made: Setting = { ...plain, ...(from && structuredClone(from)), id, name, tweaks: tweaks ?? structuredClone(from?.tweaks ?? []) };
    change(`New ${one}: ${name}`, (next) => [...next.slice(0, at), made, ...next.slice(at)]);
    setSelected(id);
  };
  const edit = (id: string, name: string, how: (tier: Setting) => Setting, mark?: string) =>
    change(name, (next) => next.map((each) => (each.id === id ? how(each) : each)), mark);
  const remove = (id: string) => {
    const document = without(project, { kind: KINDS[list], id });
    dispatch(changed({ document, name: `${settings.find((each) => each.id === id)?.name} removed` }));
  };
  const index = settings.indexOf(setting);
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <NamedList
        project={project}
        list={list}
        items={settings}
        selected={setting}
        onSelect={setSelected}
        onOrder={(items, name) => change(name, () => items)}
        onRemove={({ id }) => remove(id)}
        form={
          setting && (
            <>
              <NameAndNotes
                of={setting}
                others={settings}
                onChange={(name, next) => edit(setting.id, name, (tier) => ({ ...tier, ...next }))}
                onNoNotes={(name) => edit(setting.id, name, ({ notes: _, ...tier }) => tier)}
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
              {isTier(setting) && (
                <GivenTraits
                  label="Comes with"
                  project={project}
                  value={setting.traits}
                  onChange={(traits) => edit(setting.id, `${setting.name}: traits`, (tier) => ({ ...tier, traits }))}
                />
              )}
            </>
          )
        }
        buttons={
          <>
            <NewNamed
              label={`New ${one}`}
              suggested={freeName(`New ${one}`)}
              onName={(name) => add(undefined, undefined, settings.length, name)}
            />
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
                  add(
                    {
                      id: '',
                      name: '',
                      tweaks: [],
                      ...(isTier(setting) && { traits: sharedTraits(setting, settings[index + 1] as Tier) }),
                    } as Setting,
                    between(setting, settings[index + 1], 0.5),
                    index + 1,
                    `${setting.name} to ${settings[index + 1].name}`,
                  )
                }
              >
                Half-way to the next
              </button>
            )}
          </>
        }
      />
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

const isTier = (setting: Setting): setting is Tier => 'traits' in setting;

/** What two tiers both give: so does one between them. */
const sharedTraits = (first: Tier, second: Tier) => first.traits.filter((given) => second.traits.some((one) => sameJson(one, given)));

/** Chooses whose number a new row is of. */
function AddRow({ project, partyOnly, onAdd }: { project: Project; partyOnly: boolean; onAdd: (place: TweakPlace) => void }) {
  const offers = useMemo(() => {
    const sides = new Map([...project.units.map(({ id, side }) => [id, side] as const)]);
    return whoseOffers(project).filter(
      ({ id }) => !partyOnly || id === 'party' || (id.startsWith('unit ') && sides.get(id.slice(5)) === 'party'),
    );
  }, [project, partyOnly]);
  const [whose, setWhose] = useState(offers[0]?.id ?? 'enemies');
  const numbers = useMemo(() => placeOffers(project, whose), [project, whose]);
  return (
    <Popover
      label="Something else"
      width={300}
      align="end"
      trigger={
        <button type="button" className="btn">
          Change something else …
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-col gap-2">
          <Choose label="Whose" value={whose} options={offers} onChoose={setWhose} />
          <Choose
            label="What"
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
