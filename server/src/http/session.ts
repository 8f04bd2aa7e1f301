import { randomBytes, timingSafeEqual } from 'node:crypto';
import createPgStore from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type pg from 'pg';
import { LRUCache } from 'lru-cache';
import { ApiProblem } from './problem.ts';

declare module 'express-session' {
  interface SessionData {
    /** Who signed in; name, role and practice are read anew with every request. */
    clinicianId: string;
    /** The account's sessions count up with every new password, role or closing: an older one is worth nothing. */
    epoch: number;
    csrfToken: string;
    /** When it began, in ms: it ends after a while however much it is used. */
    startedAt: number;
  }
}

const TWELVE_HOURS_MS = 12 * 60 * 60 * 1000;
/** However much it is used, somebody signs in anew after so long. */
const AT_MOST_MS = 7 * 24 * 60 * 60 * 1000;
/** A session that is used is kept alive, but not written with every single request. */
const TOUCH_EVERY_MS = 5 * 60 * 1000;
const CSRF_HEADER = 'x-csrf-token';

/** Server-side sessions in PostgreSQL behind an HttpOnly, SameSite cookie. */
export function sessionMiddleware(pool: pg.Pool, secret: string, secureCookie: boolean): RequestHandler {
  const PgStore = createPgStore(session);
  const store = new PgStore({
    pool,
    tableName: 'login_sessions',
    pruneSessionInterval: 900,
    errorLog: () => undefined,
  });
  const touch = store.touch.bind(store);
  const touched = new LRUCache<string, number>({ max: 5000 });
  store.touch = (sid, data, done) => {
    const now = Date.now();
    if (now - (touched.get(sid) ?? 0) < TOUCH_EVERY_MS) {
      done?.();
      return;
    }
    touched.set(sid, now);
    touch(sid, data, done);
  };
  return session({
    store,
    name: 'yonder.sid',
    secret,
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'lax', secure: secureCookie, maxAge: TWELVE_HOURS_MS, path: '/' },
  });
}

/** Starts a fresh session for a clinician; the old id is worthless afterwards. */
export function startSession(request: Request, clinicianId: string, epoch: number): Promise<string> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) {
        reject(error as Error);
        return;
      }
      request.session.clinicianId = clinicianId;
      request.session.epoch = epoch;
      request.session.startedAt = Date.now();
      request.session.csrfToken = randomBytes(24).toString('base64url');
      const token = request.session.csrfToken;
      // Answer only after the session is stored: the next request may reach another process.
      request.session.save((saveError: unknown) => (saveError ? reject(saveError as Error) : resolve(token)));
    });
  });
}

/** Ends the session on the server; the cookie is worth nothing then. */
export function endSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve()));
  });
}

/** Who is signed in, and as of which epoch of the account; 401 when nobody is. */
export function clinicianOf(request: Request): { id: string; epoch: number } {
  const { clinicianId, epoch, startedAt = 0 } = request.session;
  if (!clinicianId || Date.now() - startedAt > AT_MOST_MS) throw new ApiProblem('not-signed-in');
  return { id: clinicianId, epoch: epoch ?? 0 };
}

/** Refuses writes of a signed-in browser without the token that only our own page can read. */
export const csrfGuard: RequestHandler = (request, _response, next) => {
  const expected = request.session.csrfToken;
  if (['GET', 'HEAD', 'OPTIONS'].includes(request.method) || !expected) {
    next();
    return;
  }
  const given = Buffer.from(request.get(CSRF_HEADER) ?? '');
  const wanted = Buffer.from(expected);
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) throw new ApiProblem('csrf-token');
  next();
};
