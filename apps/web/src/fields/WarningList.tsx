import type { Lens, Project, Warning } from '@insidia/core';
import { laterWithin } from '../parts/later';
import { Popover } from './Popover';
import type { Edit } from './edits';
import { WarnMark } from '../visuals/WarnMark';

const WarningParts = laterWithin(async () => (await import('./WarningParts')).WarningParts, 120);

export interface WarningsProps {
  project: Project;
  lens: Lens;
  open: readonly Warning[];
  accepted: readonly Warning[];
  apply: (edit: Edit) => void;
  /** Short: the sign and the number alone. */
  short?: boolean;
  /** Says of each whose it is. */
  ownerOf?: (warning: Warning) => string;
}

/** How many warnings there are; a click lists them with what to do. */
export function WarningsButton(props: WarningsProps) {
  const { open, accepted, short } = props;
  if (!open.length && !accepted.length) return null;
  const worst = open.some(({ severity }) => severity === 'problem');
  return (
    <Popover
      label="Warnings"
      width={460}
      align="end"
      trigger={
        <button
          type="button"
          aria-label={short ? `${open.length} warnings in the project, ${accepted.length} accepted` : undefined}
          title={short ? 'all warnings of the project' : undefined}
          className={`flex shrink-0 items-center gap-1 text-table ${worst ? 'font-semibold text-warn' : 'text-ink-2'}`}
        >
          {open.length > 0 && <WarnMark label="" quiet={!worst} />}
          {short
            ? open.length
            : open.length
              ? `${open.length} ${open.length === 1 ? 'warning' : 'warnings'}`
              : `${accepted.length} accepted`}
        </button>
      }
    >
      <WarningParts {...props} />
    </Popover>
  );
}
