import {
  Encounter,
  type Project,
  type SettingList,
  type Setting,
  type Tweak,
  type TweakPlace,
  Unit,
  type Warning,
  pointerSteps,
  quantityAt,
  samePlace,
  shown,
  placeName,
  tweakWords,
} from '@insidia/core';
import { Mini } from '../../fields/Mini';
import { TweakLimits } from '../../fields/TweakLimits';
import { TweakValue } from '../../fields/TweakValue';
import { changeOf, whoseOf, whoseOffers } from '../../fields/tweakPlaces';
import { WarnMark } from '../../visuals/WarnMark';
import { guarded } from '../../parts/guarded';

interface Props {
  project: Project;
  list: SettingList;
  settings: readonly Setting[];
  places: readonly TweakPlace[];
  selected: string | undefined;
  place: TweakPlace | undefined;
  lensTier?: string;
  warnings: readonly Warning[];
  onPlace: (place: TweakPlace) => void;
  onSelect: (id: string) => void;
  onTweaks: (id: string, name: string, tweaks: Tweak[], mark?: string) => void;
}

/** Numbers by settings: each cell what that setting does to that number, to be typed over. */
export const SettingTable = guarded(
  'The table of settings',
  function SettingTable({ project, list, settings, places, selected, place, lensTier, warnings, onPlace, onSelect, onTweaks }: Props) {
    const whose = new Map(whoseOffers(project).map(({ id, name }) => [id, name]));
    const rootOf = ({ scope }: TweakPlace) => (scope === 'encounter' ? Encounter : Unit);
    let lastWhose = '';
    return (
      <table className="mx-4 border-b text-table" aria-label="What is changed">
        <thead>
          <tr className="border-y text-left">
            <th className="w-[220px] px-1 font-normal text-ink-3">what</th>
            {settings.map(({ id, name }, i) => (
              <th
                key={id}
                className={`border-l border-hair px-1.5 py-1 ${id === selected || id === lensTier ? 'font-semibold' : 'font-normal'}`}
              >
                <button type="button" className="flex items-center gap-1.5" onClick={() => onSelect(id)}>
                  {list === 'tiers' && <span className="tier">{i + 1}</span>}
                  <span className="max-w-[110px] truncate">{name}</span>
                  {warnings.some(({ path }) => path === `/${list}/${id}`) && (
                    <WarnMark
                      label={warnings
                        .filter(({ path }) => path === `/${list}/${id}`)
                        .map(({ message }) => message)
                        .join('; ')}
                    />
                  )}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {places.map((row) => {
            const owner = whoseOf(row);
            const head = owner !== lastWhose;
            lastWhose = owner;
            const on = place !== undefined && samePlace(place, row);
            const label = placeName(row.path, rootOf(row));
            return (
              <tr
                key={`${owner} ${row.path}`}
                className={`${head ? 'border-t border-rule' : 'border-t border-hair'} ${on ? 'bg-sheet' : ''}`}
                onFocus={() => onPlace(row)}
                onClick={() => onPlace(row)}
              >
                <th scope="row" className="px-1 py-1 text-left align-top font-normal">
                  {head && <span className="block text-label text-ink-3">{whose.get(owner) ?? owner}</span>}
                  <button type="button" className={`text-left ${on ? 'font-semibold' : ''}`} aria-pressed={on} onClick={() => onPlace(row)}>
                    {label}
                  </button>
                </th>
                {settings.map((setting) => (
                  <Cell
                    key={setting.id}
                    label={`${whose.get(owner) ?? owner} ${label} at ${setting.name}`}
                    list={list}
                    setting={setting}
                    row={row}
                    unit={quantityAt(rootOf(row), pointerSteps(row.path))?.unit ?? ''}
                    warnings={warnings}
                    onTweaks={(what, tweaks, mark) => onTweaks(setting.id, `${setting.name}: ${label.toLowerCase()} ${what}`, tweaks, mark)}
                  />
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    );
  },
);

interface CellProps {
  label: string;
  list: SettingList;
  setting: Setting;
  row: TweakPlace;
  unit: string;
  warnings: readonly Warning[];
  onTweaks: (what: string, tweaks: Tweak[], mark?: string) => void;
}

function Cell({ label, list, setting, row, unit, warnings, onTweaks }: CellProps) {
  const root = row.scope === 'encounter' ? Encounter : Unit;
  const own = setting.tweaks.map((tweak, index) => ({ tweak, index })).filter(({ tweak }) => samePlace(tweak, row));
  const replace = (index: number, more: Partial<Tweak>) =>
    setting.tweaks.map((tweak, i) => {
      if (i !== index) return tweak;
      const next: Tweak = { ...tweak, ...more };
      for (const key of ['min', 'max', 'round'] as const) if (next[key] === undefined) delete next[key];
      return next;
    });
  const add = () => {
    const first: Tweak = { ...row, ...changeOf(root, row.path) };
    onTweaks(tweakWords(root, first).slice(placeName(row.path, root).length + 1), [...setting.tweaks, first]);
  };
  return (
    <td className="border-l border-hair px-1 py-0.5 align-bottom">
      {own.map(({ tweak, index }, n) => {
        const found = warnings.filter(({ path }) => path === `/${list}/${setting.id}/tweaks/${index}`);
        const name = n ? `${label}, again` : label;
        const limit = tweak.max !== undefined ? `≤ ${shown(tweak.max)}` : tweak.min !== undefined ? `≥ ${shown(tweak.min)}` : '';
        return (
          <div key={index} className="flex items-center gap-0.5">
            <TweakValue
              plain
              label={name}
              root={root}
              tweak={tweak}
              width={62}
              warning={found.map(({ message }) => message).join('; ') || undefined}
              onChange={(more, mark) =>
                onTweaks(tweakWords(root, { ...tweak, ...more }).slice(placeName(tweak.path, root).length + 1), replace(index, more), mark)
              }
              onClear={() =>
                onTweaks(
                  'left alone',
                  setting.tweaks.filter((_, i) => i !== index),
                )
              }
            />
            {typeof tweak.value === 'number' && (
              <TweakLimits
                label={`${name}: limits`}
                tweak={tweak}
                unit={unit}
                trigger={
                  <button
                    type="button"
                    className="text-label text-ink-3 hover:text-ink"
                    aria-label={`${name}: limits${limit && ` ${limit}`}`}
                  >
                    {limit || '…'}
                  </button>
                }
                onChange={(key, value) =>
                  onTweaks(value === undefined ? 'no limit' : `limit ${shown(value)}`, replace(index, { [key]: value }))
                }
              />
            )}
          </div>
        );
      })}
      {!own.length && <Mini sign="add" label={`Change ${label}`} onClick={() => add()} />}
    </td>
  );
}
