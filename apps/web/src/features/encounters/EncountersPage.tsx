import {
  Encounter as EncounterClass,
  type Project,
  type UnitHead,
  effectiveEncounter,
  plannedUnits,
  unitHeads,
  without,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link, Navigate, useLocation, useNavigate, useParams } from 'react-router';
import { useView } from '../../app/view';
import { WarningsButton } from '../../fields/WarningList';
import { useObjectEditor } from '../../fields/useObjectEditor';
import { useReadout } from '../../readout/useReadout';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useWarnings } from '../../warnings/useWarnings';
import { EncounterBench } from './EncounterBench';
import { EncounterList } from './EncounterList';
import { EncounterPanel } from './EncounterPanel';
import { NewEncounter } from './NewEncounter';
import { Whole } from './Whole';
import { NotHere } from '../../parts/NotHere';

/** Encounters: the list, the workbench of the selected one, and its fights. */
export function EncountersPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <Encounters project={project} />;
}

function Encounters({ project }: { project: Project }) {
  const params = useParams();
  const { search } = useLocation();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const [view] = useView(project);
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const heads = useMemo(() => new Map(unitHeads(project).map((head): [string, UnitHead] => [head.id, head])), [project]);
  const encounter = project.encounters.find(({ id }) => id === params.encounter);
  useReadout(encounter && { kind: 'encounter', id: encounter.id, ...lens, ...(view.turned && { turned: view.turned }) });
  const base = `/projects/${project.id}/encounters`;
  const open = (id: string | undefined) => void navigate({ pathname: id ? `${base}/${id}` : base, search });
  const add = (made: EncounterClass) => {
    dispatch(changed({ document: { ...project, encounters: [...project.encounters, made] }, name: `New: ${made.name}` }));
    open(made.id);
  };
  if (!encounter) {
    if (params.encounter === undefined && project.encounters.length)
      return <Navigate to={{ pathname: `${base}/${project.encounters[0].id}`, search }} replace />;
    return (
      <NotHere
        asked={params.encounter}
        nothing="No encounter yet"
        about={
          project.arenas.length
            ? 'An encounter puts a party into an arena and sends waves of enemies at it. Add one, give it a wave, and its fights run at once.'
            : 'An encounter needs an arena to take place in: make one first.'
        }
        others={project.encounters}
        to={(id) => ({ pathname: `${base}/${id}`, search })}
      >
        {project.arenas.length ? (
          <NewEncounter
            project={project}
            onEncounter={add}
            trigger={
              <button type="button" className="btn btn-primary">
                New encounter
              </button>
            }
          />
        ) : (
          <Link className="btn btn-primary" to={{ pathname: `/projects/${project.id}/arenas`, search }}>
            To the arenas
          </Link>
        )}
      </NotHere>
    );
  }
  return (
    <div className="grid min-h-0 grid-cols-[var(--form-w)_minmax(0,1fr)_var(--readout-w)]">
      <EncounterList project={project} selected={encounter.id} heads={heads} onSelect={open} onAdd={add}>
        <WholeOf key={encounter.id} project={project} id={encounter.id} heads={heads} />
      </EncounterList>
      <One key={encounter.id} project={project} id={encounter.id} heads={heads} onOpen={open} />
      <EncounterPanel project={project} encounter={encounter} heads={heads} />
    </div>
  );
}

/** The encounter as the lens shows it, and the one way to change it. */
function useEncounter(project: Project, id: string) {
  const [view] = useView(project);
  const { open } = useWarnings();
  const encounter = project.encounters.find((one) => one.id === id) as EncounterClass;
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const warnings = useMemo(() => open.filter(({ path }) => path.startsWith(`/encounters/${id}/`)), [open, id]);
  const seen = useMemo(() => effectiveEncounter(project, encounter, lens), [project, encounter, lens]);
  const editor = useObjectEditor(project, 'encounters', EncounterClass, id, warnings, seen);
  const arena = project.arenas.find((one) => one.id === encounter.arena);
  return { encounter, arena, editor, lens, warnings };
}

interface OneProps {
  project: Project;
  id: string;
  heads: ReadonlyMap<string, UnitHead>;
}

function WholeOf({ project, id, heads }: OneProps) {
  const { editor, arena } = useEncounter(project, id);
  return <Whole editor={editor} heads={heads} arena={arena} />;
}

function One({ project, id, heads, onOpen }: OneProps & { onOpen: (id: string | undefined) => void }) {
  const dispatch = useAppDispatch();
  const { search } = useLocation();
  const { encounter, arena, editor, lens, warnings } = useEncounter(project, id);
  const all = useWarnings();
  const accepted = useMemo(() => all.accepted.filter(({ path }) => path.startsWith(`/encounters/${id}/`)), [all.accepted, id]);
  const [selected, select] = useState<{ wave: string; group?: string }>();
  const units = plannedUnits(encounter, 'theirs');
  return (
    <main className="scroll flex min-h-0 min-w-0 flex-col" aria-label={encounter.name}>
      <div className="flex items-center gap-2.5 px-4 pb-2 pt-2">
        <h1 className="min-w-0 truncate text-page tracking-tight" title={encounter.name}>
          {encounter.name}
        </h1>
        <span className="shrink-0 rounded-[2px] border px-1.5 text-label leading-4 text-ink-2">
          {encounter.waves.length} {encounter.waves.length === 1 ? 'wave' : 'waves'}
        </span>
        <span className="min-w-0 flex-1 truncate text-ink-2" title={encounter.notes}>
          in{' '}
          <Link className="link !text-body" to={{ pathname: `/projects/${project.id}/arenas/${encounter.arena}`, search }}>
            {arena?.name ?? encounter.arena}
          </Link>
          , up to {units} {units === 1 ? 'enemy' : 'enemies'}
        </span>
        <WarningsButton project={project} lens={lens} open={warnings} accepted={accepted} apply={(edit) => dispatch(changed(edit))} />
        <Link className="btn" to={{ pathname: `/projects/${project.id}/history`, search }}>
          History
        </Link>
        <button
          type="button"
          className="btn"
          onClick={() => {
            dispatch(
              changed({
                document: without(project, { kind: 'encounter', id }),
                name: `${encounter.name} deleted`,
              }),
            );
            onOpen(undefined);
          }}
        >
          Delete
        </button>
      </div>
      <EncounterBench editor={editor} arena={arena} heads={heads} selected={selected} onSelect={select} />
    </main>
  );
}
