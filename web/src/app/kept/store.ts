import { openDB } from 'idb';
import type { IDBPDatabase } from 'idb';

interface Kept {
  /** The clinician who typed it; nobody else sees it on this device. */
  readonly owner: string;
  readonly key: string;
  readonly value: unknown;
}

const NAME = 'yonder-ridge';
const TABLE = 'typed';

let database: IDBPDatabase | null = null;
let owner = '';
/** What the device holds of the one who is signed in; the database follows it. */
const memory = new Map<string, unknown>();
const listeners = new Set<() => void>();
const tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('yonder-kept');
let revision = 0;

function changed(): void {
  revision += 1;
  for (const listener of listeners) listener();
}

tabs?.addEventListener('message', ({ data }: MessageEvent<Kept & { gone: boolean }>) => {
  if (data.owner !== owner) return;
  if (data.gone) memory.delete(data.key);
  else memory.set(data.key, data.value);
  changed();
});

/**
 * Opens what a clinician typed on this device and the server does not have yet. Where the browser keeps nothing
 * (a private window), it is held as long as the page is.
 */
export async function openKept(clinicianId: string): Promise<void> {
  if (owner === clinicianId) return;
  owner = clinicianId;
  memory.clear();
  try {
    database ??= await openDB(NAME, 1, {
      upgrade: (db) => {
        db.createObjectStore(TABLE, { keyPath: ['owner', 'key'] }).createIndex('owner', 'owner');
      },
    });
    for (const { key, value } of (await database.getAllFromIndex(TABLE, 'owner', clinicianId)) as Kept[])
      memory.set(key, value);
  } catch {
    database = null;
  }
  changed();
}

/** What is kept under a key; undefined when nothing is. */
export function keptAt<T>(key: string): T | undefined {
  return memory.get(key) as T | undefined;
}

/** Everything kept under keys that begin so, in the order it was first typed. */
export function keptUnder<T>(prefix: string): { key: string; value: T }[] {
  return [...memory].flatMap(([key, value]) => (key.startsWith(prefix) ? [{ key, value: value as T }] : []));
}

/** Keeps a value on this device until it is forgotten; it survives reload, crash, sign-out and a lost network. */
export function keep(key: string, value: unknown): void {
  memory.set(key, value);
  tabs?.postMessage({ owner, key, value, gone: false });
  void database?.put(TABLE, { owner, key, value }).catch(() => undefined);
  changed();
}

/** The server has it, or it was thrown away. */
export function forget(key: string): void {
  if (!memory.delete(key)) return;
  tabs?.postMessage({ owner, key, value: null, gone: true });
  void database?.delete(TABLE, [owner, key]).catch(() => undefined);
  changed();
}

/** Calls back whenever anything kept changes, in this tab or another; returns how to stop that. */
export function onKept(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Counts up with every change. */
export const keptRevision = (): number => revision;
