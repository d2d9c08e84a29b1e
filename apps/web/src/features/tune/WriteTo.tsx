import { type Into, type Project, type Scenario, type Turn, writtenInto } from '@insidia/core';
import { useState } from 'react';
import { Popover } from '../../fields/Popover';
import { NewSheet } from '../../parts/NewSheet';

interface Props {
  project: Project;
  cell: Scenario;
  turns: readonly Turn[];
  onWrite: (into: Into, project: Project, where: string, tier?: string) => void;
}

/** Where else a point can be written: at a tier, at a new one, in a trait. */
export function WriteTo({ project, cell, turns, onWrite }: Props) {
  const [cannot, setCannot] = useState<string>();
  const like = project.tiers.find(({ id }) => id === cell.tier);
  const write = (into: Into, where: string, close: () => void) => {
    const written = writtenInto(project, turns, into, { tier: cell.tier, skill: cell.skill });
    if ('cannot' in written) {
      setCannot(`Not ${where}: ${written.cannot}.`);
      return;
    }
    close();
    setCannot(undefined);
    onWrite(into, written.project, where, written.tier);
  };
  return (
    <Popover
      label="Write elsewhere"
      width={280}
      align="end"
      trigger={
        <button type="button" className="btn">
          Write it to …
        </button>
      }
    >
      {(close) => (
        <>
          <p className="mb-1 text-table text-ink-2">What is written stays; over it comes a change that gives what was tried.</p>
          {project.tiers.length > 0 && <h3 className="mt-1 text-label text-ink-3">at a tier</h3>}
          {project.tiers.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              className="block w-full truncate border-t border-hair py-1 text-left hover:bg-well"
              onClick={() => write({ kind: 'tier', tier: id }, `at ${name}`, close)}
            >
              {name}
              {id === cell.tier && <span className="text-ink-3"> (tried there)</span>}
            </button>
          ))}
          <div className="mt-1 border-t border-hair pt-1">
            <NewSheet
              label="New tier"
              suggested={like ? `${like.name}, tuned` : 'Tuned'}
              onName={(name) => write({ kind: 'newTier', name, ...(like && { like: like.id }) }, `as the tier ${name}`, close)}
              trigger={
                <button type="button" className="link">
                  at a new tier{like ? `, like ${like.name}` : ''} …
                </button>
              }
            />
          </div>
          {project.traits.length > 0 && <h3 className="mt-2 text-label text-ink-3">in a trait: on whoever has it</h3>}
          {project.traits.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              className="block w-full truncate border-t border-hair py-1 text-left hover:bg-well"
              onClick={() => write({ kind: 'trait', trait: id }, `in the trait ${name}`, close)}
            >
              {name}
            </button>
          ))}
          {cannot && (
            <p role="alert" className="mt-2 border-l-[3px] border-warn bg-warn-wash px-2 py-1 text-table">
              {cannot}
            </p>
          )}
        </>
      )}
    </Popover>
  );
}
