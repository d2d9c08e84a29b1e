/** How far a project's batches are, looked up once for all who listen, however many tabs and people that is. */
import { Inject, Injectable, Logger } from '@nestjs/common';
import {
  type Observable,
  distinctUntilChanged,
  exhaustMap,
  filter,
  finalize,
  from,
  map,
  of,
  share,
  ReplaySubject,
  timer,
  catchError,
} from 'rxjs';
import { Shards } from './shards';

/** ms between two looks. */
const LOOK_MS = 300;

type Found = Awaited<ReturnType<Shards['progress']>>;

@Injectable()
export class ProgressFeed {
  private readonly log = new Logger(ProgressFeed.name);
  private readonly feeds = new Map<string, Observable<Found>>();

  constructor(@Inject(Shards) private readonly shards: Shards) {}

  /** Now, and again whenever it has changed; also when something began and ended between two looks. */
  of(project: string): Observable<Found> {
    let feed = this.feeds.get(project);
    if (!feed) {
      feed = timer(0, LOOK_MS).pipe(
        // A look that takes long is not overtaken by the next.
        exhaustMap(() =>
          from(this.look(project)).pipe(
            catchError((error: unknown) => {
              this.log.error(error);
              return of(undefined);
            }),
          ),
        ),
        filter((found) => found !== undefined),
        map((look) => ({ found: look.found, text: JSON.stringify(look) })),
        distinctUntilChanged((a, b) => a.text === b.text),
        map(({ found }) => found),
        finalize(() => this.feeds.delete(project)),
        share({ connector: () => new ReplaySubject(1), resetOnRefCountZero: true }),
      );
      this.feeds.set(project, feed);
    }
    return feed;
  }

  private async look(project: string): Promise<{ found: Found; finished: number }> {
    const [found, finished] = await Promise.all([this.shards.progress(project), this.shards.finished(project)]);
    return { found, finished };
  }
}
