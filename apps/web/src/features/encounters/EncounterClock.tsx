import { Fields } from '../../fields/Field';
import { Mini } from '../../fields/Mini';
import { Popover } from '../../fields/Popover';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { laterWithin } from '../../parts/later';

const DeriveTurns = laterWithin(async () => (await import('./DeriveTurns')).DeriveTurns, 220);

/** What the encounter goes by: by itself, or in turns, with how these go. */
export function EncounterClock({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base } = editor;
  if (base.clock === 'continuous')
    return (
      <div className="border-t border-hair pt-1">
        <Popover
          label="In turns"
          width={360}
          trigger={
            <button type="button" className="link">
              takes turns instead …
            </button>
          }
        >
          {(close) => <DeriveTurns editor={editor} close={close} />}
        </Popover>
      </div>
    );
  return (
    <div className="border-t border-hair pt-1" role="group" aria-label="Turns">
      <div className="flex items-center gap-1.5">
        <b className="flex-1 text-table">In turns</b>
        <button type="button" className="link" onClick={() => editor.set('/clock', 'continuous', 'in seconds')}>
          back to seconds
        </button>
      </div>
      <div className="flex flex-wrap items-start gap-x-2 gap-y-1">
        <Fields editor={editor} at="/rounds" />
      </div>
      <Costs editor={editor} />
    </div>
  );
}

/** Ground of the arena that it costs more to go over. */
function Costs({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const costs = base.rounds?.costs ?? [];
  const kinds = [...new Set(project.arenas.find(({ id }) => id === base.arena)?.ground.map(({ kind }) => kind) ?? [])].filter(Boolean);
  const open = kinds.filter((kind) => !costs.some((one) => one.kind === kind));
  if (base.rounds?.ground === 'none' || (!costs.length && !open.length)) return null;
  return (
    <div className="flex flex-wrap items-end gap-1.5 pt-1">
      {costs.map(({ kind }, i) => (
        <span key={kind} className="flex items-end gap-0.5" role="group" aria-label={`Ground ${kind}`}>
          <span className="pb-1 text-table">{kind}</span>
          <Fields editor={editor} at={`/rounds/costs/${i}`} of={['cost']} />
          <Mini
            sign="remove"
            label={`${kind} as plain ground`}
            onClick={() =>
              editor.set(
                '/rounds/costs',
                costs.filter((one) => one.kind !== kind),
                `${kind} as plain ground`,
              )
            }
          />
        </span>
      ))}
      {open.map((kind) => (
        <button
          key={kind}
          type="button"
          className="link"
          onClick={() => editor.set('/rounds/costs', [...costs, { kind, cost: 2 }], `${kind} costs 2`)}
        >
          {kind} costs more …
        </button>
      ))}
    </div>
  );
}
