import { sameJson } from '@yonder/core/domain';
import { practiceReference } from '@yonder/core/reference';
import type { OwnDrill, Reference } from '@yonder/core/reference';
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

/** Suspends until the reference is there; the practice's own figures go in as soon as they are known. */
export function ReferenceProvider({ children }: { children: ReactNode }) {
  const bundled = use(loadReference());
  const { data } = useFiguresQuery();
  const both = useMemo(() => {
    if (!data) return { practice: bundled, bundled };
    const reference = data.edits.filter((edit) => edit.ended === null);
    const drills = data.drills.map((row) => row.drill);
    const { tasks, tests, doseShares } = data;
    return { practice: practiceReference(bundled, { reference, tasks, tests, drills, doseShares }), bundled };
  }, [bundled, data]);
  return <ReferenceContext value={both}>{children}</ReferenceContext>;
}

/** Below it own drills are as they were when a version was issued, whatever they are now. */
export function AsIssued({ drills, children }: { drills: readonly OwnDrill[]; children: ReactNode }) {
  const { practice, bundled } = useBoth();
  const { data } = useFiguresQuery();
  const both = useMemo(() => {
    const now = new Map((data?.drills ?? []).map(({ drill }) => [drill.id, drill]));
    if (!data || drills.every((drill) => sameJson(drill, now.get(drill.id)))) return { practice, bundled };
    const others = [...now.values()].filter(({ id }) => !drills.some((drill) => drill.id === id));
    const reference = data.edits.filter((edit) => edit.ended === null);
    const { tasks, tests, doseShares } = data;
    const own = { reference, tasks, tests, drills: [...others, ...drills], doseShares };
    return { practice: practiceReference(bundled, own), bundled };
  }, [practice, bundled, data, drills]);
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
