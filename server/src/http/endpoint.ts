import { idSchema } from '@yonder/core/contracts';
import { jsonPath } from '@yonder/core/formats';
import { Router } from 'express';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import type { Deps } from '../deps.ts';
import type { Least } from '../work/actor.ts';
import { mayDo } from '../work/actor.ts';
import { asClinician, noteRefusal } from '../work/unit.ts';
import type { Unit } from '../work/unit.ts';
import { ApiProblem } from './problem.ts';
import type { FieldFault } from './problem.ts';
import { clinicianOf } from './session.ts';

type Schema = z.ZodType;
type Parsed<S extends Schema | undefined> = S extends Schema ? z.output<S> : undefined;

/** What a handler of a signed-in actor works with. */
export interface Context<
  P extends Schema | undefined,
  Q extends Schema | undefined,
  B extends Schema | undefined,
> {
  readonly params: Parsed<P>;
  readonly query: Parsed<Q>;
  readonly body: Parsed<B>;
  readonly unit: Unit;
  readonly request: Request;
}

/** An answer that is written already (a file, a stream, JSON that was kept): sent when the unit of work is over, so that no connection waits for it. */
export class Sent {
  readonly send: (response: Response) => void | Promise<void>;
  constructor(send: Sent['send']) {
    this.send = send;
  }
}

/** Part of the API’s description under which an endpoint stands. */
export type Tag =
  | 'account'
  | 'athletes'
  | 'story'
  | 'screen'
  | 'routine'
  | 'run'
  | 'progress'
  | 'library'
  | 'figures'
  | 'methods'
  | 'reference'
  | 'practice';

/** The boundary of one endpoint as data: what it takes and gives, who may call it, and what is written down of it. */
interface EndpointShape {
  /** The operation's name, unique in the API. */
  readonly id: string;
  readonly tag: Tag;
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  /** The least role that may call it. */
  readonly least: Least;
  /** The action the audit gets with every call that succeeds; null for what says nothing of anybody. */
  readonly audits: string | null;
  readonly status: 200 | 201 | 204;
  readonly params?: Schema;
  readonly query?: Schema;
  readonly body?: Schema;
  readonly response?: Schema;
  /** Media type of a response that is not JSON. */
  readonly sends?: string;
}

/** A declared endpoint that can be run. */
export interface Endpoint extends EndpointShape {
  readonly run: (deps: Deps, request: Request) => Promise<unknown>;
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

type Declared<P, Q, B, R> = Omit<EndpointShape, 'params' | 'query' | 'body' | 'response' | 'status'> & {
  status?: EndpointShape['status'];
  params?: P;
  query?: Q;
  body?: B;
  response?: R;
};
type Result<R> = Promise<R extends Schema ? z.input<R> | Sent : unknown>;

/** Runs a unit's handler once: what was done before under the same id is answered by reading it again. */
async function once<T>(
  shape: Pick<EndpointShape, 'id'>,
  unit: Unit,
  body: unknown,
  again: (() => Promise<T>) | undefined,
  handler: () => Promise<T>,
): Promise<T> {
  if (!again) return handler();
  const { id } = body as { id: string };
  return (await unit.first(id, shape.id, body)) ? handler() : again();
}

/** Refusals that are worth keeping: what a role may not do, and what a rule of safety kept from happening. */
const KEPT_REFUSALS: ReadonlySet<string> = new Set([
  'not-allowed',
  'safety-refused',
  'blocked',
  'archived',
  'superseded',
]);

/** Keeps an attempt that was refused; that it cannot be kept changes nothing of the answer. */
async function keepRefusal(
  deps: Deps,
  { audits, id }: Pick<EndpointShape, 'audits' | 'id'>,
  request: Request,
  clinicianId: string,
  about: string | null,
  error: unknown,
): Promise<void> {
  if (!(error instanceof ApiProblem) || !KEPT_REFUSALS.has(error.code)) return;
  const athlete = idSchema.safeParse(about ?? request.params.athleteId);
  await noteRefusal(deps, {
    clinicianId,
    athleteId: athlete.data ?? null,
    action: audits ?? `read.${id.replaceAll(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`,
    refused: error.code,
    requestId: String(request.id),
  }).catch(() => undefined);
}

/**
 * Declares an endpoint for signed-in actors. The handler gets parsed parts and one unit of work, in which the audit is
 * written too. `again` makes it safe to send twice: it gives the answer once the body's id is known.
 */
export function endpoint<
  P extends Schema | undefined = undefined,
  Q extends Schema | undefined = undefined,
  B extends Schema | undefined = undefined,
  R extends Schema | undefined = undefined,
>(
  shape: Declared<P, Q, B, R> & {
    handler: (context: Context<P, Q, B>) => Result<R>;
    again?: (context: Context<P, Q, B>) => Result<R>;
  },
): Endpoint {
  const { handler, again, status = 200, ...rest } = shape;
  return {
    ...(rest as Omit<EndpointShape, 'status'>),
    status,
    run: (deps, request) => {
      const clinician = clinicianOf(request);
      // A run, a version or a screening says only when it is read whose it is.
      let about = (): string | null => null;
      const done = asClinician(deps, clinician, String(request.id), async (unit) => {
        ({ about } = unit);
        if (!mayDo(unit.actor, shape.least)) throw new ApiProblem('not-allowed');
        const context: Context<P, Q, B> = {
          params: parse(shape.params as P, request.params),
          query: parse(shape.query as Q, request.query),
          body: parse(shape.body as B, request.body),
          unit,
          request,
        };
        const { athleteId } = request.params;
        if (typeof athleteId === 'string') unit.concerns(athleteId);
        const result = await once(shape, unit, context.body, again && (() => again(context)), () =>
          handler(context),
        );
        if (shape.audits !== null) await unit.audit(shape.audits);
        return result;
      });
      return done.catch(async (error: unknown) => {
        await keepRefusal(deps, shape, request, clinician.id, about(), error);
        throw error;
      });
    },
  };
}

/** Declares an endpoint that anybody may call; it has no unit of work of its own. */
export function publicEndpoint<
  B extends Schema | undefined = undefined,
  R extends Schema | undefined = undefined,
>(
  shape: Omit<Declared<undefined, undefined, B, R>, 'least' | 'audits'> & {
    handler: (context: { body: Parsed<B>; request: Request; deps: Deps }) => Result<R>;
  },
): Endpoint {
  const { handler, status = 200, ...rest } = shape;
  return {
    ...(rest as Omit<EndpointShape, 'status' | 'least' | 'audits'>),
    least: 'public',
    audits: null,
    status,
    run: (deps, request) => handler({ body: parse(shape.body as B, request.body), request, deps }),
  };
}

/** Mounts endpoints. */
export function mountEndpoints(deps: Deps, endpoints: readonly Endpoint[]): Router {
  const router = Router();
  for (const definition of endpoints) {
    router[definition.method](definition.path, async (request, response) => {
      const result = await definition.run(deps, request);
      if (result instanceof Sent) await result.send(response);
      else if (definition.status === 204 || result === undefined) response.status(204).end();
      else response.status(definition.status).json(result);
    });
  }
  return router;
}
