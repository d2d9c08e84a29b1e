import { difference } from '@insidia/core';
import { AlertDialog } from 'radix-ui';
import type { Saved } from '../server/api';
import { settled } from '../store/document';
import { useAppDispatch, useAppSelector } from '../store/store';

/** Both versions of what two have changed, side by side; nothing is overwritten unseen. */
export function Clash({ theirs }: { theirs: Saved }) {
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
