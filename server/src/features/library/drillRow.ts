import type { OwnDrillRow } from '@yonder/core/contracts';
import type { RowOf } from '../../db/schema.ts';
import { drillOf } from '../../work/practice.ts';

/** A stored drill as the API shows it. */
export function ownDrillRow(row: RowOf<'own_drills'>): OwnDrillRow {
  const { id: rowId, version, savedBy, savedOn } = row;
  return { rowId, version, savedBy, savedOn, drill: drillOf(row) };
}
