/** Autosave: what differs from the last acknowledged revision is sent a moment after the last change, until it is taken. */
import { type Project, difference, sameJson } from '@insidia/core';
import { Away, Refused, type Saved, Stale, api } from './api';
import { merge, opened, openFailed, opening, overtaken, savingBegan, savingDone, savingFailed } from './document';
import type { AppStore } from './store';

const QUIET_MS = 350;
const RETRY_MS = 2000;

interface Kept {
  base: Saved;
  document: Project;
}

const keepKey = (id: string) => `insidia.unsaved.${id}`;

/** Work the server has not acknowledged yet, kept in the browser so that closing the tab loses nothing. */
function keep(id: string, kept: Kept | null): void {
  try {
    if (kept) localStorage.setItem(keepKey(id), JSON.stringify(kept));
    else localStorage.removeItem(keepKey(id));
  } catch {
    /* a full or forbidden storage must not stop the work; the save state says what is not saved */
  }
}

function recall(id: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(keepKey(id)) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

/** Opens a project: the server's version, with unsaved work of an earlier visit on top. */
export async function openProject(store: AppStore, id: string): Promise<void> {
  store.dispatch(opening(id));
  try {
    const saved = await api.load(id);
    if (store.getState().document.id !== id) return;
    const kept = recall(id);
    if (!kept || sameJson(kept.document, saved.document)) return void store.dispatch(opened({ saved }));
    const result = merge(kept.base.document, kept.document, saved.document);
    if ('merged' in result) return void store.dispatch(opened({ saved, unsaved: result.merged }));
    store.dispatch(opened({ saved: kept.base, unsaved: kept.document }));
    store.dispatch(overtaken(saved));
  } catch (error) {
    if (store.getState().document.id !== id) return;
    const missing = error instanceof Refused && error.status === 404;
    store.dispatch(openFailed({ status: missing ? 'missing' : 'away', trouble: (error as Error).message }));
    if (!missing) setTimeout(() => store.getState().document.status === 'away' && void openProject(store, id), RETRY_MS);
  }
}

/** Watches the store and saves. */
export function startSaving(store: AppStore): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let busy = false;
  let seen: Project | null = null;
  let seenSaved: Saved | null = null;

  const plan = (wait: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), wait);
  };

  async function save(keepalive = false): Promise<void> {
    const { id, document, saved, saving, past } = store.getState().document;
    if (busy || !id || !document || !saved || saving === 'conflict') return;
    const operations = difference(saved.document, document);
    if (!operations.length) {
      if (saving !== 'saved') store.dispatch(savingDone({ revision: saved.revision, document }));
      return;
    }
    busy = true;
    store.dispatch(savingBegan());
    try {
      store.dispatch(savingDone(await api.patch(id, saved.revision, operations, labelOf(past.map(({ name }) => name)), keepalive)));
    } catch (error) {
      if (error instanceof Stale) store.dispatch(overtaken(error.current));
      else if (error instanceof Away) {
        store.dispatch(savingFailed({ saving: 'away', trouble: error.message }));
        plan(RETRY_MS);
      } else store.dispatch(savingFailed({ saving: 'refused', trouble: (error as Error).message }));
    } finally {
      busy = false;
    }
    if (store.getState().document.saving === 'waiting') plan(QUIET_MS);
  }

  store.subscribe(() => {
    const { id, document, saved, saving } = store.getState().document;
    if (!id || !document || !saved) return;
    if (document !== seen || saved !== seenSaved) {
      seen = document;
      seenSaved = saved;
      if (saving === 'waiting') plan(QUIET_MS);
    }
    keep(id, saving === 'saved' ? null : { base: saved, document });
  });
  addEventListener('online', () => plan(0));
  addEventListener('pagehide', () => void save(true));
}

function labelOf(names: string[]): string {
  return names[names.length - 1] ?? 'Changed';
}
