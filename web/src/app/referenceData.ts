import { createReference } from '@yonder/core/reference';
import type { Reference, ReferenceData } from '@yonder/core/reference';

async function fetchJson<T>(path: string): Promise<T> {
  const response = await fetch(path, { credentials: 'same-origin' });
  if (!response.ok) throw new Error(`${path} answered ${response.status}`);
  return (await response.json()) as T;
}

let loading: Promise<Reference> | null = null;

/** The reference data, fetched once per page (or worker) under its version; the browser keeps it for a year. */
export function loadReference(): Promise<Reference> {
  loading ??= fetchJson<{ version: string }>('/api/v1/reference')
    .then(({ version }) => fetchJson<ReferenceData>(`/api/v1/reference/${version}`))
    .then(createReference)
    .catch((error: unknown) => {
      loading = null; // so that the next attempt asks again
      throw error;
    });
  return loading;
}
