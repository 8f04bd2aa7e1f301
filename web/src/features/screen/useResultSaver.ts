import type { ResultRow } from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { useBundledReference } from '../../app/reference.tsx';
import { forget } from '../../app/kept/store.ts';
import { useKeptRevision } from '../../app/kept/useKept.ts';
import { sameJson } from '@yonder/core/domain';
import { entryOf, sameAsStored } from './entry.ts';
import type { SideEntry } from './entry.ts';
import type { Conflict } from './ResultSender.ts';
import { allTyped, entryFault, resultKey, versionOf, visitPrefix } from './typedResults.ts';
import { useResultSender } from './useResultSender.ts';

/** Where the values of a visit stand. `faulty` and `refused` name the first that cannot be stored as it is. */
export type SaveState =
  | { kind: 'idle' | 'saving' | 'stored' }
  | { kind: 'waiting'; count: number }
  | { kind: 'faulty' | 'refused'; message: string };

interface Place {
  readonly athleteId: string;
  readonly date: string;
  readonly screeningId: string | null;
}

/**
 * Keeps what is typed in a visit and stores it. What the server does not have yet stays on the device; stored is said only
 * when nothing of the visit is left there.
 */
export function useResultSaver({ athleteId, date, screeningId }: Place) {
  const sender = useResultSender();
  const reference = useBundledReference();
  useKeptRevision();
  const at = (test: Test, side: Side) => ({ athleteId, date, test: test.id, side });
  const type = (test: Test, side: Side, entry: SideEntry, row: ResultRow | undefined) => {
    const place = at(test, side);
    // Letter by letter: what cannot be stored as it is, is typed all the same.
    if (sameJson(entry, entryOf(row)) && !sender.sending) forget(resultKey(place));
    else sender.type({ ...place, entry, version: versionOf(row) });
  };
  const save = (test: Test, side: Side, entry: SideEntry, row: ResultRow | undefined) => {
    if (sameAsStored(test, entry, row) && !sender.sending) {
      forget(resultKey(at(test, side)));
      return;
    }
    sender.type({ ...at(test, side), entry, version: versionOf(row) });
    sender.commit(at(test, side), screeningId);
  };
  const left = allTyped(visitPrefix({ athleteId, date }));
  const conflicts = left.flatMap((typed): [string, Conflict][] => {
    const conflict = sender.conflicts.get(resultKey(typed));
    return conflict ? [[resultKey(typed), conflict]] : [];
  });
  const refused = left.flatMap((typed) => sender.refused.get(resultKey(typed)) ?? [])[0];
  const faulty = left.flatMap(({ test: id, side, entry }) => {
    const test = reference.tests.get(id);
    return (test && entryFault(test, side, entry)) ?? [];
  })[0];
  const state: SaveState = refused
    ? { kind: 'refused', message: refused }
    : sender.offline && left.length > 0
      ? { kind: 'waiting', count: left.length }
      : sender.sending
        ? { kind: 'saving' }
        : faulty
          ? { kind: 'faulty', message: faulty }
          : left.length === 0 && sender.stored > 0
            ? { kind: 'stored' }
            : { kind: 'idle' };
  return { type, save, state, conflicts, sender };
}
