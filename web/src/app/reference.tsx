import type { Figures } from '@yonder/core/contracts';
import { issuedReference, practiceReference } from '@yonder/core/reference';
import type { OwnDrill, PracticeFigures, Reference } from '@yonder/core/reference';
import { createContext, use, useMemo } from 'react';
import type { ReactNode } from 'react';
import { useFiguresQuery } from '../features/figures/figureEndpoints.ts';
import { loadReference } from './referenceData.ts';

interface Both {
  /** As the practice uses it: edited figures and own tasks in place. */
  readonly practice: Reference;
  /** As it ships. */
  readonly bundled: Reference;
}

const ReferenceContext = createContext<Both | null>(null);

/** What of a practice's own figures goes into its reference. */
function inForce({ edits, drills, tasks, tests, doseShares, painPatterns }: Figures): PracticeFigures {
  return {
    reference: edits.filter((edit) => edit.ended === null),
    drills: drills.map(({ drill }) => drill),
    tasks,
    tests,
    doseShares,
    painPatterns,
  };
}

/** Suspends until the reference is there; the practice's own figures go in as soon as they are known. */
export function ReferenceProvider({ children }: { children: ReactNode }) {
  const bundled = use(loadReference());
  const { data } = useFiguresQuery();
  const both = useMemo(
    () => ({ practice: data ? practiceReference(bundled, inForce(data)) : bundled, bundled }),
    [bundled, data],
  );
  return <ReferenceContext value={both}>{children}</ReferenceContext>;
}

/** Below it own drills are as they were when a version was issued, whatever they are now. */
export function AsIssued({ drills, children }: { drills: readonly OwnDrill[]; children: ReactNode }) {
  const { practice, bundled } = useBoth();
  const { data } = useFiguresQuery();
  const both = useMemo(
    () => ({
      practice: data ? issuedReference(practice, bundled, inForce(data), drills) : practice,
      bundled,
    }),
    [practice, bundled, data, drills],
  );
  return <ReferenceContext value={both}>{children}</ReferenceContext>;
}

function useBoth(): Both {
  const both = use(ReferenceContext);
  if (!both) throw new Error('the reference needs a ReferenceProvider above it');
  return both;
}

/** Tests, restrictions, drills and the rest, as the practice uses them. Throws outside a {@link ReferenceProvider}. */
export function useReference(): Reference {
  return useBoth().practice;
}

/** The reference as it ships, to show what an edited figure replaced. */
export function useBundledReference(): Reference {
  return useBoth().bundled;
}
