import type { BuildRequest } from '../domain/index.ts';
import type { Position } from '../reference/index.ts';

/** Derived versions that are one press away. */
export const VARIANTS = ['short', 'rapid-ready', 'no-kit', 'no-lying'] as const;
/** One of the derived forms of a routine. */
export type Variant = (typeof VARIANTS)[number];

/** Minutes of a short version, and the position words for lying down. */
const SHORT_MINUTES = 5;
const RAPID_MINUTES = 3;
const LYING: readonly Position[] = ['supine', 'prone', 'side-lying'];
const NOT_STANDING: readonly Position[] = [...LYING, 'quadruped', 'tall-kneeling', 'half-kneeling', 'seated'];

function without(request: BuildRequest, positions: readonly Position[]): string[] {
  return [...new Set([...request.excludePositions, ...positions])].sort();
}

/**
 * The request of a derived version: what changes is the time, the kit or the positions; the routine is then solved
 * anew and keeps the drills it starts from where they still are the best use of the time. Pins stay: one that cannot be
 * kept then is explained, not dropped.
 */
export function variantRequest(
  request: BuildRequest,
  variant: Variant,
  from: readonly string[],
): BuildRequest {
  const kept = { ...request, prefer: [...from] };
  switch (variant) {
    case 'short':
      return {
        ...kept,
        minutes: Math.min(request.minutes ?? SHORT_MINUTES, SHORT_MINUTES),
        structure: request.mode === 'prepare' ? 'short-minimum' : request.structure,
        maxDrills: null,
      };
    case 'rapid-ready':
      return {
        ...kept,
        mode: 'prepare',
        minutes: RAPID_MINUTES,
        structure: 'rapid-ready',
        maxDrills: null,
        kit: [],
        excludePositions: without(request, NOT_STANDING),
      };
    case 'no-kit':
      return { ...kept, kit: [] };
    case 'no-lying':
      return { ...kept, excludePositions: without(request, LYING) };
  }
}
