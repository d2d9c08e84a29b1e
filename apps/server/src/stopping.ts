import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';

/** Counts the requests that have no answer yet. */
export class InFlight {
  private count = 0;
  private waiting: (() => void)[] = [];

  readonly middleware = (request: Request, response: Response, next: NextFunction): void => {
    // A stream of events has no end to wait for.
    if (request.headers.accept?.includes('text/event-stream')) return next();
    this.count++;
    response.once('close', () => {
      if (--this.count === 0) this.waiting.splice(0).forEach((done) => done());
    });
    next();
  };

  /** Resolves once none is left. */
  none(): Promise<void> {
    return this.count === 0 ? Promise.resolve() : new Promise((done) => this.waiting.push(done));
  }
}

/**
 * No new connections; requests in flight are answered; then workers and database are let go. Connections that are open
 * without a request (browsers keep such in store) would hold the server for a minute: they are closed once nothing is in
 * flight.
 */
export function stopOn(app: NestExpressApplication, inFlight: InFlight, signals: NodeJS.Signals[]): void {
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    const http = app.getHttpServer();
    http.close();
    await inFlight.none();
    http.closeAllConnections();
    await app.close();
    process.exit(0);
  };
  for (const signal of signals) process.on(signal, () => void stop());
  // Whoever started it is gone: a server that nobody can stop any more stops itself.
  process.on('disconnect', () => void stop());
}
