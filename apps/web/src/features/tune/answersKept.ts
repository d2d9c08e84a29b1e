/**
 * What a search has been answered, kept in the browser, so that one that was cut off by a closed page is gone on with where it
 * was. Of the last few searches alone; a browser that keeps nothing is as if nothing had been kept.
 */
import type { AskedRuns, NoFight } from '@insidia/core';
import { createStore, del, get, keys, set } from 'idb-keyval';

type Came = (AskedRuns | NoFight)[];

/** Searches that are kept. */
const MOST = 4;

const store = () => createStore('insidia-searches', 'answers');

/** SHA-256 of what makes a search what it is. */
export async function searchKey(of: unknown): Promise<string> {
  const bytes = new TextEncoder().encode(JSON.stringify(of));
  // A page that is served without encryption from another machine has no digests: then nothing is kept.
  if (!globalThis.crypto?.subtle) return '';
  return Array.from(new Uint8Array(await crypto.subtle.digest('SHA-256', bytes)), (one) => one.toString(16).padStart(2, '0')).join('');
}

/** Answers of one search, by the number of the step. */
export class AnswersKept {
  private readonly own: ReturnType<typeof createStore> | undefined;

  /** @param key without one nothing is kept, and nothing found: one search's answers are no other's */
  constructor(private readonly key: string) {
    this.own = key === '' ? undefined : store();
  }

  async of(step: number): Promise<Came | undefined> {
    if (!this.own) return undefined;
    return get<Came>(`${this.key} ${step}`, this.own).catch(() => undefined);
  }

  async keep(step: number, came: Came): Promise<void> {
    if (!this.own) return;
    try {
      if (step === 0) await this.forgetOthers(this.own);
      await set(`${this.key} ${step}`, came, this.own);
    } catch {
      // No room, or not allowed: a search that is cut off begins anew.
    }
  }

  private async forgetOthers(own: ReturnType<typeof createStore>): Promise<void> {
    const all = (await keys<string>(own)).filter((one) => typeof one === 'string');
    const others = [...new Set(all.map((one) => one.split(' ')[0]))].filter((one) => one !== this.key);
    const gone = new Set(others.slice(0, Math.max(0, others.length - MOST + 1)));
    for (const one of all) if (gone.has(one.split(' ')[0])) await del(one, own);
  }
}
