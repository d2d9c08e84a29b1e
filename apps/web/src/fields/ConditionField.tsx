import type { Condition, Encounter, Project, Unit } from '@insidia/core';
import { laterWithin } from '../parts/later';
import { useClockInView } from './clock';
import { sentence } from './conditions';
import { Popover } from './Popover';

const ConditionParts = laterWithin(async () => (await import('./ConditionParts')).ConditionParts, 140);

interface Props {
  /** What the condition is for, read out: "Close in leaves for Keep band when". */
  label: string;
  condition: Condition | undefined;
  /** Who asks it: a unit; or the encounter, which can ask only what speaks of the whole. */
  unit?: Unit;
  encounter?: Encounter;
  project: Project;
  /** Undefined takes it away, where it may be absent. */
  onChange: (condition: Condition | undefined) => void;
  /** Shown where there is none: "always". */
  none?: string;
  /** It can't be taken away. */
  needed?: boolean;
}

/** A condition as a sentence; a click opens its builder. */
export function ConditionField({ label, condition, unit, encounter, project, onChange, none = 'always', needed }: Props) {
  const inView = useClockInView();
  const asker = { unit, encounter, project };
  const words = condition ? sentence(condition, asker, encounter?.clock ?? inView) : none;
  return (
    <Popover
      width={430}
      label={label}
      trigger={
        <button type="button" className="link min-w-0 !whitespace-normal text-left" aria-label={`${label}: ${words}`}>
          {words}
        </button>
      }
    >
      {(close) => (
        <ConditionParts label={label} words={words} condition={condition} asker={asker} needed={needed} onChange={onChange} close={close} />
      )}
    </Popover>
  );
}
