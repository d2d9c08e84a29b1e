import {
  Unit as UnitClass,
  type Project,
  changesWithin,
  effectiveUnit,
  independent,
  unitHeads,
  usesOf,
  without,
  wordingSentence,
  type Unit,
} from '@insidia/core';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Choose } from '../../fields/Choose';
import { NameField } from '../../fields/NameField';
import type { Edit } from '../../fields/edits';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { NewUnit, type OnUnit } from './NewUnit';

/** Name, copies, comparison, deletion of the unit on the bench. */
export function UnitMenuParts({ editor, onUnit, close }: { editor: UnitEditor; onUnit: OnUnit; close: () => void }) {
  const { base, project } = editor;
  const names = unitHeads(project);
  return (
    <div className="flex flex-col gap-2">
      <NameField of={base} among={names} onName={(name) => editor.set('/name', name, name)} />
      <div className="flex flex-wrap gap-1">
        <NewUnit project={project} kind="variant" of={base} apply={editor.apply} onUnit={(id) => (close(), onUnit(id))} />
        <NewUnit project={project} kind="copy" of={base} apply={editor.apply} onUnit={(id) => (close(), onUnit(id))} />
        {editor.basedOn && (
          <button
            type="button"
            className="btn"
            title="it keeps what it is now and follows its base no longer"
            onClick={() => {
              const own = independent(project, base.id, { id: base.id, name: base.name });
              const document = {
                ...project,
                units: [...project.units, own],
                variants: project.variants.filter(({ id }) => id !== base.id),
              };
              editor.apply({ document, name: `${base.name} follows ${editor.basedOn} no longer` });
              close();
            }}
          >
            Follow {editor.basedOn} no longer
          </button>
        )}
        <Compare editor={editor} />
        <DeleteUnit project={project} unit={base} apply={editor.apply} onUnit={(id) => (close(), onUnit(id))} />
      </div>
    </div>
  );
}

/** Where it is used, and what goes with it; undone like anything else. */
function DeleteUnit({ project, unit, apply, onUnit }: { project: Project; unit: Unit; apply: (edit: Edit) => void; onUnit: OnUnit }) {
  const [open, setOpen] = useState(false);
  const uses = open ? usesOf(project, { kind: 'unit', id: unit.id }) : [];
  const stays = uses.filter(({ goes }) => !goes);
  const goes = uses.filter((use) => use.goes);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="btn">
          Delete …
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content className="sheet fixed left-1/2 top-[18%] z-50 w-[460px] -translate-x-1/2 p-4">
          <Dialog.Title className="text-section">Delete {unit.name}</Dialog.Title>
          <Dialog.Description className="mt-1 text-table text-ink-2">
            {uses.length ? `It is used in ${uses.length} ${uses.length === 1 ? 'place' : 'places'}.` : 'Nothing else speaks of it.'} Undo
            brings it back.
          </Dialog.Description>
          {stays.length > 0 && (
            <>
              <p className="mt-2 text-table font-semibold text-warn">These must be changed first:</p>
              <Uses uses={stays.map(({ where }) => where)} />
            </>
          )}
          {goes.length > 0 && (
            <>
              <p className="mt-2 text-table font-semibold">With it go, or change:</p>
              <Uses uses={goes.map(({ where }) => where)} />
            </>
          )}
          <div className="mt-3 flex gap-2">
            <button
              type="button"
              className="btn btn-primary"
              disabled={stays.length > 0}
              onClick={() => {
                setOpen(false);
                apply({ document: without(project, { kind: 'unit', id: unit.id }), name: `${unit.name} deleted` });
                onUnit(undefined);
              }}
            >
              Delete it
            </button>
            <Dialog.Close className="btn">Keep it</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Uses({ uses }: { uses: string[] }) {
  return (
    <ul className="scroll max-h-[160px] text-table">
      {uses.map((use) => (
        <li key={use} className="border-t border-hair py-0.5">
          {use}
        </li>
      ))}
    </ul>
  );
}

/** Two units side by side: every number and word in which they differ, through the lens. */
function Compare({ editor }: { editor: UnitEditor }) {
  const { base, project, view } = editor;
  const heads = unitHeads(project).filter(({ id }) => id !== base.id);
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<string>();
  const id = chosen ?? heads[0]?.id;
  if (!id) return null;
  const other = open ? effectiveUnit(project, id, { tier: view.tier, skill: view.skill }).unit : undefined;
  const lines = other ? changesWithin(UnitClass, other, editor.unit).filter(({ path }) => !SAID.has(path)) : [];
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="btn">
          Compare …
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content className="sheet fixed left-1/2 top-[10%] z-50 w-[620px] -translate-x-1/2 p-4" aria-describedby={undefined}>
          <Dialog.Title className="text-section">{base.name} beside another</Dialog.Title>
          <div className="mt-1 flex items-end gap-2">
            <Choose
              label="Compared with"
              value={id}
              options={heads.map((head) => ({ id: head.id, name: head.name }))}
              onChoose={setChosen}
            />
            <Dialog.Close className="btn">Close</Dialog.Close>
          </div>
          <table className="mt-2 w-full text-table">
            <thead>
              <tr className="text-left text-label text-ink-3">
                <th className="font-normal">what</th>
                <th className="font-normal">{other?.name}</th>
                <th className="font-normal">{base.name}</th>
              </tr>
            </thead>
          </table>
          <div className="scroll max-h-[420px]">
            <table className="w-full table-fixed text-table">
              <tbody>
                {lines.map((line) => (
                  <tr key={line.path} className="border-t border-hair align-top">
                    <td className="pr-2">{line.where ? `${line.where}: ${line.what}` : line.what}</td>
                    <td className="pr-2">{line.from ?? ''}</td>
                    <td>{line.to ?? wordingSentence(line)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {!lines.length && <p className="text-table text-ink-2">No difference.</p>}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const SAID = new Set(['/id', '/name', '/notes', '/glyph', '/colour']);
