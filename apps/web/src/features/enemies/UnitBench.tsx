import { type Clock, type Project, type Unit, type Warning, effectiveUnit, numberWords } from '@insidia/core';
import { type ComponentProps, useMemo } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import { useKept } from '../../app/kept';
import type { View } from '../../app/view';
import { ClockInView } from '../../fields/clock';
import { Popover } from '../../fields/Popover';
import { TextField } from '../../fields/TextField';
import { FieldNumber } from '../../fields/FieldNumber';
import { WarningsButton } from '../../fields/WarningList';
import { nameOfPlace } from '../../fields/edits';
import { type UnitEditor, useUnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { laterWithin } from '../../parts/later';
import type { Warnings } from '../../warnings/warnings';
import { Glyph } from '../../visuals/Glyph';
import { ReachStrip } from '../../visuals/ReachStrip';
import { useWidth } from '../../visuals/useWidth';
import { AttackSection } from './AttackSection';
import { ChoiceSection } from './ChoiceSection';
import { PastePart } from './Clipboard';
import { StatesSection } from './StatesSection';
import { UnitMenu } from './UnitMenu';

const BodyParts = laterWithin(async () => (await import('./BodyParts')).BodyParts);
const ReachInCells = laterWithin(async () => (await import('../../visuals/ReachInCells')).ReachInCells, 120);
const PlanView = laterWithin(async () => (await import('../../visuals/PlanView')).PlanView);
const SkillParts = laterWithin(async () => (await import('./SkillParts')).SkillParts);

interface Props {
  project: Project;
  /** What the duel beside it goes by: only what means something there is shown at once. */
  clock: Clock;
  unitId: string;
  otherId?: string;
  attackId?: string;
  view: View;
  warnings: Warnings;
  onView: (change: Partial<Record<keyof View, string | undefined>>) => void;
  onAttack: (id: string | undefined) => void;
  onUnit: (id: string | undefined) => void;
}

const FIRST = [
  ['/health/max', 96],
  ['/health/regen', 58],
  ['/armour/flat', 50],
  ['/body/radius', 52],
  ['/body/height', 48],
  ['/body/eyeHeight', 48],
  ['/movement/walk', 58],
  ['/movement/run', 94],
  ['/movement/turnRate', 60],
  ['/senses/reaction/mean', 0],
] as const;

/** The same where its duel takes turns. */
const FIRST_IN_TURNS = [
  ['/health/max', 96],
  ['/armour/flat', 50],
  ['/rounds/order', 62],
  ['/rounds/actions', 62],
  ['/rounds/moves', 88],
  ['/rounds/size', 88],
  ['/rounds/regen', 0],
] as const;

/** Where a unit is defined: what it is, how far it reaches, when it strikes, what it does. */
export function UnitBench({ project, clock, unitId, otherId, attackId, view, warnings, onView, onAttack, onUnit }: Props) {
  const own = useMemo(() => ofUnit(warnings.open, unitId), [warnings.open, unitId]);
  const editor = useUnitEditor(project, unitId, view, own);
  const [more, setMore] = useKept('fields of the unit', false);
  const askedState = useSearchParams()[0].get('state');
  const other = useMemo(
    () => (otherId ? effectiveUnit(project, otherId, { tier: view.tier, skill: view.skill }).unit : undefined),
    [project, otherId, view.tier, view.skill],
  );
  const { unit } = editor;
  const turns = clock === 'rounds' && unit.rounds !== undefined;
  return (
    <ClockInView.Provider value={turns ? 'rounds' : 'continuous'}>
      <main className="scroll flex min-h-0 min-w-0 flex-col" aria-label={unit.name}>
        <div className="px-4 pt-2">
          <Heading editor={editor} warnings={warnings} own={own} onUnit={onUnit} />
          <div className="mt-1 flex h-5 items-center gap-2.5">
            <EditSwitch project={project} view={view} onView={onView} />
            <span className="flex-1" />
            <PastePart kind="senses" editor={editor} />
            <button type="button" className="link" aria-expanded={more} onClick={() => setMore(!more)}>
              {more ? 'fewer fields' : 'all fields'}
            </button>
          </div>
          <div className="mt-1 flex flex-wrap gap-1.5">
            {(turns ? FIRST_IN_TURNS : FIRST).map(([path, width]) => (
              <div key={path} className={width ? 'shrink-0' : 'min-w-[64px] flex-1'}>
                <FieldNumber editor={editor} path={path} width={width || undefined} />
              </div>
            ))}
          </div>
          {more && <BodyParts editor={editor} />}
        </div>
        {turns ? (
          <ReachInTurns editor={editor} attackId={attackId} onAttack={onAttack} />
        ) : (
          <ReachSection editor={editor} attackId={attackId} other={other} onAttack={onAttack} />
        )}
        <AttackSection editor={editor} turns={turns} attackId={attackId} other={other} onAttack={onAttack} />
        <section className="mt-1 grid flex-1 grid-cols-1 border-t min-[1180px]:grid-cols-[minmax(0,384px)_minmax(0,1fr)]">
          <StatesSection key={askedState} editor={editor} turns={turns} />
          <ChoiceSection editor={editor} />
        </section>
        {unit.side === 'party' && <SkillParts editor={editor} />}
      </main>
    </ClockInView.Provider>
  );
}

function ofUnit(warnings: readonly Warning[], id: string): Warning[] {
  return warnings.filter(({ path }) => path.startsWith(`/units/${id}/`));
}

function Heading({
  editor,
  warnings,
  own,
  onUnit,
}: {
  editor: UnitEditor;
  warnings: Warnings;
  own: readonly Warning[];
  onUnit: Props['onUnit'];
}) {
  const { unit, base, project, view } = editor;
  const { search } = useLocation();
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const accepted = useMemo(() => ofUnit(warnings.accepted, unit.id), [warnings.accepted, unit.id]);
  return (
    <div className="flex items-center gap-2.5">
      <Glyph unit={unit} size={26} />
      <h1 className="min-w-0 truncate text-page tracking-tight" title={unit.name}>
        {unit.name}
      </h1>
      {unit.role && <span className="shrink-0 rounded-[2px] border px-1.5 text-label leading-4 text-ink-2">{unit.role}</span>}
      <span className="min-w-0 flex-1 truncate text-ink-2" title={unit.notes}>
        <Lineage editor={editor} />
      </span>
      <WarningsButton project={project} lens={lens} open={own} accepted={accepted} apply={editor.apply} />
      <Popover
        label="Notes"
        align="end"
        width={360}
        trigger={
          <button type="button" className="btn">
            Notes
          </button>
        }
      >
        <TextField
          label={`Notes on ${base.name}`}
          lines={6}
          value={base.notes ?? ''}
          limit={8000}
          onCommit={(notes) => editor.set('/notes', notes.trim() || undefined, 'changed')}
        />
      </Popover>
      <Link className="btn" to={{ pathname: `/projects/${project.id}/history`, search }}>
        History
      </Link>
      <UnitMenu editor={editor} onUnit={onUnit} />
    </div>
  );
}

/** Where the unit comes from: an original, or what it follows and in what it differs. */
function Lineage({ editor }: { editor: UnitEditor }) {
  const { base, basedOn, own, project } = editor;
  const copies = project.variants.filter(({ basedOn: id }) => id === base.id);
  if (!basedOn)
    return (
      <>
        {base.notes ??
          (copies.length
            ? `an original; ${copies.length === 1 ? 'one variant follows' : `${copies.length} variants follow`} it`
            : 'an original')}
      </>
    );
  return (
    <Popover
      label={`In what ${base.name} differs from ${basedOn}`}
      width={380}
      trigger={
        <button type="button" className="link !text-body">
          follows {basedOn}; {own.length ? `${own.length} of its own` : 'nothing of its own yet'}
        </button>
      }
    >
      <ul className="text-table" aria-label="Its own">
        {own.map(({ path, base: theirs, own: mine }) => (
          <li key={path} className="flex items-baseline gap-2 border-t border-hair py-0.5 first:border-t-0">
            <span className="min-w-0 flex-1">{nameOfPlace(base, path).slice(base.name.length + 1)}</span>
            <span className="text-ink-2">
              {said(theirs)} → <b className="text-ink">{said(mine)}</b>
            </span>
            <button type="button" className="link" onClick={editor.reset(path)} aria-label={`Reset ${nameOfPlace(base, path)}`}>
              reset
            </button>
          </li>
        ))}
      </ul>
      {own.length > 1 && (
        <button
          type="button"
          className="btn mt-2"
          onClick={() => {
            const variant = project.variants.find(({ id }) => id === base.id)!;
            const document = {
              ...project,
              variants: project.variants.map((one) =>
                one === variant
                  ? {
                      id: one.id,
                      name: one.name,
                      basedOn: one.basedOn,
                      ...(one.notes !== undefined && { notes: one.notes }),
                      changes: [],
                      tweaks: [],
                    }
                  : one,
              ),
            };
            editor.apply({ document, name: `${base.name}: all as ${basedOn} has it` });
          }}
        >
          Reset all
        </button>
      )}
    </Popover>
  );
}

function said(value: unknown): string {
  if (value === undefined) return 'none';
  if (typeof value === 'number') return numberWords(value);
  if (typeof value === 'string') return value;
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : '…';
}

interface ReachProps {
  editor: UnitEditor;
  attackId?: string;
  other?: Unit;
  onAttack: Props['onAttack'];
}

/** The same in turns: cells. */
function ReachInTurns({ editor: { unit }, attackId, onAttack }: Omit<ReachProps, 'other'>) {
  return (
    <section className="mt-1 border-t px-4 pt-1.5" aria-label="Reach">
      <div className="section-head">
        <h3>Reach</h3>
        <span className="note min-w-0 flex-1 truncate">cells from one body to the other; beside one another is 1</span>
      </div>
      <div className="mt-1">
        <ReachInCells unit={unit} selected={attackId} onSelect={onAttack} />
      </div>
    </section>
  );
}

/** Everything that has a distance: on the ruler, or to scale from above and from the side. */
function ReachSection({ editor, attackId, other, onAttack }: ReachProps) {
  const [way, setWay] = useKept<'strip' | 'plan'>('reach as', 'strip');
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const { unit } = editor;
  const attack = unit.attacks.find(({ id }) => id === attackId);
  return (
    <section className="mt-1 border-t px-4 pt-1.5" aria-label="Reach">
      <div className="section-head">
        <h3>Reach</h3>
        <span className="note min-w-0 flex-1 truncate">
          {way === 'strip'
            ? 'metres between edges of bodies; sight, hearing and call count from centre to centre; drag an edge'
            : `${attack ? attack.name : unit.name} from above and from the side, to scale`}
        </span>
        <span role="radiogroup" aria-label="Reach as" className="flex">
          {(['strip', 'plan'] as const).map((each) => (
            <button key={each} type="button" role="radio" aria-checked={way === each} className="switch" onClick={() => setWay(each)}>
              {each}
            </button>
          ))}
        </span>
      </div>
      <div ref={ref} className="mt-1">
        {way === 'strip' ? (
          <ReachOfDuel
            unit={unit}
            radii={unit.body.radius + (other?.body.radius ?? 0)}
            selected={attackId}
            onDrag={(path, value, mark) => editor.writeEffective(path, value, mark)}
            onSelect={onAttack}
          />
        ) : (
          <PlanView unit={unit} attack={attack} other={other} width={width} />
        )}
      </div>
    </section>
  );
}

/** The reach strip with the time the last duels spent at each distance; only this repaints when they are done. */
function ReachOfDuel(props: Omit<ComponentProps<typeof ReachStrip>, 'timeAtGap'>) {
  // On a strip of metres a duel in turns has nothing to say.
  const timeAtGap = useAppSelector(({ readout: { duel } }) =>
    duel.answer?.now.summary.clock === 'continuous' ? duel.answer.now.timeAtGap : undefined,
  );
  return <ReachStrip {...props} timeAtGap={props.unit.side === 'enemy' ? timeAtGap : undefined} />;
}

/** What typing changes: the base, or the tier of the lens. */
function EditSwitch({ project, view, onView }: Pick<Props, 'project' | 'view' | 'onView'>) {
  const tier = project.tiers.find(({ id }) => id === view.tier);
  const number = project.tiers.findIndex(({ id }) => id === view.tier) + 1;
  if (!tier) return <span className="note truncate">what you type changes the base; choose a tier above to see and edit through it</span>;
  return (
    <>
      <span role="radiogroup" aria-label="What typing changes" className="inline-flex items-center text-table">
        <span className="pr-1.5 text-ink-3">edit:</span>
        <button
          type="button"
          role="radio"
          aria-checked={view.edit === 'base'}
          className="switch"
          onClick={() => onView({ edit: undefined })}
        >
          base
        </button>
        <button type="button" role="radio" aria-checked={view.edit === 'tier'} className="switch" onClick={() => onView({ edit: 'tier' })}>
          <span className="tier" aria-hidden>
            {number}
          </span>
          {tier.name}
        </button>
      </span>
      <span className="note truncate">
        {view.edit === 'base'
          ? `what you type changes the base; ${tier.name}’s factors stand below and apply on top`
          : `numbers you type become ${tier.name}’s own for this unit; the base stays`}
      </span>
    </>
  );
}
