/**
 * The way in where there is a password: a page to sign in, a way out, and a look at each request. A client without pages
 * signs in with JSON and shows what it gets as a bearer token.
 */
import type { NestExpressApplication } from '@nestjs/platform-express';
import cookieParser from 'cookie-parser';
import { type NextFunction, type Request, type RequestHandler, type Response, json, urlencoded } from 'express';
import { rateLimit } from 'express-rate-limit';
import { badRequest, signInFirst, tooManyTries, wrongPassword } from '../problem';
import { SESSION_MS, type Session, type Sessions } from './sessions';
import { signInPage } from './sign-in-page';

const COOKIE = 'insidia-session';
/** What is asked without being signed in: whether the server is there. */
const OPEN = ['/sign-in', '/api/health'];
/** Wrong passwords from one address in a minute, and from all of them. */
export const TRIES = 5;
const TRIES_OF_ALL = 60;
const MINUTE_MS = 60_000;
const LONGEST_NAME = 60;

const sessionOf = new WeakMap<Request, Session>();

/** Who asks; undefined where there is no password. */
export const nameOf = (request: Request): string | undefined => sessionOf.get(request)?.name;

/** Who it is that limits are counted for: whoever is signed in, else an address. */
export const clientOf = (request: Request): string => sessionOf.get(request)?.id ?? request.socket.remoteAddress ?? '';

/** Whether the one who asked is signed in still: asked again and again by what has no end. */
export const goesOn = (sessions: Sessions | undefined, request: Request): boolean => {
  const session = sessionOf.get(request);
  return !sessions || (session !== undefined && sessions.goesOn(session));
};

const wantsPage = ({ headers, method, path }: Request) =>
  method === 'GET' && !path.startsWith('/api/') && (headers.accept ?? '').includes('text/html');
const speaksJson = ({ headers }: Request) => (headers['content-type'] ?? '').startsWith('application/json');
const overTls = (request: Request) => request.secure || request.headers['x-forwarded-proto'] === 'https';
/** A place of this server's own, and no other's. */
const own = (next: unknown): string => (typeof next === 'string' && /^\/(?![/\\])[^\s\\]*$/.test(next) ? next : '/');

export function guard(app: NestExpressApplication, sessions: Sessions | undefined): void {
  app.use('/api/session', (request: Request, response: Response, next: NextFunction) => {
    // Behind the look at each request, where there is one.
    if (!sessions) response.json({});
    else next();
  });
  if (sessions) locked(app, sessions);
}

function locked(app: NestExpressApplication, sessions: Sessions): void {
  app.use(cookieParser());
  app.use((request: Request, response: Response, next: NextFunction) => {
    const bearer = /^Bearer (\S+)$/i.exec(request.headers.authorization ?? '')?.[1];
    const session = sessions.read(bearer ?? (request.cookies as Record<string, unknown>)[COOKIE]);
    if (session) sessionOf.set(request, session);
    if (session || OPEN.includes(request.path)) return next();
    if (wantsPage(request)) return response.redirect(303, `/sign-in?next=${encodeURIComponent(request.originalUrl)}`);
    response.set('WWW-Authenticate', 'Bearer realm="Insidia"');
    next(signInFirst());
  });
  app.use('/sign-in', urlencoded({ extended: false, limit: '4kb' }), json({ limit: '4kb' }), ...tries(), signIn(sessions));
  app.use('/sign-out', (request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'POST') return next();
    const session = sessionOf.get(request);
    if (session) sessions.end(session);
    response.clearCookie(COOKIE, cookieOptions(request)).redirect(303, '/sign-in');
  });
  app.use('/api/session', (request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET') return next();
    const { name, until } = sessionOf.get(request)!;
    response.json({ name, until: new Date(until).toISOString() });
  });
}

function cookieOptions(request: Request) {
  return { httpOnly: true, sameSite: 'strict', secure: overTls(request), path: '/' } as const;
}

/** Only tries that failed count. */
function tries(): RequestHandler[] {
  const limit = (most: number, keyGenerator?: () => string) =>
    rateLimit({
      windowMs: MINUTE_MS,
      limit: most,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      skip: ({ method }) => method !== 'POST',
      skipSuccessfulRequests: true,
      ...(keyGenerator && { keyGenerator }),
      validate: false,
      handler: (request, response, next) => answer(request, response, next, tooManyTries()),
    });
  return [limit(TRIES), limit(TRIES_OF_ALL, () => 'all')];
}

function answer(request: Request, response: Response, next: NextFunction, problem: ReturnType<typeof wrongPassword>): void {
  if (speaksJson(request)) return next(problem);
  const { name, next: to } = (request.body ?? {}) as Record<string, unknown>;
  const page = signInPage({ next: own(to), name: typeof name === 'string' ? name : '', trouble: problem.body.detail });
  response.status(problem.getStatus()).type('html').send(page);
}

function signIn(sessions: Sessions) {
  return (request: Request, response: Response, next: NextFunction): void => {
    if (request.method === 'GET') {
      const page = signInPage({ next: own(request.query.next), name: '' });
      response.type('html').set('Cache-Control', 'no-store').send(page);
      return;
    }
    if (request.method !== 'POST') return next();
    const { name, password, next: to } = (request.body ?? {}) as Record<string, unknown>;
    // eslint-disable-next-line no-control-regex
    if (typeof name !== 'string' || !name.trim() || name.length > LONGEST_NAME || /[\u0000-\u001f\u007f]/.test(name))
      return answer(request, response, next, badRequest(`name must be text of 1 to ${LONGEST_NAME} characters without control characters`));
    if (typeof password !== 'string' || !sessions.matches(password)) return answer(request, response, next, wrongPassword());
    const token = sessions.begin(name.trim());
    if (speaksJson(request)) response.json({ token, name: name.trim(), until: new Date(Date.now() + SESSION_MS).toISOString() });
    else response.cookie(COOKIE, token, { ...cookieOptions(request), maxAge: SESSION_MS }).redirect(303, own(to));
  };
}
