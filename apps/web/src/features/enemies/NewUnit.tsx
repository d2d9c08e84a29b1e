import type { Project, Unit } from '@insidia/core';
import type { ReactElement } from 'react';
import { Popover } from '../../fields/Popover';
import type { Edit } from '../../fields/edits';
import { laterWithin } from '../../parts/later';

// What units begin as, and what that comes to, is asked for when a sheet is opened.
const NewUnitForm = laterWithin(async () => (await import('./NewUnitForm')).NewUnitForm, 420);

export type OnUnit = (id: string | undefined) => void;

export interface NewUnitProps {
  project: Project;
  kind: 'new' | 'copy' | 'variant';
  /** What is copied or followed. */
  of?: Unit;
  side?: Unit['side'];
  apply: (edit: Edit) => void;
  onUnit: OnUnit;
}

const TITLES = { new: 'New', copy: 'Independent copy', variant: 'Linked variant' };

/** A new unit, begun as a pattern or empty; an independent copy; or a linked variant. Each asks for its name. */
export function NewUnit({ trigger, ...props }: NewUnitProps & { trigger?: ReactElement }) {
  const title = TITLES[props.kind];
  return (
    <Popover
      label={title}
      width={props.kind === 'new' ? 640 : 300}
      trigger={
        trigger ?? (
          <button type="button" className="btn">
            {title}
          </button>
        )
      }
    >
      {(close) => <NewUnitForm {...props} close={close} />}
    </Popover>
  );
}
