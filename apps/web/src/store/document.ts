/** The one store of the document: named, undoable changes; what is saved, what is not yet; results are kept elsewhere. */
import { type PatchOperation, type Project, difference, patched, patchesOverlap, sameJson, sharing } from '@insidia/core';
import { type PayloadAction, createSlice, original } from '@reduxjs/toolkit';
import type { Saved } from '../server/api';
import { turnsFilled } from './turns';

/** A number that went from one value to another, each in words. */
export interface Moved {
  what: string;
  from: string;
  to: string;
}

/** "Clipper health 22 → 25 hp" */
export const movedWords = ({ what, from, to }: Moved): string => `${what} ${from} → ${to}`;

/** One change: what it is called, and the way forth and back. */
export interface Change {
  name: string;
  /** Where it is a number that went from one value to another: another step of the same drag goes on from the first. */
  moved?: Moved;
  forward: PatchOperation[];
  back: PatchOperation[];
  /** Changes with the same mark made in a row are one (the moves of a drag). */
  mark?: string;
}

/** What can be undone and redone. */
export type History = Pick<DocumentState, 'past' | 'future'>;

export type SaveState = 'saved' | 'waiting' | 'saving' | 'away' | 'conflict' | 'refused';

export interface DocumentState {
  id: string | null;
  status: 'loading' | 'ready' | 'missing' | 'away';
  document: Project | null;
  /** The newest revision the server has acknowledged. */
  saved: Saved | null;
  /** The document as it was when it was opened. */
  opened: Project | null;
  past: Change[];
  future: Change[];
  /** The document before the newest change, undo or redo: what the readout compares with. */
  before: Project | null;
  /** Name of that change. */
  lastChange: string | null;
  saving: SaveState;
  /** ms since 1970 */
  savedAt: number | null;
  /** What is wrong, when saving is refused or the server is away. */
  trouble: string | null;
  /** The server's version where both changed the same place. */
  theirs: Saved | null;
}

const initialState: DocumentState = {
  id: null,
  status: 'loading',
  document: null,
  saved: null,
  opened: null,
  past: [],
  future: [],
  before: null,
  lastChange: null,
  saving: 'saved',
  savedAt: null,
  trouble: null,
  theirs: null,
};

const MOST_UNDO = 500;

/**
 * One person's unsaved changes on top of what another has saved: both, where they touch different places.
 * @returns the merged document, or the paths that both changed
 */
export function merge(base: Project, mine: Project, theirs: Project): { merged: Project } | { clash: string[] } {
  const own = difference(base, mine);
  const clash = patchesOverlap(own, difference(base, theirs));
  if (clash.length && !sameJson(mine, theirs)) return { clash };
  return { merged: clash.length ? theirs : patched(theirs, own) };
}

/** A reducer that makes a new state of the old one; it sees plain data, because documents are compared and cloned whole. */
const pure =
  <A extends unknown[]>(reduce: (state: DocumentState, ...rest: A) => DocumentState) =>
  (draft: DocumentState, ...rest: A): DocumentState =>
    reduce(original(draft) as DocumentState, ...rest);

const slice = createSlice({
  name: 'document',
  initialState,
  reducers: {
    opening: (_state, { payload }: PayloadAction<string>) => ({ ...initialState, id: payload }),
    openFailed: pure((state, { payload }: PayloadAction<{ status: 'missing' | 'away'; trouble: string }>) => ({ ...state, ...payload })),
    /** The server's version, and work of an earlier visit that had not been saved, if there is any. */
    opened: pure((state, { payload }: PayloadAction<{ saved: Saved; unsaved?: Project; history?: History }>) => {
      const document = payload.unsaved ?? payload.saved.document;
      const waiting = payload.unsaved !== undefined;
      return {
        ...state,
        status: 'ready',
        document,
        opened: payload.saved.document,
        ...payload.history,
        saved: payload.saved,
        saving: waiting ? 'waiting' : 'saved',
        savedAt: Date.now(),
        trouble: null,
      };
    }),
    changed: pure((state, { payload }: PayloadAction<{ document: Project; name: string; moved?: Moved; mark?: string }>) => {
      const { mark } = payload;
      // Whatever is added to a fight in turns says there what it is in turns.
      const current = state.document as Project;
      const document = sharing(current, turnsFilled(payload.document));
      const last = state.past[state.past.length - 1];
      const continues = mark !== undefined && last?.mark === mark && state.future.length === 0;
      const from = continues ? patched(current, last.back) : current;
      const forward = difference(from, document);
      const past = continues ? state.past.slice(0, -1) : state.past;
      if (!forward.length) return { ...state, document, past, before: null, lastChange: null };
      const moved = continues && last.moved && payload.moved ? { ...payload.moved, from: last.moved.from } : payload.moved;
      const name = moved ? movedWords(moved) : payload.name;
      const change: Change = { name, ...(moved && { moved }), forward, back: difference(document, from), mark };
      return {
        ...state,
        document,
        past: [...past, change].slice(-MOST_UNDO),
        future: [],
        before: from,
        lastChange: change.name,
        saving: state.saving === 'conflict' ? 'conflict' : 'waiting',
        trouble: null,
      };
    }),
    undone: pure((state) => step(state, state.past, (change, past, document) => ({ past, future: [...state.future, change], document }))),
    redone: pure((state) => step(state, state.future, (change, future, document) => ({ future, past: [...state.past, change], document }))),
    savingBegan: pure((state) => ({ ...state, saving: 'saving' as const })),
    savingDone: pure((state, { payload }: PayloadAction<Saved>) => {
      const document = sharing(state.document as Project, payload.document);
      const more = document !== state.document;
      return {
        ...state,
        saved: { ...payload, document },
        saving: more ? ('waiting' as const) : ('saved' as const),
        savedAt: Date.now(),
        trouble: null,
        theirs: null,
      };
    }),
    savingFailed: pure((state, { payload }: PayloadAction<{ saving: 'away' | 'refused'; trouble: string }>) => ({ ...state, ...payload })),
    /** Another tab or person has saved first. */
    overtaken: pure((state, { payload: theirs }: PayloadAction<Saved>) => {
      const mine = state.document as Project;
      const result = merge((state.saved as Saved).document, mine, theirs.document);
      if ('clash' in result) return { ...state, saving: 'conflict' as const, theirs };
      const done = sameJson(result.merged, theirs.document);
      return {
        ...state,
        document: sharing(mine, result.merged),
        saved: theirs,
        saving: done ? ('saved' as const) : ('waiting' as const),
        savedAt: Date.now(),
        theirs: null,
        trouble: null,
      };
    }),
    /** A conflict is settled: mine on top of theirs, or theirs alone. Either way it is one undoable change. */
    settled: pure((state, { payload }: PayloadAction<'mine' | 'theirs'>) => {
      if (!state.theirs) return state;
      const document = payload === 'mine' ? (state.document as Project) : state.theirs.document;
      const kept = payload === 'mine' ? 'waiting' : 'saved';
      return {
        ...state,
        document,
        saved: state.theirs,
        saving: kept,
        theirs: null,
        ...(payload === 'theirs' && { past: [], future: [], before: null, lastChange: null }),
      };
    }),
  },
});

/** Takes the newest change off a stack and plays it; one that no longer fits the document is dropped. */
function step(
  state: DocumentState,
  stack: Change[],
  then: (change: Change, rest: Change[], document: Project) => Partial<DocumentState>,
): DocumentState {
  const change = stack[stack.length - 1];
  const current = state.document;
  if (!change || !current) return state;
  const back = stack === state.past;
  const rest = stack.slice(0, -1);
  try {
    const document = patched(current, back ? change.back : change.forward);
    const saving = state.saving === 'conflict' ? 'conflict' : 'waiting';
    return {
      ...state,
      ...then({ ...change, mark: undefined }, rest, document),
      before: current,
      lastChange: `${back ? 'Undo' : 'Redo'}: ${change.name}`,
      saving,
      trouble: null,
    };
  } catch {
    return { ...state, ...(back ? { past: rest } : { future: rest }) };
  }
}

export const { opening, openFailed, opened, changed, undone, redone, savingBegan, savingDone, savingFailed, overtaken, settled } =
  slice.actions;
export const documentReducer = slice.reducer;
