import { randomUUID } from 'node:crypto';
import { ServerResponse } from 'node:http';
import { constants } from 'node:zlib';
import { speakPlainly } from '@yonder/core/schemas';
import compression from 'compression';
import express from 'express';
import type { Express, Request, RequestHandler, Response } from 'express';
import pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from './config.ts';
import type { Deps } from './deps.ts';
import { allEndpoints } from './endpoints.ts';
import { mountEndpoints } from './http/endpoint.ts';
import type { Endpoint } from './http/endpoint.ts';
import { problemHandler, unknownPath } from './http/errors.ts';
import { openApiDocument } from './http/openapi.ts';
import { linkLimit, passwordLimit, signInLimit } from './http/rateLimit.ts';
import { ApiProblem } from './http/problem.ts';
import { clinicianOf, csrfGuard, sessionMiddleware } from './http/session.ts';
import { securityHeaders, styleNonce, webClient } from './http/web.ts';
import { wellFormed } from './http/wellFormed.ts';
import type { SignedIn } from './features/devices/standIns.ts';
import { asClinician } from './work/unit.ts';

/** An application that does not listen yet. */
export interface App {
  readonly express: Express;
  /** The pool of sessions, sign-in attempts and the job queue. */
  readonly pool: pg.Pool;
  /** Whose cookie a request carries that is no request to the API: a device's connection. */
  readonly signedIn: SignedIn;
  /** Closes what the app itself opened; the database is its owner's to close. */
  readonly close: () => Promise<void>;
}

const ID = /^[0-9a-f-]{36}$/;

/** A path as it may be logged: ids and the API's own words; whatever else stands in one could be said of somebody. */
function loggedPath(endpoints: readonly Endpoint[]): (url: string) => string {
  const words = new Set(['', 'api', 'v1', 'assets', 'healthz', 'readyz', 'openapi.json']);
  for (const { path } of endpoints)
    for (const word of path.split('/')) if (!word.startsWith(':')) words.add(word);
  return (url) =>
    (url.split('?')[0] ?? '')
      .split('/')
      .map((word) => (words.has(word) || ID.test(word) ? word : '…'))
      .join('/');
}

/** Logs what was asked and how it went, never what was said: no bodies, queries, names or headers. */
function requestLog(logger: Logger, endpoints: readonly Endpoint[]) {
  const pathOf = loggedPath(endpoints);
  return pinoHttp({
    logger,
    genReqId: () => randomUUID(),
    serializers: {
      req: (request: { id: unknown; method: string; url: string }) => ({
        id: request.id,
        method: request.method,
        path: pathOf(request.url),
      }),
      res: (response: { statusCode: number }) => ({ status: response.statusCode }),
      err: () => undefined,
    },
  });
}

/** Reads the session of a bare request and makes sure that its account is still open; null otherwise. */
function signedInBy(deps: Deps, sessions: RequestHandler): SignedIn {
  return async (message) => {
    const request = message as Request;
    await new Promise<void>((resolve, reject) => {
      const response = new ServerResponse(message) as Response;
      sessions(request, response, (error?: unknown) => (error ? reject(error as Error) : resolve()));
    });
    try {
      return await asClinician(deps, clinicianOf(request), null, async (unit) => unit.actor.id);
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'not-signed-in') return null;
      throw error;
    }
  };
}

/** Puts the application together without listening. */
export function createApp(deps: Deps, config: Config, logger: Logger): App {
  speakPlainly();
  const app = express();
  // Sessions, the attempt counter and the queue use plain SQL on a small pool of their own.
  const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 6 });
  pool.on('error', () => undefined); // a lost idle connection is replaced on next use
  app.disable('x-powered-by');
  app.disable('etag'); // answers are never kept by a browser; what may be has its version in its path
  app.set('trust proxy', config.secureCookie ? 1 : false);
  const endpoints = allEndpoints(deps);
  app.use(
    requestLog(logger, endpoints),
    styleNonce,
    securityHeaders(),
    compression({ level: constants.Z_BEST_SPEED }),
  );

  app.get('/healthz', (_request, response) => {
    response.json({ status: 'ok' });
  });
  app.get('/readyz', async (_request, response) => {
    const ready = await pool.query('SELECT 1').then(
      () => true,
      () => false,
    );
    response.status(ready ? 200 : 503).json({ status: ready ? 'ready' : 'no database' });
  });

  let document: object | null = null; // only who asks for it waits until it is written
  app.get('/api/v1/openapi.json', (_request, response) => {
    document ??= openApiDocument(endpoints);
    response.json(document);
  });
  const sessions = sessionMiddleware(pool, config.sessionSecret, config.secureCookie);
  app.use('/api/v1', sessions);
  app.use('/api/v1', (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  app.use('/api/v1', csrfGuard, express.json({ limit: '512kb' }), wellFormed);
  app.use('/api/v1/auth/sign-in', ...signInLimit(pool, config.signInLimit));
  app.use('/api/v1/auth/link', ...linkLimit(pool, config.signInLimit));
  app.use('/api/v1/account/password', passwordLimit(pool, config.signInLimit));
  app.use('/api/v1', mountEndpoints(deps, endpoints), unknownPath);
  if (config.webDist) app.use(webClient(config.webDist));
  app.use(unknownPath, problemHandler(logger));
  return { express: app, pool, signedIn: signedInBy(deps, sessions), close: () => pool.end() };
}
