import { type ChangeEvent, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type Listed, api } from '../../server/api';

/** Every project of this server, and the way to open one from a file. */
export function ProjectsPage() {
  const [projects, setProjects] = useState<Listed[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [deleted, setDeleted] = useState<Awaited<ReturnType<typeof api.deleted>>>([]);
  const [person, setPerson] = useState<string>();
  const navigate = useNavigate();
  const look = () =>
    void Promise.all([api.list(), api.deleted()]).then(
      ([list, gone]) => {
        setProjects(list);
        setDeleted(gone);
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
  const change = (what: Promise<void>) => void what.then(look, (error: Error) => setTrouble(error.message));
  const open = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (!file) return;
    try {
      const { document: created } = await api.create(JSON.parse(await file.text()));
      await navigate(`/projects/${created.id}/enemies`);
    } catch (error) {
      setTrouble(`${file.name} was not taken: ${(error as Error).message}`);
    }
  };
  return (
    <main className="mx-auto w-[560px] pt-20">
      <h1 className="text-page">Insidia</h1>
      <p className="mt-1 text-ink-2">Define how enemies attack; see at once what that does to the fight.</p>
      {trouble && (
        <p role="alert" className="mt-4 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
          {trouble}
        </p>
      )}
      <h2 className="mt-8 text-section">Projects</h2>
      <ul className="mt-1 border-t">
        {projects?.map(({ id, name, revision, updatedAt }) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-hair py-2">
            <Link to={`/projects/${id}/enemies`} className="min-w-0 flex-1 truncate font-semibold">
              {name}
            </Link>
            <span className="text-table text-ink-3">
              revision {revision}, {new Date(updatedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short', hour12: false })}
            </span>
            <a className="text-table underline decoration-rule" href={`/api/projects/${id}`} download={`${id}.insidia.json`}>
              save as a file
            </a>
            <button
              type="button"
              className="link text-table"
              aria-label={`Delete ${name}`}
              onClick={() => change(api.remove(id, revision))}
            >
              delete
            </button>
          </li>
        ))}
        {projects?.length === 0 && (
          <li className="py-2 text-ink-2">None yet. Open a project file, or start the server with an empty database to get the demo.</li>
        )}
      </ul>
      {deleted.length > 0 && (
        <section aria-label="Deleted" className="mt-6 text-table text-ink-2">
          <h2 className="text-label text-ink-3">Deleted</h2>
          <ul>
            {deleted.map((one) => (
              <li key={one.id} className="flex gap-3 py-1">
                <span className="min-w-0 flex-1 truncate">{one.name}</span>
                <span className="text-ink-3">kept until {new Date(one.until).toLocaleDateString([], { dateStyle: 'medium' })}</span>
                <button type="button" className="link" aria-label={`Bring ${one.name} back`} onClick={() => change(api.bringBack(one.id))}>
                  bring back
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <label className="btn mt-4 cursor-pointer focus-within:outline-2">
        Open a project file …
        <input type="file" accept=".json" className="sr-only" onChange={(event) => void open(event)} />
      </label>
      {person !== undefined && (
        <form method="post" action="/sign-out" className="mt-8 flex items-center gap-3 text-table text-ink-2">
          Signed in as {person}
          <button className="link">Sign out</button>
        </form>
      )}
    </main>
  );
}
