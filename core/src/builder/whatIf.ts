import type { Assessment } from '../assess/index.ts';
import type { BuildRequest } from '../domain/index.ts';
import { POSITIONS_ON_THE_FLOOR } from '../dose/index.ts';
import { buildRoutine } from './build.ts';
import type { MipSolver } from './mip.ts';
import type { BuildReport } from './report.ts';

/** A change of the request to try: more or fewer minutes, kit more or less, nothing on the floor. */
export interface RequestChange {
  readonly minutes?: number;
  readonly addKit?: readonly string[];
  readonly removeKit?: readonly string[];
  readonly noFloor?: boolean;
}

/** The request with a change made to it; minutes count from those in force. */
export function changedRequest(
  request: BuildRequest,
  minutesInForce: number,
  change: RequestChange,
): BuildRequest {
  const { minutes = 0, addKit = [], removeKit = [], noFloor = false } = change;
  const kit = [...new Set([...request.kit, ...addKit])].filter((word) => !removeKit.includes(word));
  return {
    ...request,
    minutes: minutes === 0 ? request.minutes : Math.max(1, minutesInForce + minutes),
    kit: kit.sort(),
    excludePositions: noFloor
      ? [...new Set([...request.excludePositions, ...POSITIONS_ON_THE_FLOOR])].sort()
      : request.excludePositions,
  };
}

/** The routine under a changed request, in the structure in force, with what that is worth against the present one. */
export interface WhatIf {
  readonly request: BuildRequest;
  readonly report: BuildReport;
  /**
   * Change of the benefit as a share of the present one: what a plan is asked for changes with its minutes and kit, what it
   * does for the athlete is comparable. Null when there is no routine either way.
   */
  readonly gain: number | null;
}

/** Builds again under a changed request and says what is gained or lost. */
export function whatIf(
  assessment: Assessment,
  asked: BuildRequest,
  now: BuildReport,
  change: RequestChange,
  solver: MipSolver,
): WhatIf {
  const structure = assessment.reference.structures.get(now.routine?.structure ?? '');
  const minutes = asked.minutes ?? structure?.minutes.default ?? 0;
  const request = {
    ...changedRequest(asked, minutes, change),
    structure: now.routine?.structure ?? asked.structure,
  };
  const report = buildRoutine(assessment, request, solver);
  const before = now.routine;
  const after = report.routine;
  const gain = before && after ? (after.benefit - before.benefit) / Math.max(before.benefit, 1e-3) : null;
  return { request, report, gain };
}
