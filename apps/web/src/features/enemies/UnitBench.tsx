import { type Project, effectiveUnit } from '@insidia/core';
import { type ComponentProps, useMemo, useState } from 'react';
import type { View } from '../../app/view';
import { UnitNumber } from '../../fields/UnitNumber';
import { useUnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { Glyph } from '../../visuals/Glyph';
import { ReachStrip } from '../../visuals/ReachStrip';
import { AttackSection } from './AttackSection';
import { ChoiceSection } from './ChoiceSection';
import { StatesSection } from './StatesSection';

interface Props {
  project: Project;
  unitId: string;
  otherId?: string;
  attackId?: string;
  view: View;
  onView: (change: Partial<Record<keyof View, string | undefined>>) => void;
  onAttack: (id: string) => void;
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

const MORE = [
  '/health/regenDelay',
  '/health/regenUpTo',
  '/armour/minimumDamage',
  '/body/muzzleHeight',
  '/movement/acceleration',
  '/senses/sight',
  '/senses/angle',
  '/senses/lose',
  '/senses/memory',
  '/senses/interval',
  '/senses/reaction/spread',
  '/invulnerability/duration',
  '/targeting/reconsider',
  '/targeting/commitment',
  '/choice/pause/min',
  '/choice/pause/max',
];
/** Groups that a unit may be without: shown where it has them. */
const SHIELD = ['/shield/max', '/shield/regen', '/shield/regenDelay'];
const ENERGY = ['/energy/max', '/energy/start', '/energy/regen'];
const LABELS: Record<string, string> = { '/choice/pause/min': 'Pause from', '/choice/pause/max': 'Pause to' };

/** Where a unit is defined: what it is, how far it reaches, when it strikes, what it does. */
export function UnitBench({ project, unitId, otherId, attackId, view, onView, onAttack }: Props) {
  const editor = useUnitEditor(project, unitId, view);
  const [more, setMore] = useState(false);
  const other = useMemo(
    () => (otherId ? effectiveUnit(project, otherId, { tier: view.tier, skill: view.skill }).unit : undefined),
    [project, otherId, view.tier, view.skill],
  );
  const { unit } = editor;
  const radii = unit.body.radius + (other?.body.radius ?? 0);
  return (
    <main className="scroll flex min-h-0 min-w-0 flex-col">
      <div className="px-4 pt-2">
        <div className="flex items-center gap-2.5">
          <Glyph unit={unit} size={26} />
          <h1 className="min-w-0 truncate text-page tracking-tight" title={unit.name}>
            {unit.name}
          </h1>
          {unit.role && <span className="shrink-0 rounded-[2px] border px-1.5 text-label leading-4 text-ink-2">{unit.role}</span>}
          <span className="min-w-0 flex-1 truncate text-ink-2" title={unit.notes}>
            {unit.notes}
          </span>
        </div>
        <div className="mt-1 flex h-5 items-center gap-2.5">
          <EditSwitch project={project} view={view} onView={onView} />
          <span className="flex-1" />
          <button type="button" className="text-table underline decoration-rule" aria-expanded={more} onClick={() => setMore(!more)}>
            {more ? 'fewer fields' : 'all fields'}
          </button>
        </div>
        <div className="mt-1 flex gap-1.5">
          {FIRST.map(([path, width]) => (
            <div key={path} className={width ? 'shrink-0' : 'min-w-0 flex-1'}>
              <UnitNumber editor={editor} path={path} width={width || undefined} />
            </div>
          ))}
        </div>
        {more && (
          <div className="mb-1 grid grid-cols-8 gap-x-2">
            {[...MORE, ...(unit.shield ? SHIELD : []), ...(unit.energy ? ENERGY : [])].map((path) => (
              <UnitNumber key={path} editor={editor} path={path} label={LABELS[path]} />
            ))}
          </div>
        )}
      </div>
      <section className="mt-1 border-t px-4 pt-1.5" aria-label="Reach">
        <div className="section-head">
          <h3>Reach</h3>
          <span className="note">metres between edges of bodies; sight and lose count from centre to centre; drag an edge</span>
        </div>
        <ReachOfDuel
          unit={unit}
          radii={radii}
          selected={attackId}
          onDrag={(path, value, mark) => editor.writeEffective(path, value, mark)}
          onSelect={onAttack}
        />
      </section>
      {attackId ? (
        <AttackSection editor={editor} attackId={attackId} other={other} onAttack={onAttack} />
      ) : (
        <p className="border-t px-4 py-3 text-ink-2">{unit.name} has no attack: it can only be in the way.</p>
      )}
      <section className="mt-1 grid flex-1 grid-cols-[minmax(0,372px)_minmax(0,1fr)] border-t">
        <StatesSection editor={editor} />
        <ChoiceSection editor={editor} />
      </section>
    </main>
  );
}

/** The reach strip with the time the last duels spent at each distance; only this repaints when they are done. */
function ReachOfDuel(props: Omit<ComponentProps<typeof ReachStrip>, 'timeAtGap'>) {
  const timeAtGap = useAppSelector((state) => state.readout.answer?.now.timeAtGap);
  return <ReachStrip {...props} timeAtGap={props.unit.side === 'enemy' ? timeAtGap : undefined} />;
}

/** What typing changes: the base, or the tier of the lens. */
function EditSwitch({ project, view, onView }: Pick<Props, 'project' | 'view' | 'onView'>) {
  const tier = project.tiers.find(({ id }) => id === view.tier);
  const number = project.tiers.findIndex(({ id }) => id === view.tier) + 1;
  if (!tier) return <span className="note">what you type changes the base; choose a tier above to see and edit through it</span>;
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
          : `what you type becomes ${tier.name}’s own value for this unit; the base stays`}
      </span>
    </>
  );
}
