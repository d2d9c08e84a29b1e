import { useState } from 'react';
import { Link } from 'react-router';
import { TextField } from '../../fields/TextField';
import type { Listed } from '../../server/api';
import { holdsWords } from './names';

interface Props {
  project: Listed;
  onRename: (name: string) => void;
  onCopy: () => void;
  onDelete: () => void;
}

/** A project of the list: what it holds, when and by whom it was changed, and what can be done with it. */
export function ProjectRow({ project: { id, name, updatedAt, label, author, holds }, onRename, onCopy, onDelete }: Props) {
  const [renaming, setRenaming] = useState(false);
  const changed = new Date(updatedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short', hour12: false });
  const button = (word: string, act: () => void) => (
    <button type="button" className="link text-table" aria-label={`${word} ${name}`} onClick={act}>
      {word.toLowerCase()}
    </button>
  );
  return (
    <li className="border-b border-hair py-2" aria-label={name}>
      <div className="flex items-baseline gap-3">
        {renaming ? (
          <div className="min-w-0 flex-1">
            <TextField
              quiet
              label={`Name of ${name}`}
              value={name}
              limit={80}
              onCommit={(next) => {
                setRenaming(false);
                if (next.trim() && next.trim() !== name) onRename(next.trim());
              }}
            />
          </div>
        ) : (
          <Link to={`/projects/${id}/enemies`} className="min-w-0 flex-1 truncate font-semibold" title={name}>
            {name}
          </Link>
        )}
        {button('Rename', () => setRenaming(!renaming))}
        {button('Copy', onCopy)}
        <a className="text-table underline decoration-rule" href={`/api/projects/${id}`} download={`${id}.insidia.json`}>
          save as a file
        </a>
        {button('Delete', onDelete)}
      </div>
      <p className="truncate text-table text-ink-2" title={label}>
        {holdsWords(holds)}; <span className="text-ink-3">{`changed ${changed}${author ? ` by ${author}` : ''}: ${label}`}</span>
      </p>
    </li>
  );
}
