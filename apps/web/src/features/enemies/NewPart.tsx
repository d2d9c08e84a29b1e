import type { ComponentType, ReactElement } from 'react';
import { Popover } from '../../fields/Popover';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { laterWithin } from '../../parts/later';

export interface NewPartProps {
  editor: UnitEditor;
  /** It is there. */
  onMade: (id: string) => void;
}

/** A button that opens a sheet which makes a part of a unit; what the part may begin as is fetched apart from the first view. */
const sheetOf = (label: string, width: number, align: 'start' | 'end', Form: ComponentType<NewPartProps & { close: () => void }>) =>
  function NewPart({ trigger, ...props }: NewPartProps & { trigger?: ReactElement }) {
    return (
      <Popover
        label={label}
        width={width}
        align={align}
        trigger={
          trigger ?? (
            <button type="button" className="mini" aria-label={label} title={label}>
              +
            </button>
          )
        }
      >
        {(close) => <Form {...props} close={close} />}
      </Popover>
    );
  };

const NewAttackForm = laterWithin(async () => (await import('./NewAttackForm')).NewAttackForm, 420);
const NewStateForm = laterWithin(async () => (await import('./NewStateForm')).NewStateForm, 420);

export const NewAttack = sheetOf('New attack', 560, 'start', NewAttackForm);
export const NewState = sheetOf('New state', 460, 'end', NewStateForm);
