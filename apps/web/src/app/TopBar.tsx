import { type Project, unitHeads } from '@insidia/core';
import { useEffect, useMemo, useRef } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import { Choose } from '../fields/Choose';
import { WarningsButton } from '../fields/WarningList';
import { changed, redone, undone } from '../store/document';
import { useWarnings } from '../warnings/useWarnings';
import { useAppDispatch, useAppSelector } from '../store/store';
import { KeySheet } from './KeySheet';
import { Palette } from './Palette';
import { SaveState } from './SaveState';
import { type Place, addressOf, sectionOf } from './sections';
import { applyTheme, useTheme } from './theme';
import { useView } from './view';

const AS_WRITTEN = 'as-written';
/** A double bar parts what is defined from what is judged. */
const JUDGED =
  "ml-4 before:absolute before:-left-2 before:top-[14px] before:h-4 before:w-[4px] before:border-x before:border-rule before:content-['']";

export function TopBar({ project }: { project: Project }) {
  const { pathname, search } = useLocation();
  const left = useRef(new Map<string, Place>());
  const section = sectionOf(pathname);
  // Where each section is now is where it is found again.
  useEffect(() => {
    if (section !== undefined) left.current.set(section, { pathname, search });
  }, [section, pathname, search]);
  return (
    <header className="flex h-[var(--bar-h)] items-center border-b border-ink bg-paper pl-4 pr-3">
      <Link to="/" className="w-[76px] shrink-0 font-title text-[19px] font-medium leading-6 tracking-tight">
        Insidia
      </Link>
      <Link
        to="/"
        title="All projects"
        className="min-w-0 max-w-[180px] truncate border-l pl-3 pr-2 leading-5 text-ink-2 max-[1120px]:hidden"
      >
        {project.name}
      </Link>
      <nav aria-label="Sections" className="flex h-full items-stretch">
        {[
          ['enemies', 'Enemies'],
          ['party', 'Party'],
          ['arenas', 'Arenas'],
          ['encounters', 'Encounters'],
          ['difficulty', 'Difficulty'],
          ['brief', 'Brief'],
          ['board', 'Board'],
          ['pacing', 'Pacing'],
          ['replay', 'Replay'],
          ['tune', 'Tune'],
        ].map(([path, name]) => (
          <NavLink
            key={path}
            to={
              path === section
                ? { pathname: `/projects/${project.id}/${path}`, search }
                : addressOf(project, path, left.current.get(path), search)
            }
            className={({ isActive }) =>
              `relative ${path === 'board' ? JUDGED : ''} px-[7px] leading-[44px] max-[1180px]:px-[4px] ${isActive ? "font-semibold text-ink after:absolute after:inset-x-2 after:-bottom-px after:h-[3px] after:bg-ink after:content-['']" : 'text-ink-2'}`
            }
          >
            {name}
          </NavLink>
        ))}
      </nav>
      <span className="flex-1" />
      <Lens project={project} />
      <div className="ml-3.5 flex items-center gap-3 max-[1180px]:ml-2 max-[1180px]:gap-2 whitespace-nowrap text-table text-ink-2">
        <UndoRedo />
        <SaveState />
        <AllWarnings project={project} />
        <Palette project={project} />
        <KeySheet />
        <ThemeSwitch />
      </div>
    </header>
  );
}

/** The tier and skill through which everything is looked at. */
function Lens({ project }: { project: Project }) {
  const [view, change] = useView(project);
  const tierMark = (i: number) => (
    <span className="tier" aria-hidden>
      {i + 1}
    </span>
  );
  const tiers = [{ id: AS_WRITTEN, name: 'as written' }, ...project.tiers.map(({ id, name }, i) => ({ id, name, mark: tierMark(i) }))];
  const skills = [{ id: AS_WRITTEN, name: 'as written' }, ...project.skills.map(({ id, name }) => ({ id, name }))];
  const tierNumber = project.tiers.findIndex(({ id }) => id === view.tier);
  // A long name is cut off rather than push what stands beside it out of the window.
  const plain = 'flex min-w-0 max-w-[112px] items-center gap-1.5 pr-0.5 font-semibold outline-offset-2 max-[1180px]:max-w-[84px]';
  return (
    <div role="group" aria-label="Lens" className="flex h-7 shrink-0 items-center gap-2.5 rounded-[14px] border bg-sheet px-2.5">
      <span className="font-title text-[13px] italic text-ink-3 max-[1320px]:hidden">viewing as</span>
      {tierNumber >= 0 && tierMark(tierNumber)}
      <div className="min-w-0">
        <Choose
          quiet
          label="Tier"
          className={plain}
          value={view.tier ?? AS_WRITTEN}
          options={tiers}
          onChoose={(id) => change({ tier: id === AS_WRITTEN ? undefined : id, edit: undefined })}
        />
      </div>
      <span className="h-3.5 w-px bg-rule" />
      <div className="min-w-0">
        <Choose
          quiet
          label="Skill"
          className={plain}
          value={view.skill ?? AS_WRITTEN}
          options={skills}
          onChoose={(id) => change({ skill: id === AS_WRITTEN ? undefined : id })}
        />
      </div>
    </div>
  );
}

/** Every warning of the project, tiers and encounters too. */
function AllWarnings({ project }: { project: Project }) {
  const { open, accepted } = useWarnings();
  const [view] = useView(project);
  const dispatch = useAppDispatch();
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const names = useMemo(() => {
    const all = [...unitHeads(project), ...project.encounters, ...project.tiers, ...project.skills, ...project.styles];
    return (path: string) => all.find(({ id }) => id === path.split('/')[2])?.name ?? project.name;
  }, [project]);
  return (
    <WarningsButton
      short
      project={project}
      lens={lens}
      open={open}
      accepted={accepted}
      apply={(edit) => dispatch(changed(edit))}
      ownerOf={({ path }) => names(path)}
    />
  );
}

function UndoRedo() {
  const dispatch = useAppDispatch();
  const past = useAppSelector((state) => state.document.past);
  const future = useAppSelector((state) => state.document.future);
  const undo = past[past.length - 1];
  const redo = future[future.length - 1];
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const name = event.key.toLowerCase();
      if (name !== 'z' && name !== 'y') return;
      event.preventDefault();
      // A field that is being typed in gives up what was typed: the document's history counts.
      if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
      dispatch(name === 'y' || event.shiftKey ? redone() : undone());
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, [dispatch]);
  const arrow = 'h-6 w-6 grid place-items-center disabled:text-ghost';
  return (
    <span className="flex">
      <button
        type="button"
        className={arrow}
        disabled={!undo}
        title={undo ? `Undo: ${undo.name}` : 'Nothing to undo'}
        aria-label={undo ? `Undo: ${undo.name}` : 'Undo'}
        onClick={() => dispatch(undone())}
      >
        <svg width={14} height={15} fill="none" stroke="currentColor" strokeWidth={1.4} aria-hidden>
          <path d="M5 2 L2 5 L5 8 M2 5 H9 A4 4 0 0 1 9 13 H6" />
        </svg>
      </button>
      <button
        type="button"
        className={arrow}
        disabled={!redo}
        title={redo ? `Redo: ${redo.name}` : 'Nothing to redo'}
        aria-label={redo ? `Redo: ${redo.name}` : 'Redo'}
        onClick={() => dispatch(redone())}
      >
        <svg width={14} height={15} fill="none" stroke="currentColor" strokeWidth={1.4} aria-hidden>
          <path d="M9 2 L12 5 L9 8 M12 5 H5 A4 4 0 0 0 5 13 H8" />
        </svg>
      </button>
    </span>
  );
}

function ThemeSwitch() {
  const theme = useTheme();
  const other = theme === 'light' ? 'dark' : 'light';
  return (
    <button
      type="button"
      className="grid h-6 w-6 place-items-center"
      title={`Change to the ${other} theme`}
      aria-label={`Change to the ${other} theme`}
      onClick={() => applyTheme(other)}
    >
      <svg width={14} height={14} aria-hidden>
        <circle cx={7} cy={7} r={5.5} fill="none" stroke="currentColor" strokeWidth={1.3} />
        <path d="M7 1.5 A5.5 5.5 0 0 1 7 12.5Z" fill="currentColor" />
      </svg>
    </button>
  );
}
