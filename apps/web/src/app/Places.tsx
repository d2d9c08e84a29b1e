import {
  ENCOUNTER_BEGINNINGS,
  type Project,
  UNIT_BEGINNINGS,
  effectiveUnit,
  everyCell,
  goalsOf,
  judgeGoals,
  samplesIn,
  scenarioOf,
  unitHeads,
} from '@insidia/core';
import { Command } from 'cmdk';
import { useLocation, useNavigate } from 'react-router';
import { BOARD_RUNS } from '../features/board/runs';
import { askedOf, nextMissed } from '../features/brief/bands';
import { settingOf, withNewEncounter, withNewUnit } from '../features/enemies/unitMade';
import { api } from '../server/api';
import { readFailed, runCells } from '../server/batches';
import { changed, redone, undone } from '../store/document';
import { useAppDispatch, useAppSelector } from '../store/store';
import { Glyph } from '../visuals/Glyph';
import { useListTop } from '../parts/useListTop';
import { keepSteps, keptSteps } from './keptSteps';
import { sharedSearch } from './sections';
import { applyTheme, useTheme } from './theme';
import { useView } from './view';

/** Everything that can be jumped to, and what can be done, found by a part of its name. */
export function Places({ project, onDone }: { project: Project; onDone: () => void }) {
  const navigate = useNavigate();
  const { search } = useLocation();
  const dispatch = useAppDispatch();
  const past = useAppSelector((state) => state.document.past);
  const future = useAppSelector((state) => state.document.future);
  const saving = useAppSelector((state) => state.document.saving);
  const [view, changeView] = useView(project);
  const theme = useTheme();
  const go = (path: string, more = '') => {
    onDone();
    const query = new URLSearchParams(sharedSearch(search));
    for (const [name, value] of new URLSearchParams(more)) query.set(name, value);
    void navigate({ pathname: `/projects/${project.id}/${path}`, search: query.toString() });
  };
  const act = (what: () => void) => () => {
    onDone();
    what();
  };
  const enemies = unitHeads(project).flatMap(({ id, side }) => (side === 'enemy' ? [id] : []));
  /** To the goal after the one that is looked at, of those that what has been run misses. */
  const toMissed = async () => {
    const goals = goalsOf(project);
    try {
      const read = await api.readCells(project.id, askedOf(goals));
      const judged = judgeGoals(goals, samplesIn(new Map(read.map((one) => [one.cell, one]))));
      const next = nextMissed(project.brief?.bands ?? [], judged, new URLSearchParams(search).get('band'));
      go('brief', next === undefined ? '' : new URLSearchParams({ band: next }).toString());
    } catch (error) {
      dispatch(readFailed((error as Error).message));
    }
  };
  const units = unitHeads(project).map((head) => ({ head, unit: effectiveUnit(project, head.id, {}).unit }));
  const { list, input } = useListTop();
  const item = 'flex h-7 cursor-pointer items-center gap-2 px-3 text-table data-[selected=true]:bg-well';
  return (
    <Command label="Jump to anything" loop>
      <Command.Input
        {...input}
        autoFocus
        placeholder="a unit, an attack, a state, a tier; new, run, next missed …"
        className="h-9 w-full border-b bg-transparent px-3 outline-none"
      />
      <Command.List
        ref={list}
        className="scroll max-h-[380px] py-1 [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-1.5 [&_[cmdk-group-heading]]:text-label [&_[cmdk-group-heading]]:text-ink-3"
      >
        <Command.Empty className="px-3 py-2 text-table text-ink-3">Nothing by that name.</Command.Empty>
        <Command.Group heading="Units, their attacks and states">
          {units.map(({ head, unit }) => {
            const section = head.side === 'enemy' ? 'enemies' : 'party';
            return [
              <Command.Item
                key={head.id}
                value={`unit ${head.id}`}
                keywords={[head.name, head.role]}
                className={item}
                onSelect={() => go(`${section}/${head.id}`)}
              >
                <Glyph unit={head} size={14} />
                <b>{head.name}</b>
                <span className="text-ink-3">{head.role}</span>
              </Command.Item>,
              ...unit.attacks.map((attack) => (
                <Command.Item
                  key={`${head.id} attack ${attack.id}`}
                  value={`attack ${head.id} ${attack.id}`}
                  keywords={[head.name, attack.name, 'attack']}
                  className={item}
                  onSelect={() => go(`${section}/${head.id}/attacks/${attack.id}`)}
                >
                  <span className="w-3.5" />
                  {head.name} › {attack.name}
                  <span className="text-ink-3">attack</span>
                </Command.Item>
              )),
              ...unit.states.map((state) => (
                <Command.Item
                  key={`${head.id} state ${state.id}`}
                  value={`state ${head.id} ${state.id}`}
                  keywords={[head.name, state.name, 'state']}
                  className={item}
                  onSelect={() => go(`${section}/${head.id}`, `state=${state.id}`)}
                >
                  <span className="w-3.5" />
                  {head.name} › {state.name}
                  <span className="text-ink-3">state</span>
                </Command.Item>
              )),
            ];
          })}
        </Command.Group>
        <Command.Group heading="Encounters and arenas">
          {project.encounters.map(({ id, name }) => (
            <Command.Item
              key={id}
              value={`encounter ${id}`}
              keywords={[name, 'encounter']}
              className={item}
              onSelect={() => go(`encounters/${id}`)}
            >
              {name}
              <span className="text-ink-3">encounter</span>
            </Command.Item>
          ))}
          {project.arenas.map(({ id, name }) => (
            <Command.Item key={id} value={`arena ${id}`} keywords={[name, 'arena']} className={item} onSelect={() => go(`arenas/${id}`)}>
              {name}
              <span className="text-ink-3">arena</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Look through">
          {project.tiers.map(({ id, name }, i) => (
            <Command.Item
              key={id}
              value={`tier ${id}`}
              keywords={[name, 'tier', 'view as']}
              className={item}
              onSelect={act(() => changeView({ tier: id }))}
            >
              <span className="tier">{i + 1}</span>
              view as {name}
            </Command.Item>
          ))}
          {project.skills.map(({ id, name }) => (
            <Command.Item
              key={id}
              value={`skill ${id}`}
              keywords={[name, 'skill', 'view as']}
              className={item}
              onSelect={act(() => changeView({ skill: id }))}
            >
              <span className="w-3.5" />
              view as {name}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="New">
          {UNIT_BEGINNINGS.map((one) => (
            <Command.Item
              key={`${one.side} ${one.id}`}
              value={`new ${one.side} ${one.id}`}
              keywords={['new', one.side === 'enemy' ? 'enemy' : 'member', one.called]}
              className={item}
              onSelect={() => {
                const { document, unit } = withNewUnit(project, one.side, one, one.name);
                dispatch(changed({ document, name: `New: ${unit.name}` }));
                go(`${one.side === 'enemy' ? 'enemies' : 'party'}/${unit.id}`);
              }}
            >
              New {one.side === 'enemy' ? 'enemy' : 'member'}: {one.called}
            </Command.Item>
          ))}
          {settingOf(project, enemies) &&
            ENCOUNTER_BEGINNINGS.map((one) => (
              <Command.Item
                key={one.id}
                value={`new encounter ${one.id}`}
                keywords={['new', 'encounter', one.called]}
                className={item}
                onSelect={() => {
                  const made = withNewEncounter(project, one, enemies, one.name);
                  if (!made) return;
                  dispatch(changed({ document: made.document, name: `New: ${made.encounter.name}` }));
                  go(`encounters/${made.encounter.id}`);
                }}
              >
                New encounter: {one.called}
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Go to, do">
          <Command.Item
            value="do board"
            keywords={['run the board', 'everything']}
            className={item}
            disabled={saving !== 'saved'}
            onSelect={() => {
              const cells = everyCell(project, 'tiers', { skill: view.skill });
              dispatch(
                runCells(
                  project.id,
                  cells.map((cell) => ({ cell, runs: BOARD_RUNS[scenarioOf(cell).kind] })),
                ),
              );
              go('board');
            }}
          >
            Run the board
          </Command.Item>
          {(project.brief?.bands.length ?? 0) > 0 && (
            <Command.Item
              value="do missed"
              keywords={['the next missed goal']}
              className={item}
              disabled={saving !== 'saved'}
              onSelect={() => void toMissed()}
            >
              The next missed goal
            </Command.Item>
          )}
          <Command.Item
            value="do steps"
            keywords={['the first steps', 'help']}
            className={item}
            onSelect={act(() => keepSteps(project.id, { ...keptSteps(project.id), begun: true, over: false }))}
          >
            The first steps
          </Command.Item>
          <Command.Item
            value="do report"
            keywords={['the report, to print']}
            className={item}
            onSelect={act(() => void open(api.reportOf(project.id, { skill: view.skill }), '_blank', 'noreferrer'))}
          >
            The report, to print
          </Command.Item>
          {(
            [
              ['Enemies', 'enemies'],
              ['Party', 'party'],
              ['Arenas', 'arenas'],
              ['Encounters', 'encounters'],
              ['Replay', 'replay'],
              ['Tune', 'tune'],
              ['Tiers', 'difficulty/tiers'],
              ['Traits', 'difficulty/traits'],
              ['Enemies as a table', 'table/enemies'],
              ['Party as a table', 'table/party'],
              ['History', 'history'],
            ] as const
          ).map(([name, path]) => (
            <Command.Item key={path} value={`go ${path}`} keywords={[name]} className={item} onSelect={() => go(path)}>
              {name}
            </Command.Item>
          ))}
          {past.length > 0 && (
            <Command.Item value="do undo" keywords={['undo']} className={item} onSelect={act(() => dispatch(undone()))}>
              Undo: {past[past.length - 1].name}
            </Command.Item>
          )}
          {future.length > 0 && (
            <Command.Item value="do redo" keywords={['redo']} className={item} onSelect={act(() => dispatch(redone()))}>
              Redo: {future[future.length - 1].name}
            </Command.Item>
          )}
          <Command.Item
            value="do theme"
            keywords={['theme', 'dark', 'light']}
            className={item}
            onSelect={act(() => applyTheme(theme === 'dark' ? 'light' : 'dark'))}
          >
            {theme === 'dark' ? 'Light' : 'Dark'} theme
          </Command.Item>
        </Command.Group>
      </Command.List>
    </Command>
  );
}
