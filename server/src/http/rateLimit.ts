import type pg from 'pg';
import { createHash } from 'node:crypto';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Store } from 'express-rate-limit';
import type { Request, RequestHandler } from 'express';
import { ApiProblem } from './problem.ts';

const WINDOW_MS = 15 * 60 * 1000;

/** Counts attempts in PostgreSQL, so that the limit holds across processes and restarts. */
function pgStore(pool: pg.Pool): Store {
  return {
    async increment(key) {
      const { rows } = await pool.query<{ hits: number; reset_at: Date }>(
        `INSERT INTO rate_limits (key, hits, reset_at) VALUES ($1, 1, now() + $2 * interval '1 millisecond')
         ON CONFLICT (key) DO UPDATE SET
           hits = CASE WHEN rate_limits.reset_at < now() THEN 1 ELSE rate_limits.hits + 1 END,
           reset_at = CASE WHEN rate_limits.reset_at < now() THEN excluded.reset_at ELSE rate_limits.reset_at END
         RETURNING hits, reset_at`,
        [key, WINDOW_MS],
      );
      // A window that begins takes the ones that are over with it.
      if (rows[0]?.hits === 1) await pool.query('DELETE FROM rate_limits WHERE reset_at < now()');
      return { totalHits: rows[0]?.hits ?? 1, resetTime: rows[0]?.reset_at };
    },
    async decrement(key) {
      await pool.query('UPDATE rate_limits SET hits = greatest(hits - 1, 0) WHERE key = $1', [key]);
    },
    async resetKey(key) {
      await pool.query('DELETE FROM rate_limits WHERE key = $1', [key]);
    },
  };
}

/** From one address many people sign in: it may fail so many times as often as one account may there. */
const PEOPLE_PER_ADDRESS = 20;

const addressOf = (request: Request) => ipKeyGenerator(request.ip ?? '');
const fingerprint = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 24);

/** The account that is tried, as a name that tells nobody which it is. */
const accountOf = (request: Request) => {
  const { email } = (request.body ?? {}) as { email?: unknown };
  const text = typeof email === 'string' ? email.trim().toLowerCase() : '';
  return fingerprint(text);
};

function limited(pool: pg.Pool, limit: number, keyOf: (request: Request) => string): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: pgStore(pool),
    keyGenerator: keyOf,
    handler: (_request, _response, next) => next(new ApiProblem('too-many-attempts')),
  });
}

/** At most `limit` failures of one link in a quarter of an hour: somebody else's broken link closes nobody's good one. */
export function linkLimit(pool: pg.Pool, limit: number): RequestHandler[] {
  const tokenOf = (request: Request) => {
    const { token } = (request.body ?? {}) as { token?: unknown };
    return fingerprint(typeof token === 'string' ? token : '');
  };
  return [
    limited(pool, limit, (request) => `link/${tokenOf(request)}/${addressOf(request)}`),
    limited(pool, limit * PEOPLE_PER_ADDRESS, (request) => `links/${addressOf(request)}`),
  ];
}

/** At most `limit` wrong current passwords of one account in a quarter of an hour, from wherever. */
export function passwordLimit(pool: pg.Pool, limit: number): RequestHandler {
  return limited(pool, limit, (request) => `password/${request.session.clinicianId ?? addressOf(request)}`);
}

/**
 * At most `limit` failed sign-ins to one account from one address in a quarter of an hour, and far more from an address in
 * all: one person who forgot a password locks nobody else of the building out.
 */
export function signInLimit(pool: pg.Pool, limit: number): RequestHandler[] {
  return [
    limited(pool, limit, (request) => `account/${accountOf(request)}/${addressOf(request)}`),
    limited(pool, limit * PEOPLE_PER_ADDRESS, (request) => `address/${addressOf(request)}`),
  ];
}
