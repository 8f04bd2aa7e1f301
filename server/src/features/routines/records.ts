import type { DraftRow, RoutineRow } from '@yonder/core/contracts';
import type { DraftRecord, RoutineRecord } from '../../db/models.ts';

export function routineRow(record: RoutineRecord): RoutineRow {
  return {
    id: record.id,
    number: record.number,
    issuedOn: record.issuedOn,
    issuedBy: record.issuedBy,
    mode: record.mode as RoutineRow['mode'],
    structure: record.structure,
    items: record.items as RoutineRow['items'],
    totalSeconds: record.totalSeconds,
    findings: record.findings as RoutineRow['findings'],
    changes: record.changes,
  };
}

export function draftRow(record: DraftRecord | null): DraftRow {
  if (!record) return { draft: null, version: null };
  return { draft: record.draft as DraftRow['draft'], version: record.version };
}
