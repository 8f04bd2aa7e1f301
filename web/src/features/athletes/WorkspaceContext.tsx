import { createContext, use } from 'react';
import type { AthleteRow } from '@yonder/core/contracts';
import type { Case, Region } from '@yonder/core/domain';
import type { FindingsReport } from '@yonder/core/findings';

/** What every step of an athlete's workspace works on, all as of the working date. */
export interface Workspace {
  readonly athlete: AthleteRow;
  readonly case: Case;
  readonly report: FindingsReport;
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
