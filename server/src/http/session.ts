import { randomBytes, timingSafeEqual } from 'node:crypto';
import createPgStore from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type pg from 'pg';
import type { User } from './endpoint.ts';
import { ApiProblem } from './problem.ts';

declare module 'express-session' {
  interface SessionData {
    user: User;
    csrfToken: string;
  }
}

const TWELVE_HOURS_MS = 12 * 60 * 60 * 1000;
const CSRF_HEADER = 'x-csrf-token';

/** Server-side sessions in PostgreSQL behind an HttpOnly, SameSite cookie. */
export function sessionMiddleware(pool: pg.Pool, secret: string, secureCookie: boolean): RequestHandler {
  const PgStore = createPgStore(session);
  return session({
    store: new PgStore({
      pool,
      tableName: 'login_sessions',
      pruneSessionInterval: 900,
      errorLog: () => undefined,
    }),
    name: 'yonder.sid',
    secret,
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'lax', secure: secureCookie, maxAge: TWELVE_HOURS_MS, path: '/' },
  });
}

/** Starts a fresh session for a clinician; the old id is worthless afterwards. */
export function startSession(request: Request, user: User): Promise<string> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) {
        reject(error as Error);
        return;
      }
      request.session.user = user;
      request.session.csrfToken = randomBytes(24).toString('base64url');
      const token = request.session.csrfToken;
      // Answer only after the session is stored: the next request may reach another process.
      request.session.save((saveError: unknown) => (saveError ? reject(saveError as Error) : resolve(token)));
    });
  });
}

export function endSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve()));
  });
}

export function userOf(request: Request): User {
  const { user } = request.session;
  if (!user) throw new ApiProblem('not-signed-in');
  return user;
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
