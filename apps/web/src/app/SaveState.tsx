import { laterWithin } from '../parts/later';
import { SIGNED_OUT } from '../server/api';
import { useAppSelector } from '../store/store';

const Clash = laterWithin(async () => (await import('./Clash')).Clash);

/** Whether what is on the screen is kept, always visible. */
export function SaveState() {
  const saving = useAppSelector((state) => state.document.saving);
  const savedAt = useAppSelector((state) => state.document.savedAt);
  const trouble = useAppSelector((state) => state.document.trouble);
  const time = savedAt === null ? '' : new Date(savedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false });
  const signedOut = trouble === SIGNED_OUT;
  const words = {
    saved: `Saved ${time}`,
    waiting: 'Saving …',
    saving: 'Saving …',
    away: signedOut ? 'Signed out: kept here' : 'Server away: kept here, trying again',
    conflict: 'Changed elsewhere too',
    refused: `Not saved: ${trouble ?? ''}`,
  }[saving];
  const wrong = saving === 'away' || saving === 'conflict' || saving === 'refused';
  return (
    <>
      <span
        role="status"
        data-saving={saving}
        title={trouble ?? undefined}
        className={`flex max-w-[220px] items-center gap-1.5 truncate ${wrong ? 'font-semibold text-warn' : ''}`}
      >
        <svg width={8} height={8} aria-hidden className="shrink-0">
          <circle
            cx={4}
            cy={4}
            r={3}
            fill={saving === 'saved' ? 'var(--ink)' : wrong ? 'var(--warn)' : 'none'}
            stroke={wrong ? 'var(--warn)' : 'var(--ink)'}
          />
        </svg>
        <span className={`truncate ${wrong ? '' : 'max-[1180px]:sr-only'}`}>{words}</span>
      </span>
      {signedOut && (
        <a className="link" href={`/sign-in?next=${encodeURIComponent(location.pathname + location.search)}`}>
          Sign in
        </a>
      )}
      <Conflict />
    </>
  );
}

/** What two have changed at the same place waits for a word. */
function Conflict() {
  const theirs = useAppSelector((state) => state.document.theirs);
  return theirs && <Clash theirs={theirs} />;
}
