import { useEffect } from 'react';
import { Navigate, Outlet, Route, Routes, useParams } from 'react-router';
import { useStore } from 'react-redux';
import { UnitsPage } from '../features/enemies/UnitsPage';
import { ProjectsPage } from '../features/projects/ProjectsPage';
import { openProject } from '../store/saving';
import { type AppStore, useAppSelector } from '../store/store';
import { TopBar } from './TopBar';

export function App() {
  return (
    <Routes>
      <Route index element={<ProjectsPage />} />
      <Route path="projects/:project" element={<ProjectShell />}>
        <Route index element={<Navigate to="enemies" replace />} />
        <Route path="enemies/:unit?" element={<UnitsPage side="enemy" />} />
        <Route path="enemies/:unit/attacks/:attack" element={<UnitsPage side="enemy" />} />
        <Route path="party/:unit?" element={<UnitsPage side="party" />} />
        <Route path="party/:unit/attacks/:attack" element={<UnitsPage side="party" />} />
      </Route>
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}

/** Loads the project of the address and keeps it; everything below has a document. */
function ProjectShell() {
  const { project: id } = useParams();
  const store = useStore() as AppStore;
  const { document, status, trouble } = useAppSelector((state) => state.document);
  useEffect(() => {
    if (id) void openProject(store, id);
  }, [id, store]);
  useEffect(() => {
    if (document) window.document.title = `${document.name} · Insidia`;
  }, [document]);
  if (status === 'missing')
    return <Message title="There is no such project">The address names a project that this server does not have.</Message>;
  if (status === 'away')
    return (
      <Message title="The server does not answer">
        {trouble}. This page tries again every two seconds; unsaved work of an earlier visit is kept in this browser.
      </Message>
    );
  if (!document) return <Message title="Opening …">Fetching the project.</Message>;
  return (
    <div className="grid h-full grid-rows-[var(--bar-h)_minmax(0,1fr)]">
      <TopBar project={document} />
      <Outlet />
    </div>
  );
}

function Message({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <main className="mx-auto mt-24 w-[420px]">
      <h1 className="text-page">{title}</h1>
      <p className="mt-2 text-ink-2">{children}</p>
      <a className="btn mt-4" href="/">
        All projects
      </a>
    </main>
  );
}
