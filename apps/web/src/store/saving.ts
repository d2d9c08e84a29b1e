/** Autosave: what differs from the last acknowledged revision is sent a moment after the last change, until it is taken. */
import { type Project, difference, sameJson } from '@insidia/core';
import { Away, Refused, type Saved, Stale, api } from '../server/api';
import {
  type Change,
  type DocumentState,
  type History,
  merge,
  opened,
  openFailed,
  opening,
  overtaken,
  savingBegan,
  savingDone,
  savingFailed,
} from './document';
import type { AppStore } from './store';
import { readyForTurns } from './turns';

const QUIET_MS = 350;
const RETRY_MS = 2000;
const KEEP_MS = 150;

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

const undoKey = (id: string) => `insidia.undo.${id}`;
const KEPT_UNDO = 100;

/** What can be undone outlives a reload of the tab, as long as nobody else has saved in between. */
function keepHistory(id: string, revision: number, { past, future }: History): void {
  try {
    sessionStorage.setItem(undoKey(id), JSON.stringify({ revision, past: past.slice(-KEPT_UNDO), future: future.slice(-KEPT_UNDO) }));
  } catch {
    /* without room for it a reload begins a new history; nothing else depends on it */
  }
}

function recallHistory(id: string, revision: number): History | undefined {
  try {
    const kept = JSON.parse(sessionStorage.getItem(undoKey(id)) ?? 'null') as (History & { revision: number }) | null;
    return kept?.revision === revision ? { past: kept.past, future: kept.future } : undefined;
  } catch {
    return undefined;
  }
}

/** What is not saved was made before the page was opened: the names of its changes are gone. */
let recalled = false;

/** Opens a project: the server's version, with unsaved work of an earlier visit on top. */
export async function openProject(store: AppStore, id: string): Promise<void> {
  store.dispatch(opening(id));
  try {
    const saved = await api.load(id);
    if (store.getState().document.id !== id) return;
    const kept = recall(id);
    const history = recallHistory(id, kept?.base.revision ?? saved.revision);
    if (!kept || sameJson(kept.document, saved.document)) return void store.dispatch(opened({ saved, history }));
    const result = merge(kept.base.document, kept.document, saved.document);
    recalled = true;
    if ('merged' in result) return void store.dispatch(opened({ saved, unsaved: result.merged, history }));
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
  /** The newest change that the server has. */
  let lastSent: Change | undefined;
  const others = new BroadcastChannel('insidia.saved');

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
      const label = recalled ? 'Work of an earlier visit' : labelOf(past.slice(past.findIndex((change) => change === lastSent) + 1));
      const answer = await api.patch(id, saved.revision, operations, label, keepalive);
      lastSent = past[past.length - 1];
      recalled = false;
      store.dispatch(savingDone(answer));
      others.postMessage({ id, revision: answer.revision });
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

  let seenState: DocumentState | null = null;
  let keeping: ReturnType<typeof setTimeout> | undefined;
  /** Writes down what is not saved, or what can be undone: a moment after the last change, for it takes a while itself. */
  const keepNow = () => {
    clearTimeout(keeping);
    const { id, document, saved, saving, past, future } = store.getState().document;
    if (!id || !document || !saved) return;
    keep(id, saving === 'saved' ? null : { base: saved, document });
    if (saving === 'saved') keepHistory(id, saved.revision, { past, future });
  };

  store.subscribe(() => {
    const state = store.getState().document;
    const { id, document, saved, saving } = state;
    if (state === seenState || !id || !document || !saved) return;
    seenState = state;
    if (document !== seen || saved !== seenSaved) {
      seen = document;
      seenSaved = saved;
      readyForTurns(document);
      if (saving === 'waiting') plan(QUIET_MS);
    }
    clearTimeout(keeping);
    keeping = setTimeout(keepNow, KEEP_MS);
  });

  /** Looks whether somebody else has saved since, and takes that in: merged, or shown as a conflict. */
  async function catchUp(): Promise<void> {
    const { id, saved, saving } = store.getState().document;
    if (!id || !saved || busy || saving === 'conflict') return;
    const newest = await api.load(id).catch(() => null);
    const now = store.getState().document;
    if (newest && now.id === id && now.saved && newest.revision > now.saved.revision && !busy) store.dispatch(overtaken(newest));
  }
  others.onmessage = ({ data }: MessageEvent<{ id: string; revision: number }>) => {
    const { id, saved } = store.getState().document;
    if (data.id === id && saved && data.revision > saved.revision) void catchUp();
  };
  document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && void catchUp());
  addEventListener('online', () => plan(0));
  addEventListener('pagehide', () => {
    keepNow();
    void save(true);
  });
}

/** What the changes of one write are called together. */
function labelOf(changes: readonly Change[]): string {
  const names = [...new Set(changes.map(({ name }) => name))];
  return names.slice(-6).join('; ') || 'Changed';
}
