import { Encounter, type Project, type Tweak, Unit, pointerSteps, quantityAt, shown, placeName } from '@insidia/core';
import { useMemo } from 'react';
import { Choose } from './Choose';
import { ListButtons, moved } from './Mini';
import { TweakLimits } from './TweakLimits';
import { TweakValue } from './TweakValue';
import { changeOf, placeOffers, scopeOf, whoseOf, whoseOffers } from './tweakPlaces';

interface Props {
  label: string;
  project: Project;
  tweaks: readonly Tweak[];
  /** The one encounter they are for, where there is one. */
  encounter?: Encounter;
  onChange: (tweaks: Tweak[], mark?: string) => void;
}

/** Changes to numbers, each saying whose: whose number, which, how, how much, and the limits on what comes of it. */
export function ScopedTweaks({ label, project, tweaks, encounter, onChange }: Props) {
  const whose = useMemo(() => whoseOffers(project), [project]);
  const set = (index: number, more: Partial<Tweak>, mark?: string) =>
    onChange(
      tweaks.map((one, i) => (i === index ? clean({ ...one, ...more }) : one)),
      mark,
    );
  return (
    <div role="group" aria-label={label} className="min-w-0">
      {tweaks.map((tweak, i) => (
        <Row
          key={i}
          label={`${label} ${i + 1}`}
          project={project}
          encounter={encounter}
          tweak={tweak}
          whose={whose}
          set={(more, mark) => set(i, more, mark)}
          buttons={
            <ListButtons
              what={`tweak ${i + 1}`}
              index={i}
              count={tweaks.length}
              onMove={(by) => onChange(moved(tweaks, i, by))}
              onRemove={() => onChange(tweaks.filter((_, j) => j !== i))}
            />
          }
        />
      ))}
      <button
        type="button"
        className="link"
        onClick={() => onChange([...tweaks, { scope: 'enemies', path: '/health/max', op: '×', value: 1.25 }])}
      >
        add a tweak
      </button>
    </div>
  );
}

/** A tweak without what is not set; a word has no limits. */
function clean(tweak: Tweak): Tweak {
  for (const key of ['of', 'min', 'max', 'round'] as const)
    if (tweak[key] === undefined || (key !== 'of' && typeof tweak.value !== 'number')) delete tweak[key];
  return tweak;
}

interface RowProps extends Pick<Props, 'label' | 'project' | 'encounter'> {
  tweak: Tweak;
  whose: { id: string; name: string }[];
  set: (more: Partial<Tweak>, mark?: string) => void;
  buttons: React.ReactNode;
}

function Row({ label, project, encounter, tweak, whose, set, buttons }: RowProps) {
  const own = whoseOf(tweak);
  const root = tweak.scope === 'encounter' ? Encounter : Unit;
  const numbers = useMemo(() => placeOffers(project, own, encounter), [project, own, encounter]);
  const info = quantityAt(root, pointerSteps(tweak.path));
  const limits = [
    tweak.min !== undefined && `≥ ${shown(tweak.min)}`,
    tweak.max !== undefined && `≤ ${shown(tweak.max)}`,
    tweak.round !== undefined && `to ${shown(tweak.round)}`,
  ].filter(Boolean);
  return (
    <div className="mb-1 flex items-end gap-1.5">
      <div className="w-[118px] shrink-0">
        <Choose
          quiet
          label={`${label}: whose`}
          value={own}
          options={whose.some(({ id }) => id === own) ? whose : [{ id: own, name: own }, ...whose]}
          onChoose={(id) => {
            const scope = scopeOf(id);
            const there = placeOffers(project, id, encounter);
            const path = there.some((offer) => offer.id === tweak.path) ? tweak.path : (there[0]?.id ?? tweak.path);
            set({ of: undefined, ...scope, ...changeOf(scope.scope === 'encounter' ? Encounter : Unit, path, tweak) });
          }}
        />
      </div>
      <div className="min-w-[120px] flex-1">
        <Choose
          quiet
          label={`${label}: number`}
          value={tweak.path}
          options={
            numbers.some(({ id }) => id === tweak.path) ? numbers : [{ id: tweak.path, name: placeName(tweak.path, root) }, ...numbers]
          }
          onChoose={(path) => set(changeOf(root, path, tweak))}
        />
      </div>
      <TweakValue label={label} root={root} tweak={tweak} width={74} onChange={set} />
      {info && (
        <TweakLimits
          label={`${label}: limits`}
          tweak={tweak}
          unit={info.unit}
          align="end"
          trigger={
            <button type="button" className="link whitespace-nowrap text-label">
              {limits.length ? limits.join(', ') : 'limits …'}
            </button>
          }
          onChange={(key, value) => set({ [key]: value })}
        />
      )}
      {buttons}
    </div>
  );
}
