import { Popover } from '../../fields/Popover';
import { ScopedTweaks } from '../../fields/ScopedTweaks';

/** How many tweaks, and a sheet to change them. */
export function TweaksPopover({ label, tweaks, ...rest }: Parameters<typeof ScopedTweaks>[0]) {
  return (
    <Popover
      label={`${label}: tweaks`}
      width={560}
      align="end"
      trigger={
        <button type="button" className="link" aria-label={`${label}: ${tweaks.length} tweaks`}>
          {tweaks.length === 1 ? '1 tweak …' : `${tweaks.length} tweaks …`}
        </button>
      }
    >
      <ScopedTweaks label={label} tweaks={tweaks} {...rest} />
    </Popover>
  );
}
