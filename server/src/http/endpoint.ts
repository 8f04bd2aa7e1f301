import { jsonPath } from '@yonder/core/formats';
import { Router } from 'express';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import { ApiProblem } from './problem.ts';
import type { FieldFault } from './problem.ts';

/** Who is asking; every query is scoped to the practice. */
export interface User {
  readonly clinicianId: string;
  readonly practiceId: string;
  readonly name: string;
}

type Schema = z.ZodType;
type Parsed<S extends Schema | undefined> = S extends Schema ? z.output<S> : undefined;

export interface Context<
  P extends Schema | undefined,
  Q extends Schema | undefined,
  B extends Schema | undefined,
> {
  readonly params: Parsed<P>;
  readonly query: Parsed<Q>;
  readonly body: Parsed<B>;
  readonly user: User;
  readonly request: Request;
  readonly response: Response;
}

/** The boundary of one endpoint as data: what it takes and gives, and who may call it. */
export interface EndpointShape {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  /** `public` endpoints run without a signed-in clinician. */
  readonly access: 'public' | 'clinician';
  readonly status: 200 | 201 | 204;
  readonly params?: Schema;
  readonly query?: Schema;
  readonly body?: Schema;
  readonly response?: Schema;
  /** Media type of a response that is not JSON; the handler sends it itself. */
  readonly sends?: string;
}

export interface Endpoint extends EndpointShape {
  readonly run: (request: Request, response: Response, user: User) => Promise<unknown>;
}

function faultsOf(error: z.ZodError): FieldFault[] {
  return error.issues.map((issue) => ({ path: jsonPath(issue.path), message: issue.message }));
}

function parse<S extends Schema | undefined>(schema: S, value: unknown): Parsed<S> {
  if (!schema) return undefined as Parsed<S>;
  const parsed = schema.safeParse(value ?? {});
  if (!parsed.success) throw new ApiProblem('invalid-request', { errors: faultsOf(parsed.error) });
  return parsed.data as Parsed<S>;
}

/** Declares an endpoint; the handler gets parsed parts and its result must match `response`. */
export function endpoint<
  P extends Schema | undefined = undefined,
  Q extends Schema | undefined = undefined,
  B extends Schema | undefined = undefined,
  R extends Schema | undefined = undefined,
>(
  shape: Omit<EndpointShape, 'params' | 'query' | 'body' | 'response' | 'access' | 'status'> & {
    access?: EndpointShape['access'];
    status?: EndpointShape['status'];
    params?: P;
    query?: Q;
    body?: B;
    response?: R;
    handler: (context: Context<P, Q, B>) => Promise<R extends Schema ? z.input<R> : unknown>;
  },
): Endpoint {
  const { handler, access = 'clinician', status = 200, ...rest } = shape;
  return {
    ...(rest as Omit<EndpointShape, 'access' | 'status'>),
    access,
    status,
    run: (request, response, user) =>
      handler({
        params: parse(shape.params as P, request.params),
        query: parse(shape.query as Q, request.query),
        body: parse(shape.body as B, request.body),
        user,
        request,
        response,
      }),
  };
}

/** Mounts endpoints; `userOf` says who asks and throws when nobody is signed in. */
export function mountEndpoints(endpoints: readonly Endpoint[], userOf: (request: Request) => User): Router {
  const router = Router();
  const nobody: User = { clinicianId: '', practiceId: '', name: '' };
  for (const definition of endpoints) {
    router[definition.method](definition.path, async (request, response) => {
      const user = definition.access === 'public' ? nobody : userOf(request);
      const result = await definition.run(request, response, user);
      if (definition.sends) return;
      if (definition.status === 204 || result === undefined) response.status(204).end();
      else response.status(definition.status).json(result);
    });
  }
  return router;
}
