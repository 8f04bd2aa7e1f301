import type { ResultRow } from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { keptAt, keptUnder } from '../../app/kept/store.ts';
import { painFault, trialFault } from './entry.ts';
import type { SideEntry } from './entry.ts';

/** A side of a test as it was typed on this device, until the server has it. */
export interface TypedResult {
  readonly athleteId: string;
  readonly date: string;
  readonly test: string;
  readonly side: Side;
  readonly entry: SideEntry;
  /** The version of the stored result it was typed over; null where there was none. */
  readonly version: number | null;
}

export type ResultPlace = Pick<TypedResult, 'athleteId' | 'date' | 'test' | 'side'>;

export const visitPrefix = ({ athleteId, date }: Pick<ResultPlace, 'athleteId' | 'date'>): string =>
  `result/${athleteId}/${date}/`;
export const resultKey = (place: ResultPlace): string => `${visitPrefix(place)}${place.test}/${place.side}`;

/** What was typed and not stored for a side; undefined when there is nothing. */
export function typedAt(place: ResultPlace): TypedResult | undefined {
  return keptAt<TypedResult>(resultKey(place));
}

/** Everything typed and not stored, of one visit or of all. */
export function allTyped(prefix = 'result/'): TypedResult[] {
  return keptUnder<TypedResult>(prefix).map(({ value }) => value);
}

/** Why an entry cannot be stored as it stands, naming the field; null when it can. */
export function entryFault(test: Test, side: Side, entry: SideEntry): string | null {
  const place = side === 'central' ? '' : ` ${side}`;
  for (const [i, text] of entry.trials.entries()) {
    const fault = trialFault(test, text, entry);
    if (fault)
      return `${test.name}, trial ${i + 1}${place}: ${text} ${entry.measured ? `${entry.measured.unit}, ${fault}` : `is ${fault}`}`;
  }
  const pain = painFault(entry.pain);
  return pain ? `${test.name}, pain${place}: ${entry.pain} is not ${pain}` : null;
}

/** The stored version that something is typed over. */
export const versionOf = (row: ResultRow | undefined): number | null => row?.version ?? null;
