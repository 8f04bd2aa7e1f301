import type { ResultInput, ResultRow } from '@yonder/core/contracts';
import type { Reference } from '@yonder/core/reference';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { forget, keep, keptAt } from '../../app/kept/store.ts';
import { resultOf, sameAsStored } from './entry.ts';
import { allTyped, entryFault, resultKey } from './typedResults.ts';
import type { ResultPlace, TypedResult } from './typedResults.ts';

/** What the server is asked; each call throws an `ApiError`. */
export interface Server {
  readonly open: (athleteId: string, date: string) => Promise<string>;
  readonly put: (visit: string, typed: TypedResult, body: ResultInput) => Promise<ResultRow>;
  readonly remove: (visit: string, typed: TypedResult, version: number) => Promise<unknown>;
}

/** Somebody, or another tab, stored something else meanwhile. */
export interface Conflict {
  readonly mine: TypedResult;
  /** What is stored now; null when it was taken away. */
  readonly theirs: ResultRow | null;
}

const RETRY_MS = 5000;
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const isProblem = (error: ApiError) => error.kind === 'problem';

/** Will the same be refused again, whoever sends it and whenever? */
function refusedForGood(error: ApiError): boolean {
  return isProblem(error) && error.kind === 'problem' && [400, 404, 422].includes(error.problem.status);
}

/**
 * Sends what was typed, one request after the other, each on the version before it, again and again until the server has
 * it. What was typed stays kept on the device until then; two values for one place become a conflict with a choice.
 */
export class ResultSender {
  readonly conflicts = new Map<string, Conflict>();
  readonly refused = new Map<string, string>();
  /** True while the server cannot be reached. */
  offline = false;
  /** Sides stored since the page was opened. */
  stored = 0;
  private readonly server: Server;
  private readonly reference: Reference;
  private readonly queue = new Set<string>();
  private readonly visits = new Map<string, string>();
  private readonly versions = new Map<string, number | null>();
  private readonly listeners = new Set<() => void>();
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private revision = 0;

  constructor(server: Server, reference: Reference) {
    this.server = server;
    this.reference = reference;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly changes = (): number => this.revision;

  private changed(): void {
    this.revision += 1;
    for (const listener of this.listeners) listener();
  }

  /** True while anything is on its way. */
  get sending(): boolean {
    return this.busy || this.queue.size > 0;
  }

  /** Keeps what is typed; nothing is sent yet. */
  type(typed: TypedResult): void {
    const key = resultKey(typed);
    this.refused.delete(key);
    const version = this.versions.has(key) ? (this.versions.get(key) ?? null) : typed.version;
    keep(key, { ...typed, version });
    this.changed();
  }

  /** Sends what is kept for a place as soon as everything before it is through. `visit` is its id, if it is open. */
  commit(place: ResultPlace, visit: string | null): void {
    if (visit) this.visits.set(`${place.athleteId}/${place.date}`, visit);
    const key = resultKey(place);
    if (this.conflicts.has(key)) return;
    this.queue.add(key);
    void this.pump();
    this.changed();
  }

  /** Sends everything this device still holds. */
  sendAll(): void {
    for (const typed of allTyped()) if (!this.refused.has(resultKey(typed))) this.commit(typed, null);
  }

  /** Mine over theirs. */
  keepMine(key: string): void {
    const conflict = this.conflicts.get(key);
    if (!conflict) return;
    this.conflicts.delete(key);
    const version = conflict.theirs?.version ?? null;
    this.versions.set(key, version);
    keep(key, { ...conflict.mine, version });
    this.commit(conflict.mine, null);
  }

  /** Theirs stays; what was typed here goes. */
  takeTheirs(key: string): void {
    const theirs = this.conflicts.get(key)?.theirs ?? null;
    this.conflicts.delete(key);
    this.versions.set(key, theirs?.version ?? null);
    forget(key);
    this.changed();
  }

  private async visitOf({ athleteId, date }: TypedResult): Promise<string> {
    const place = `${athleteId}/${date}`;
    const visit = this.visits.get(place) ?? (await this.server.open(athleteId, date));
    this.visits.set(place, visit);
    return visit;
  }

  /** Stores one side; the new version, null when it was taken away. */
  private async store(typed: TypedResult): Promise<number | null> {
    const test = this.reference.tests.get(typed.test);
    const result = test ? resultOf(test, typed.entry) : null;
    const key = resultKey(typed);
    const version = this.versions.has(key) ? (this.versions.get(key) ?? null) : typed.version;
    if (!result) {
      if (version !== null) await this.server.remove(await this.visitOf(typed), typed, version);
      return null;
    }
    const row = await this.server.put(await this.visitOf(typed), typed, { ...result, version });
    return row.version;
  }

  /** The server has it: what was typed on meanwhile is kept and follows. */
  private acknowledged(key: string, typed: TypedResult, version: number | null): void {
    this.versions.set(key, version);
    this.offline = false;
    this.stored += 1;
    if (same(keptAt<TypedResult>(key)?.entry, typed.entry)) forget(key);
  }

  private failed(key: string, typed: TypedResult, error: ApiError): boolean {
    if (isProblem(error) && error.kind === 'problem' && error.problem.code === 'version-conflict') {
      const theirs = (error.problem.current as ResultRow | null) ?? null;
      const test = this.reference.tests.get(typed.test);
      // Stored before, and only the answer was lost: one value in one place is no conflict.
      if (theirs && test && sameAsStored(test, typed.entry, theirs))
        this.acknowledged(key, typed, theirs.version);
      else this.conflicts.set(key, { mine: typed, theirs });
      return true;
    }
    if (refusedForGood(error)) {
      this.refused.set(key, errorText(error));
      return true;
    }
    this.queue.add(key);
    this.offline = true;
    return false;
  }

  private async pump(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    for (let [key] = this.queue; key !== undefined; [key] = this.queue) {
      this.queue.delete(key);
      const typed = keptAt<TypedResult>(key);
      const test = typed && this.reference.tests.get(typed.test);
      if (!typed || !test || entryFault(test, typed.side, typed.entry)) continue;
      try {
        this.acknowledged(key, typed, await this.store(typed));
      } catch (error) {
        if (!this.failed(key, typed, error as ApiError)) break;
      }
      this.changed();
    }
    this.busy = false;
    this.changed();
    if (this.queue.size > 0 && this.timer === null)
      this.timer = setTimeout(() => {
        this.timer = null;
        void this.pump();
      }, RETRY_MS);
  }
}
