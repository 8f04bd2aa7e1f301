import type { Region, Side } from '@yonder/core/domain';
import type { FindingsReport, FindingState } from '@yonder/core/findings';

export type RailState = FindingState | 'unscreened' | 'blocked';

const ORDER: readonly FindingState[] = ['short', 'likely-short', 'within-error', 'enough'];

/** The worst state of a region's findings on a side; unscreened is fog, not zero. */
export function stateOfSide(report: FindingsReport, region: Region, side: Side): RailState {
  if (report.blocked.some((b) => b.level !== 'P' && (b.region === 'all' || b.region === region)))
    return 'blocked';
  const states = report.findings
    .filter((f) => f.region === region && (f.side === side || f.side === 'central'))
    .map((f) => f.state);
  const worst = ORDER.find((state) => states.includes(state));
  if (worst) return worst;
  return report.capacities.some((c) => c.region === region && (c.side === side || c.side === 'central'))
    ? 'within-error'
    : 'unscreened';
}

export const RAIL_LABEL: Readonly<Record<RailState, string>> = {
  short: 'short',
  'likely-short': 'likely short',
  'within-error': 'within error',
  enough: 'enough',
  unscreened: 'not screened',
  blocked: 'blocked',
};
