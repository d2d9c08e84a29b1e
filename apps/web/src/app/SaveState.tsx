import { difference } from '@insidia/core';
import { AlertDialog } from 'radix-ui';
import { SIGNED_OUT, type Saved } from '../server/api';
import { settled } from '../store/document';
import { useAppDispatch, useAppSelector } from '../store/store';

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

/** Both versions of what two have changed, side by side; nothing is overwritten unseen. */
function Conflict() {
  const theirs = useAppSelector((state) => state.document.theirs);
  return theirs && <Clash theirs={theirs} />;
}

function Clash({ theirs }: { theirs: Saved }) {
  const dispatch = useAppDispatch();
  const document = useAppSelector((state) => state.document.document);
  const saved = useAppSelector((state) => state.document.saved);
  if (!document || !saved) return null;
  const mine = new Map(difference(saved.document, document).map((operation) => [operation.path, operation]));
  const other = new Map(difference(saved.document, theirs.document).map((operation) => [operation.path, operation]));
  const value = (operation: { op: string; value?: unknown } | undefined) =>
    !operation ? 'unchanged' : operation.op === 'remove' ? 'removed' : JSON.stringify(operation.value).slice(0, 60);
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-ink/30" />
        <AlertDialog.Content className="fixed left-1/2 top-1/3 z-50 w-[560px] -translate-x-1/2 -translate-y-1/3 border bg-sheet p-4">
          <AlertDialog.Title className="text-section">The same place was changed here and elsewhere</AlertDialog.Title>
          <AlertDialog.Description className="mt-1 text-table text-ink-2">
            Another tab or person saved first. Changes to other places are merged by themselves; these clash:
          </AlertDialog.Description>
          <table className="mt-2 w-full text-table">
            <thead>
              <tr className="text-left text-label text-ink-3">
                <th className="font-normal">where</th>
                <th className="font-normal">here</th>
                <th className="font-normal">elsewhere</th>
              </tr>
            </thead>
            <tbody>
              {[...new Set([...mine.keys(), ...other.keys()])].slice(0, 12).map((path) => (
                <tr key={path} className="border-t border-hair">
                  <td className="max-w-[260px] truncate pr-2">{path}</td>
                  <td className="pr-2">{value(mine.get(path))}</td>
                  <td>{value(other.get(path))}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-3 flex gap-2">
            <AlertDialog.Action className="btn btn-primary" onClick={() => dispatch(settled('mine'))}>
              Keep what is here
            </AlertDialog.Action>
            <AlertDialog.Cancel className="btn" onClick={() => dispatch(settled('theirs'))}>
              Take what is elsewhere
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
