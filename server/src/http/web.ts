import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { Router } from 'express';
import helmet from 'helmet';
import type { RequestHandler } from 'express';

declare module 'express-serve-static-core' {
  interface Locals {
    nonce?: string;
  }
}

/** A nonce per response for the one style tag the component library injects. */
export const styleNonce: RequestHandler = (_request, response, next) => {
  response.locals.nonce = randomBytes(16).toString('base64');
  next();
};

/** Security headers; the policy allows our own files, the worker and its WebAssembly, and nothing else. */
export function securityHeaders(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'"],
        manifestSrc: ["'self'"],
        styleSrc: [
          "'self'",
          (_request, response) =>
            `'nonce-${(response as unknown as { locals: { nonce?: string } }).locals.nonce ?? ''}'`,
        ],
        frameSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'self'"],
      },
    },
    strictTransportSecurity: false, // set by the proxy that ends TLS
    referrerPolicy: { policy: 'same-origin' },
  });
}

/** The built web client: hashed assets kept for a year, and index.html with a fresh nonce for every other path. */
export function webClient(dist: string): Router {
  const router = Router();
  const page = readFileSync(join(dist, 'index.html'), 'utf8');
  router.use(
    '/assets',
    express.static(join(dist, 'assets'), { immutable: true, maxAge: '365d', index: false }),
  );
  router.use(express.static(dist, { index: false }));
  router.get(/^(?!\/(api|assets)\/).*/, (_request, response) => {
    response
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(page.replaceAll('__CSP_NONCE__', response.locals.nonce ?? ''));
  });
  return router;
}
