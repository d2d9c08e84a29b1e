import type { Project } from '@insidia/core';
import { Suspense, useCallback, useEffect, useMemo, useRef } from 'react';
import { Navigate, Outlet, Route, Routes, useLocation, useNavigate, useParams } from 'react-router';
import { useStore } from 'react-redux';
import { Turning } from '../fields/turning';
import { UnitsPage } from '../features/enemies/UnitsPage';
import { Guard, LoadAnew } from '../parts/guarded';
import { fetchFailed, useFetched } from '../store/fetched';
import { openProject } from '../store/saving';
import { batchesRefused, readAgain } from '../server/batches';
import { type AppStore, useAppDispatch, useAppSelector } from '../store/store';
import { prepareReadouts } from '../readout/useReadout';
import { useProgress } from '../server/useProgress';
import { useInspection } from '../warnings/useWarnings';
import { fetchLater, later, laterWithin, whenIdle } from '../parts/later';
import { Through } from './Through';
import { TopBar } from './TopBar';
import { useView } from './view';

// Not needed for the first view: fetched when nothing else is to be done, or when they are opened.
const FirstSteps = laterWithin(async () => (await import('./FirstSteps')).FirstSteps);
const ProjectsPage = later(async () => (await import('../features/projects/ProjectsPage')).ProjectsPage);
const TablePage = later(async () => (await import('../features/table/TablePage')).TablePage);
const ArenasPage = later(async () => (await import('../features/arenas/ArenasPage')).ArenasPage);
const EncountersPage = later(async () => (await import('../features/encounters/EncountersPage')).EncountersPage);
const BoardPage = later(async () => (await import('../features/board/BoardPage')).BoardPage);
const DifficultyPage = later(async () => (await import('../features/difficulty/DifficultyPage')).DifficultyPage);
const BriefPage = later(async () => (await import('../features/brief/BriefPage')).BriefPage);
const PacingPage = later(async () => (await import('../features/pacing/PacingPage')).PacingPage);
const ReplayPage = later(async () => (await import('../features/replay/ReplayPage')).ReplayPage);
const TunePage = later(async () => (await import('../features/tune/TunePage')).TunePage);
const HistoryPage = later(async () => (await import('../features/history/HistoryPage')).HistoryPage);

export function App() {
  return (
    <Routes>
      <Route
        index
        element={
          <Suspense fallback={null}>
            <ProjectsPage />
          </Suspense>
        }
      />
      <Route path="projects/:project" element={<ProjectShell />}>
        <Route index element={<Navigate to="enemies" replace />} />
        <Route path="enemies/:unit?" element={<UnitsPage side="enemy" />} />
        <Route path="enemies/:unit/attacks/:attack" element={<UnitsPage side="enemy" />} />
        <Route path="party/:unit?" element={<UnitsPage side="party" />} />
        <Route path="party/:unit/attacks/:attack" element={<UnitsPage side="party" />} />
        <Route path="arenas/:arena?" element={<ArenasPage />} />
        <Route path="encounters/:encounter?" element={<EncountersPage />} />
        <Route path="difficulty/:list?" element={<DifficultyPage />} />
        <Route path="brief" element={<BriefPage />} />
        <Route path="board" element={<BoardPage />} />
        <Route path="pacing/:encounter?" element={<PacingPage />} />
        <Route path="replay/:encounter?" element={<ReplayPage />} />
        <Route path="tune" element={<TunePage />} />
        <Route path="table/:side" element={<TablePage />} />
        <Route path="history" element={<HistoryPage />} />
      </Route>
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}

/** Loads the project of the address and keeps it; everything below has a document. */
function ProjectShell() {
  const { project: id } = useParams();
  const store = useStore() as AppStore;
  const document = useAppSelector((state) => state.document.document);
  const status = useAppSelector((state) => state.document.status);
  const trouble = useAppSelector((state) => state.document.trouble);
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
  return <Opened project={document} />;
}

function Opened({ project: document }: { project: Project }) {
  const [view] = useView(document);
  const { pathname } = useLocation();
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  useInspection(document, lens);
  useProgress(document.id);
  useEffect(fetchLater, []);
  const navigate = useNavigate();
  const fetched = useFetched();
  const turn = useCallback(
    (pointer: string) =>
      fetched(
        'Tune',
        () => import('../features/tune/address'),
        ({ turnSearch }) => void navigate({ pathname: `/projects/${document.id}/tune`, search: turnSearch(document, pointer, lens) }),
      ),
    [document, fetched, lens, navigate],
  );
  const opened = useRef(document);
  useEffect(() => whenIdle(() => prepareReadouts(opened.current)), []);
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <div className="min-w-0">
        <Guard name="The top bar" shows={document}>
          <TopBar project={document} />
          <Through project={document} />
          <FirstSteps key={document.id} project={document} />
        </Guard>
      </div>
      <Refusal />
      <Unread />
      <Guard name="This page" shows={`${pathname} ${document.id}`}>
        <Turning value={turn}>
          <Suspense fallback={<main className="p-4 text-ink-3">Opening …</main>}>
            <Outlet />
          </Suspense>
        </Turning>
      </Guard>
    </div>
  );
}

/** Why what was asked for was not done, whichever view asked: runs, or a part of the program that could not be fetched. */
function Refusal() {
  const dispatch = useAppDispatch();
  const refused = useAppSelector((state) => state.batches.refused);
  const failed = useAppSelector((state) => state.fetched.failed);
  if (refused === null && failed === null) return null;
  return (
    <div role="alert" className="fixed bottom-4 right-4 z-40 max-w-[460px] border border-warn bg-sheet p-3 text-table shadow">
      <p className="font-semibold text-warn">
        {refused === null ? `${failed?.what} could not be fetched; loading the page anew loses nothing` : 'Not run'}
      </p>
      <p className="mt-1">{refused ?? failed?.why}</p>
      <p className="mt-1.5 flex flex-wrap gap-1.5">
        {/* A browser may keep a failure for as long as the page is there. */}
        {refused === null && <LoadAnew />}
        <button type="button" className="btn" onClick={() => dispatch(refused === null ? fetchFailed(null) : batchesRefused(null))}>
          Close
        </button>
      </p>
    </div>
  );
}

/** Why what has been run can't be shown: whichever view asked. What is away, or not saved yet, the save state tells. */
function Unread() {
  const dispatch = useAppDispatch();
  const unread = useAppSelector((state) => state.batches.unread);
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  if (!unread || !saved) return null;
  return (
    <div role="status" className="fixed bottom-4 left-4 z-40 max-w-[460px] border border-ink-3 bg-sheet p-3 text-table shadow">
      <p className="font-semibold">What has been run can’t be read</p>
      <p className="mt-1">{unread}</p>
      <button type="button" className="btn mt-2" onClick={() => dispatch(readAgain())}>
        Read it again
      </button>
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
