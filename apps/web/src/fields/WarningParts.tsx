import { type Warning, acceptanceOf, causeOf, idFor, mended } from '@insidia/core';
import { useState } from 'react';
import { WarnMark } from '../visuals/WarnMark';
import type { WarningsProps } from './WarningList';

/** Warnings with what to do, and what was accepted. */
export function WarningParts({ project, lens, open, accepted, apply, ownerOf }: WarningsProps) {
  return (
    <ul aria-label="Warnings" className="flex flex-col">
      {open.map((warning) => (
        <OpenWarning
          key={`${warning.rule} ${warning.path}`}
          warning={warning}
          project={project}
          lens={lens}
          apply={apply}
          ownerOf={ownerOf}
        />
      ))}
      {accepted.map((warning) => (
        <li key={`${warning.rule} ${warning.path}`} className="border-t border-hair py-1.5 text-table text-ink-2">
          <p>{warning.message}.</p>
          <p className="flex items-baseline gap-2">
            <span className="min-w-0 flex-1">Accepted: {acceptanceOf(project, warning)?.reason}. It comes back when this changes.</span>
            <button
              type="button"
              className="link"
              onClick={() => {
                const own = acceptanceOf(project, warning);
                apply({
                  document: { ...project, accepted: project.accepted.filter(({ id }) => id !== own?.id) },
                  name: `Warning opened again: ${warning.message}`,
                });
              }}
            >
              open it again
            </button>
          </p>
        </li>
      ))}
    </ul>
  );
}

/** One that is open: what to do, and a way to accept it. */
export function OpenWarning({
  warning,
  project,
  lens,
  apply,
  ownerOf,
}: { warning: Warning } & Omit<WarningsProps, 'open' | 'accepted' | 'short'>) {
  const [reason, setReason] = useState<string | null>(null);
  const { fixes = [], message, mend, severity } = warning;
  const accept = () => {
    const id = idFor(
      warning.rule,
      (project.accepted ?? []).map((one) => one.id),
    );
    const acceptance = { id, rule: warning.rule, path: warning.path, cause: causeOf(project, warning), reason: reason?.trim() ?? '' };
    const others = (project.accepted ?? []).filter(({ rule, path }) => rule !== warning.rule || path !== warning.path);
    apply({ document: { ...project, accepted: [...others, acceptance] }, name: `Warning accepted: ${message}` });
  };
  return (
    <li className="border-t border-hair py-1.5 text-table first:border-t-0 first:pt-0">
      <p className="flex gap-1.5">
        <span className="pt-[3px]">
          <WarnMark label={severity} quiet={severity === 'notice'} />
        </span>
        <span className="min-w-0">
          {ownerOf && <b>{ownerOf(warning)}: </b>}
          {ownerOf ? message : message.charAt(0).toUpperCase() + message.slice(1)}.
        </span>
      </p>
      <p className="mt-0.5 pl-[18px] text-ink-2">{mend.charAt(0).toUpperCase() + mend.slice(1)}.</p>
      <div className="mt-0.5 flex flex-wrap items-center gap-1.5 pl-[18px]">
        {fixes.map((fix) => (
          <button
            key={fix.name}
            type="button"
            className="btn"
            onClick={() => apply({ document: mended(project, fix, lens), name: `Mended: ${fix.name} (${message})`.slice(0, 180) })}
          >
            {fix.name.charAt(0).toUpperCase() + fix.name.slice(1)}
          </button>
        ))}
        {reason === null && (
          <button type="button" className="btn" onClick={() => setReason('')}>
            It is meant …
          </button>
        )}
      </div>
      {reason !== null && (
        <form
          className="mt-1 flex gap-2 pl-[18px]"
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim()) accept();
          }}
        >
          <input
            className="field-box min-w-0 flex-1"
            aria-label="Why it is meant"
            placeholder="why it is meant"
            value={reason}
            maxLength={2000}
            autoFocus
            onChange={(event) => setReason(event.target.value)}
          />
          <button type="submit" className="btn btn-primary" disabled={!reason.trim()}>
            Accept
          </button>
        </form>
      )}
    </li>
  );
}
