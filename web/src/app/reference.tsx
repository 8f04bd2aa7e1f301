import type { Reference } from '@yonder/core/reference';
import { createContext, use } from 'react';
import type { ReactNode } from 'react';
import { loadReference } from './referenceData.ts';

const ReferenceContext = createContext<Reference | null>(null);

/** Suspends until the reference is there. */
export function ReferenceProvider({ children }: { children: ReactNode }) {
  return <ReferenceContext value={use(loadReference())}>{children}</ReferenceContext>;
}

/** Tests, restrictions, drills and the rest. Throws outside a {@link ReferenceProvider}. */
export function useReference(): Reference {
  const reference = use(ReferenceContext);
  if (!reference) throw new Error('useReference needs a ReferenceProvider above it');
  return reference;
}
