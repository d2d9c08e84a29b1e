import {
  type Dial,
  type Project,
  type Scenario,
  compileScenario,
  dialFor,
  dialValue,
  dialWords,
  kindsOfNumbers,
  numbersOf,
  unitHeads,
  wordsOf,
  entriesOf,
  isEntryDial,
  writtenAt,
} from '@insidia/core';
import { Command } from 'cmdk';
import { useMemo } from 'react';
import { useListTop } from '../../parts/useListTop';
import { Popover } from '../../fields/Popover';

interface Props {
  project: Project;
  cell: Scenario;
  onAdd: (dial: Dial) => void;
}

/** A number of the fight, a kind of them, a word or an entry of a list, found by a part of its name. */
export function AddNumber({ project, cell, onAdd }: Props) {
  return (
    <Popover
      label="Add a number"
      width={420}
      trigger={
        <button type="button" className="link">
          add a number …
        </button>
      }
    >
      {(close) => (
        <Numbers
          project={project}
          cell={cell}
          onAdd={(dial) => {
            close();
            onAdd(dial);
          }}
        />
      )}
    </Popover>
  );
}

function Numbers({ project, cell, onAdd }: Props) {
  const dials = useMemo(() => {
    const compiled = compileScenario(project, cell);
    const encounter = cell.kind === 'encounter' ? cell.id : undefined;
    const own = numbersOf(project, compiled, encounter, true);
    return [
      ...own,
      ...partyDials(project),
      ...kindsOfNumbers(project, own),
      ...wordsOf(project, compiled),
      ...entriesOf(project, compiled, encounter),
    ];
  }, [project, cell]);
  const { list, input } = useListTop();
  return (
    <Command label="Add a number" loop>
      <Command.Input
        {...input}
        autoFocus
        placeholder="clipper health, cooldown, delay, all of the role …"
        className="h-8 w-full border-b bg-transparent px-1 outline-none"
      />
      <Command.List ref={list} className="scroll max-h-[300px] py-1">
        <Command.Empty className="px-1 py-2 text-table text-ink-3">No number by that name.</Command.Empty>
        {dials.map((dial) => {
          const { name, whose } = dialWords(project, dial);
          return (
            <Command.Item
              key={dial.id}
              value={dial.id}
              keywords={[whose, name]}
              onSelect={() => onAdd(dial)}
              className="flex h-6 cursor-pointer items-center gap-2 px-1 text-table data-[selected=true]:bg-well"
            >
              <span className="min-w-0 flex-1 truncate">
                {whose} › {name}
              </span>
              <span className="shrink-0 text-ink-3">
                {dial.to === undefined
                  ? dialValue(project, dial, writtenAt(project, dial) ?? 0)
                  : isEntryDial(project, dial)
                    ? dialValue(project, dial, dial.to)
                    : `${dialValue(project, dial, dial.to)}, not ${dialValue(project, dial, writtenAt(project, dial) ?? '')}`}
              </span>
            </Command.Item>
          );
        })}
      </Command.List>
    </Command>
  );
}

/** Of the party only what says how strong it is: the enemies are what is balanced. */
function partyDials(project: Project): Dial[] {
  return unitHeads(project).flatMap(({ id, side }) => (side === 'party' ? (dialFor(project, `/units/${id}/health/max`) ?? []) : []));
}
