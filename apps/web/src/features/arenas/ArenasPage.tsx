import {
  type Arena,
  Arena as ArenaClass,
  type Project,
  arenaFromGeoJson,
  arenaToGeoJson,
  blank,
  idFor,
  nameFor,
  parseProject,
  shown,
  takenIds,
} from '@insidia/core';
import { type ChangeEvent, useState } from 'react';
import { Navigate, useLocation, useNavigate, useParams } from 'react-router';
import { useObjectEditor } from '../../fields/useObjectEditor';
import { NewNamed } from '../../parts/NewNamed';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { ArenaEditor } from './ArenaEditor';
import { NotHere } from '../../parts/NotHere';

/** Arenas: the list, and the plan of the selected one, to scale. */
export function ArenasPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <Arenas project={project} />;
}

function Arenas({ project }: { project: Project }) {
  const params = useParams();
  const { search } = useLocation();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const [trouble, setTrouble] = useState<string | null>(null);
  const arena = project.arenas.find(({ id }) => id === params.arena);
  const base = `/projects/${project.id}/arenas`;
  const open = (id: string | undefined) => void navigate({ pathname: id ? `${base}/${id}` : base, search });
  const put = (made: Arena, name: string) => {
    dispatch(changed({ document: { ...project, arenas: [...project.arenas, made] }, name }));
    open(made.id);
  };
  const names = project.arenas.map((one) => one.name);
  const add = (from?: Arena, asked = from?.name ?? 'Arena') => {
    const name = nameFor(asked, names);
    const id = idFor(name, takenIds(project));
    put(
      from
        ? { ...structuredClone(from), id, name }
        : { ...blank(ArenaClass), id, name, spawnPoints: [{ id: 'door', name: 'Door', x: 15, y: 0, scatter: 1, facing: 180 }] },
      `New: ${name}`,
    );
  };
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (!file) return;
    try {
      const stem = file.name.replace(/\.[^.]+$/, '');
      const read = arenaFromGeoJson(JSON.parse(await file.text()), { id: idFor(stem, takenIds(project)) });
      read.name = nameFor(read.name, names);
      // The project’s own rules judge it before it is taken.
      parseProject(structuredClone({ ...project, arenas: [...project.arenas, read] }));
      put(read, `${read.name} from ${file.name}`);
      setTrouble(null);
    } catch (error) {
      setTrouble(`${file.name} was not taken: ${(error as Error).message}`);
    }
  };
  const importer = (
    <label
      className="btn cursor-pointer focus-within:outline-2"
      title="GeoJSON in plane coordinates: metres from the middle, x to the east, y to the north"
    >
      From GeoJSON …
      <input type="file" accept=".json,.geojson" className="sr-only" onChange={(event) => void take(event)} />
    </label>
  );
  if (!arena) {
    if (params.arena === undefined && project.arenas.length)
      return <Navigate to={{ pathname: `${base}/${project.arenas[0].id}`, search }} replace />;
    return (
      <NotHere
        asked={params.arena}
        nothing="No arena yet"
        about="An arena is a rectangle in metres with walls and cover, places where enemies appear, and a place where the party starts."
        others={project.arenas}
        to={(id) => ({ pathname: `${base}/${id}`, search })}
      >
        <NewNamed primary label="New arena" suggested={nameFor('Arena', names)} onName={(name) => add(undefined, name)} />
        {importer}
        {trouble && (
          <p role="alert" className="w-full border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
            {trouble}
          </p>
        )}
      </NotHere>
    );
  }
  const used = project.encounters.filter((encounter) => encounter.arena === arena.id);
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)]">
      <aside aria-label="Arenas" className="flex min-h-0 flex-col border-r bg-well">
        <h2 className="px-4 pb-2 pt-3 text-section">
          {project.arenas.length} {project.arenas.length === 1 ? 'arena' : 'arenas'}
        </h2>
        <ul className="scroll min-h-0 border-t">
          {project.arenas.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={one.id === arena.id ? 'true' : undefined}
                onClick={() => open(one.id)}
                className={`block h-11 w-full border-b border-hair px-4 text-left -outline-offset-2 ${one.id === arena.id ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
              >
                <span className={`block truncate leading-4 ${one.id === arena.id ? 'font-semibold' : ''}`}>{one.name}</span>
                <span className="block truncate text-label text-ink-3">
                  {shown(one.width)} × {shown(one.depth)} m, {one.walls.length} {one.walls.length === 1 ? 'wall' : 'walls'}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <div className="border-t px-4 pt-2 text-table">
          <b>Where it is used</b>
          {used.length ? used.map(({ id, name }) => <p key={id}>{name}</p>) : <p className="text-ink-2">In no encounter yet.</p>}
        </div>
        {trouble && (
          <p role="alert" className="m-3 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
            {trouble}
          </p>
        )}
        <span className="flex-1" />
        <div className="flex flex-wrap gap-1.5 px-4 pb-3 pt-2">
          <NewNamed label="New arena" suggested={nameFor('Arena', names)} onName={(name) => add(undefined, name)} />
          <button type="button" className="btn" onClick={() => add(arena)}>
            Copy
          </button>
          {importer}
          <a
            className="btn"
            download={`${arena.id}.geojson`}
            href={`data:application/geo+json,${encodeURIComponent(JSON.stringify(arenaToGeoJson(arena), null, 2))}`}
          >
            To GeoJSON
          </a>
          <button
            type="button"
            className="btn"
            disabled={used.length > 0}
            title={used.length ? 'it is used by encounters' : undefined}
            onClick={() => {
              dispatch(
                changed({
                  document: { ...project, arenas: project.arenas.filter(({ id }) => id !== arena.id) },
                  name: `${arena.name} deleted`,
                }),
              );
              open(undefined);
            }}
          >
            Delete
          </button>
        </div>
      </aside>
      <One key={arena.id} project={project} id={arena.id} />
    </div>
  );
}

function One({ project, id }: { project: Project; id: string }) {
  const editor = useObjectEditor(project, 'arenas', ArenaClass, id);
  return <ArenaEditor editor={editor} />;
}
