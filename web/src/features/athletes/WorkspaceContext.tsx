import { createContext, use } from 'react';
import type { AthleteRow } from '@yonder/core/contracts';
import type { Assessment } from '@yonder/core/assess';
import type { Case, Occasion, Region } from '@yonder/core/domain';
import type { FindingsReport } from '@yonder/core/findings';
import type { Subject } from '../../workers/protocol.ts';

/** What every step of an athlete's workspace works on, all as of the working date. */
export interface Workspace {
  readonly athlete: AthleteRow;
  readonly case: Case;
  /** Everything that is judged of the record as of the working date; no page judges again. */
  readonly assessment: Assessment;
  /** The findings of the assessment. */
  readonly report: FindingsReport;
  /** The record as the workers are asked about it. */
  readonly subject: Subject;
  /** What the routine at hand is for; it lives in the address. */
  readonly occasion: Occasion;
  readonly chooseOccasion: (occasion: Occasion) => void;
  /** The version in force of that occasion. */
  readonly routineId: string | null;
  /** Working date, an ISO day; everything is judged as of it. */
  readonly on: string;
  /** Region selected in the chain rail. */
  readonly region: Region;
  readonly selectRegion: (region: Region) => void;
}

export const WorkspaceContext = createContext<Workspace | null>(null);

/** Throws outside an athlete's workspace. */
export function useWorkspace(): Workspace {
  const workspace = use(WorkspaceContext);
  if (!workspace) throw new Error('useWorkspace needs an athlete workspace above it');
  return workspace;
}
