/** How many streams of events somebody may hold open: each holds a connection. */
import type { Request } from 'express';
import { tooManyStreams } from '../problem';
import { clientOf } from './access';

export const STREAMS_OF_ONE = 100;
export const STREAMS_OF_ALL = 1000;

const open = new Map<string, number>();
let all = 0;

/** Counts one more. @returns how to take it back @throws ProblemError */
export function openStream(request: Request): () => void {
  const client = clientOf(request);
  const own = open.get(client) ?? 0;
  if (own >= STREAMS_OF_ONE) throw tooManyStreams(`one client may hold ${STREAMS_OF_ONE} streams of events: close some`);
  if (all >= STREAMS_OF_ALL)
    throw tooManyStreams(`${STREAMS_OF_ALL} streams of events are open, which is all there may be: try again later`);
  open.set(client, own + 1);
  all++;
  return () => {
    all--;
    const left = open.get(client)! - 1;
    if (left) open.set(client, left);
    else open.delete(client);
  };
}
