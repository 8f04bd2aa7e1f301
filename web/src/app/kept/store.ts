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

/**
 * What the database has not confirmed yet. It is written at once, where the database takes a moment: a reload right after
 * the last key finds it here, and nothing stays here.
 */
const UNCONFIRMED = 'yonder-ridge/typed/';

function write(entry: Kept & { gone: boolean }): void {
  if (!database) return;
  const at = `${UNCONFIRMED}${entry.owner}/${entry.key}`;
  const text = JSON.stringify(entry);
  try {
    localStorage.setItem(at, text);
  } catch {
    // full or switched off: the database alone keeps it
  }
  const { owner: whose, key, value } = entry;
  const done = entry.gone
    ? database.delete(TABLE, [whose, key])
    : database.put(TABLE, { owner: whose, key, value });
  done.then(
    () => localStorage.getItem(at) === text && localStorage.removeItem(at),
    () => undefined,
  );
}

/** Writes that a reload came before: they are later than what the database says. */
function unconfirmed(clinicianId: string): (Kept & { gone: boolean })[] {
  return Object.keys(localStorage)
    .filter((at) => at.startsWith(`${UNCONFIRMED}${clinicianId}/`))
    .flatMap((at) => JSON.parse(localStorage.getItem(at) ?? '[]') as Kept & { gone: boolean });
}

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
    for (const entry of unconfirmed(clinicianId)) {
      if (entry.gone) memory.delete(entry.key);
      else memory.set(entry.key, entry.value);
      write(entry);
    }
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
  write({ owner, key, value, gone: false });
  changed();
}

/** The server has it, or it was thrown away. */
export function forget(key: string): void {
  if (!memory.delete(key)) return;
  tabs?.postMessage({ owner, key, value: null, gone: true });
  write({ owner, key, value: null, gone: true });
  changed();
}

/** Calls back whenever anything kept changes, in this tab or another; returns how to stop that. */
export function onKept(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Counts up with every change. */
export const keptRevision = (): number => revision;
