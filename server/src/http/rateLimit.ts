import type pg from 'pg';
import { rateLimit } from 'express-rate-limit';
import type { Store } from 'express-rate-limit';
import type { RequestHandler } from 'express';
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

/** At most `limit` failed sign-ins per address in a quarter of an hour. */
export function signInLimit(pool: pg.Pool, limit: number): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: pgStore(pool),
    handler: (_request, _response, next) => next(new ApiProblem('too-many-attempts')),
  });
}
