import { type Project, newProject, parseProject } from '@insidia/core';
import { type ChangeEvent, type DragEvent, type FormEvent, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { type Listed, type Saved, api } from '../../server/api';
import { type Conflict, FileConflict } from './FileConflict';
import { ProjectRow } from './ProjectRow';
import { beside } from './names';

/** Every project of this server: begun, opened from a file, copied, named, deleted and brought back. */
export function ProjectsPage() {
  const [projects, setProjects] = useState<Listed[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [deleted, setDeleted] = useState<Awaited<ReturnType<typeof api.deleted>>>([]);
  const [gone, setGone] = useState<{ id: string; name: string }>();
  const [person, setPerson] = useState<string>();
  const [name, setName] = useState('');
  const [conflict, setConflict] = useState<Conflict>();
  const [over, setOver] = useState(false);
  const navigate = useNavigate();
  const look = () =>
    void Promise.all([api.list(), api.deleted()]).then(
      ([list, lost]) => {
        setProjects(list);
        setDeleted(lost);
      },
      (error: Error) => setTrouble(error.message),
    );
  useEffect(() => {
    document.title = 'Insidia';
    look();
    api.session().then(
      (session) => setPerson(session.name),
      () => undefined,
    );
  }, []);
  const failed = (error: Error) => setTrouble(error.message);
  const change = (what: Promise<unknown>) => {
    setTrouble(null);
    what.then(look, failed);
  };
  /** Opens what is made of it. */
  const opens = (what: Promise<Saved>) => {
    setTrouble(null);
    what.then(({ document: made }) => navigate(`/projects/${made.id}/enemies`), failed);
  };
  const asNew = (wanted: string) => beside(wanted, projects ?? [], deleted);
  const begin = (event: FormEvent) => {
    event.preventDefault();
    const own = asNew(name);
    opens(api.create(newProject(own.id, own.name)));
  };
  const copied = (document: Project) => api.create({ ...document, ...asNew(document.name) });
  const take = async (file: File | undefined) => {
    setConflict(undefined);
    setTrouble(null);
    if (!file) return;
    try {
      const given = parseProject(JSON.parse(await file.text()));
      if (projects?.some(({ id }) => id === given.id)) setConflict({ file: file.name, document: given, here: await api.load(given.id) });
      else opens(api.create(deleted.some(({ id }) => id === given.id) ? { ...given, id: asNew(given.name).id } : given));
    } catch (error) {
      setTrouble(`${file.name} was not taken: ${(error as Error).message}`);
    }
  };
  const chosen = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    void take(file);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void take(event.dataTransfer.files[0]);
  };
  return (
    <div
      className={`scroll min-h-full ${over ? 'bg-well' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <main className="mx-auto w-[640px] pb-10 pt-16">
        <h1 className="text-page">Insidia</h1>
        <p className="mt-1 text-ink-2">Define how enemies attack; see at once what that does to the fight.</p>
        <form className="mt-6 flex items-center gap-2" onSubmit={begin} aria-label="New project">
          <div className="field-box min-w-0 flex-1">
            <input
              aria-label="Name of the new project"
              className="w-full bg-transparent outline-none"
              placeholder="a name for a new project"
              autoComplete="off"
              maxLength={80}
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </div>
          <button className="btn btn-primary">New project</button>
        </form>
        <p className="mt-1 text-label text-ink-3">It begins with somebody to fight, a ground to fight on, and three skills.</p>
        {trouble && (
          <p role="alert" className="mt-4 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
            {trouble}
          </p>
        )}
        {conflict && (
          <FileConflict
            conflict={conflict}
            onCopy={() => opens(copied(conflict.document))}
            onReplace={() =>
              opens(api.replace(conflict.here.document.id, conflict.here.revision, conflict.document, `From ${conflict.file}`))
            }
            onCancel={() => setConflict(undefined)}
          />
        )}
        {gone && (
          <p role="status" className="mt-4 flex gap-3 bg-well px-2.5 py-1.5 text-table">
            <span className="min-w-0 flex-1 truncate">{gone.name} is deleted.</span>
            <button
              type="button"
              className="link"
              onClick={() => {
                change(api.bringBack(gone.id));
                setGone(undefined);
              }}
            >
              Undo
            </button>
          </p>
        )}
        <h2 className="mt-6 text-section">Projects</h2>
        <ul className="mt-1 border-t" aria-label="Projects">
          {projects?.map((project) => (
            <ProjectRow
              key={project.id}
              project={project}
              onRename={(to) =>
                change(
                  api.patch(project.id, project.revision, [{ op: 'replace', path: '/name', value: to }], `${project.name} is called ${to}`),
                )
              }
              onCopy={() => change(api.load(project.id).then(({ document: made }) => copied(made)))}
              onDelete={() => {
                change(api.remove(project.id, project.revision));
                setGone(project);
              }}
            />
          ))}
          {projects?.length === 0 && <li className="py-2 text-ink-2">None yet. Name one above, drop a file here, or load the demo.</li>}
        </ul>
        <div className="mt-4 flex flex-wrap items-center gap-2">
          <label className="btn cursor-pointer focus-within:outline-2">
            Open a project file …
            <input type="file" accept=".json" className="sr-only" onChange={chosen} />
          </label>
          <button type="button" className="btn" onClick={() => opens(api.demo('station'))}>
            The demo once more
          </button>
          <button type="button" className="btn" onClick={() => opens(api.demo('archive'))}>
            The demo in turns once more
          </button>
          <span className="text-label text-ink-3">or drop a file anywhere here</span>
        </div>
        {deleted.length > 0 && (
          <section aria-label="Deleted" className="mt-6 text-table text-ink-2">
            <h2 className="text-label text-ink-3">Deleted</h2>
            <ul>
              {deleted.map((one) => (
                <li key={one.id} className="flex gap-3 py-1">
                  <span className="min-w-0 flex-1 truncate">{one.name}</span>
                  <span className="text-ink-3">kept until {new Date(one.until).toLocaleDateString([], { dateStyle: 'medium' })}</span>
                  <button
                    type="button"
                    className="link"
                    aria-label={`Bring ${one.name} back`}
                    onClick={() => change(api.bringBack(one.id))}
                  >
                    bring back
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {person !== undefined && (
          <form method="post" action="/sign-out" className="mt-8 flex items-center gap-3 text-table text-ink-2">
            Signed in as {person}
            <button className="link">Sign out</button>
          </form>
        )}
      </main>
    </div>
  );
}
