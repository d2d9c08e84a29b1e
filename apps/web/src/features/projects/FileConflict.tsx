import { type Project, changesInWords, wordingSentence } from '@insidia/core';
import type { Saved } from '../../server/api';

/** Differences that are written out; of more their number is told. */
const WRITTEN_OUT = 12;

/** A file of a project that is here already. */
export interface Conflict {
  file: string;
  document: Project;
  here: Saved;
}

/** Whether such a file becomes a copy, or the newest revision, with what that would change. */
export function FileConflict({
  conflict: { file, document, here },
  onCopy,
  onReplace,
  onCancel,
}: {
  conflict: Conflict;
  onCopy: () => void;
  onReplace: () => void;
  onCancel: () => void;
}) {
  const changes = changesInWords(here.document, document);
  return (
    <section aria-label="The file and the project" className="mt-4 border bg-sheet px-3 py-2.5">
      <h2 className="text-section">{here.document.name} is here already</h2>
      <p className="mt-1 text-table text-ink-2">
        {changes.length
          ? `What ${file} would change, as a new revision of it (its history stays):`
          : `${file} says the same as the newest revision of it.`}
      </p>
      {changes.length > 0 && (
        <ul aria-label="Differences" className="scroll mt-1 max-h-48 text-table">
          {changes.slice(0, WRITTEN_OUT).map((change) => (
            <li key={change.path} className="truncate border-t border-hair py-0.5">
              {wordingSentence(change)}
            </li>
          ))}
          {changes.length > WRITTEN_OUT && <li className="py-0.5 text-ink-3">and {changes.length - WRITTEN_OUT} more</li>}
        </ul>
      )}
      <div className="mt-2 flex gap-2">
        <button type="button" className="btn btn-primary" onClick={onCopy}>
          Open as a copy
        </button>
        {changes.length > 0 && (
          <button type="button" className="btn" onClick={onReplace}>
            Make it the newest revision
          </button>
        )}
        <button type="button" className="btn" onClick={onCancel}>
          Leave it
        </button>
      </div>
    </section>
  );
}
