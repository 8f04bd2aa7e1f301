import { bundledReference } from '@yonder/core/reference/bundled';
import { kitWordsOf } from '@yonder/core/reference';
import type { Drill } from '@yonder/core/reference';
import { describe, expect, it } from 'vitest';
import { filterDrills, readFilter } from './drillFilter.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const found = (query: string) => filterDrills(bundledReference, readFilter(new URLSearchParams(query)));

describe('narrowing the library', () => {
  it('without a filter shows every drill once, by name', () => {
    const all = found('');
    expect(all).toHaveLength(bundledReference.data.drills.length);
    expect(all.map((d) => d.name)).toEqual([...all.map((d) => d.name)].sort());
  });
  it('finds words in any order, in names and in ladders', () => {
    expect(found('q=raise heel single').map((d) => d.id)).toContain('single-leg-heel-raise');
    expect(found('q=no such drill at all')).toEqual([]);
  });
  it('puts the best match for a restriction first and leaves side benefits out', () => {
    const drills = found('restriction=ankle-dorsiflexion-limit');
    const match = drills.map(
      (d) => d.serves.find((s) => s.restriction === 'ankle-dorsiflexion-limit')?.match ?? 0,
    );
    expect(match).toEqual([...match].sort((a, b) => b - a));
    expect(match.at(-1)).toBeGreaterThanOrEqual(0.4);
  });
  it.each([
    ['kit=none', (d: Drill) => kitWordsOf(d).length === 0],
    ['kit=step', (d: Drill) => kitWordsOf(d).includes('step')],
    ['region=knee&category=strengthen', (d: { category: string }) => d.category === 'strengthen'],
    ['position=hanging', (d: { position: string }) => d.position === 'hanging'],
    ['level=5', (d: { level: number }) => d.level >= 5],
    ['level=1', (d: { level: number }) => d.level === 1],
  ] as const)('%s', (query, holds) => {
    const drills = found(query);
    expect(drills.length).toBeGreaterThan(0);
    for (const drill of eachOf(drills)) expect((holds as (d: object) => boolean)(drill), drill.id).toBe(true);
  });
  it('by the action of the day', () => {
    expect(found('pattern=climb').map((d) => d.id)).toContain('dead-hang');
    expect(found('pattern=climb').map((d) => d.id)).not.toContain('fast-step-up-drive');
  });
});
