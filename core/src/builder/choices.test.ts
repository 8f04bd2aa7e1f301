import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { kitUsed } from '../reference/index.ts';
import { reasonText } from '../words/index.ts';
import { caseOf } from '../testing/cases.ts';
import { eachOf } from '../testing/eachOf.ts';
import { buildCase, drillOf, prepareCase } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { choicesShown } from './index.ts';

const solver = await testSolver();
const KIT = ['wall', 'mat'];

/** A trained runner before an easy run, with these methods and this kit. */
function day(schools: Record<string, string>, kit: readonly string[] = [], athlete: object = {}): Case {
  const tasks = [{ id: 'uphill-running' }];
  return caseOf({
    athlete: { trainingYears: 4, tasks, ...athlete },
    request: { mode: 'prepare', minutes: 12, kit: [...KIT, ...kit], schools },
  } as never);
}

function shownIn(input: Case) {
  const items = buildCase(bundledReference, input, solver).routine?.items ?? [];
  return { items, shown: choicesShown(prepareCase(bundledReference, input), items) };
}

describe('what was chosen for a preparation', () => {
  it('is nothing where nothing was chosen, and nothing of other sessions', () => {
    expect(shownIn(day({})).shown).toEqual([]);
    const build = day({ 'release-first': 'first' }, ['long-band']);
    expect(shownIn({ ...build, request: { ...build.request, mode: 'build' } }).shown).toEqual([]);
  });
  it('shows in drills, release before anything and small strength alike', () => {
    const { items, shown } = shownIn(
      day({
        'release-first': 'first',
        'sequence-before-strength': 'small-dose',
        'static-stretch-before': 'last-step',
      }),
    );
    expect(shown.map(({ choice }) => choice.kind === 'method' && choice.school)).toEqual([
      'release-first',
      'sequence-before-strength',
      'static-stretch-before',
    ]);
    const categories = shown.map(({ by }) => drillOf(items[by[0] ?? -1]?.drill ?? '').category);
    expect(categories).toEqual(['release', 'strengthen', 'stretch']);
    for (const { because } of eachOf(shown)) expect(because).toBeNull();
  });
  it('a hard finish is withheld from the young, the breathless and the lately hurt, and from others by what keeps it out', () => {
    const hard = { 'breathless-or-conversational': 'hard-finish' };
    const injuries = [{ region: 'knee', side: 'left', date: '2026-12-20' }];
    const why = (athlete: object) => shownIn(day(hard, [], athlete)).shown.map(({ because }) => because);
    expect(why({ birthDate: '2012-05-02' })).toEqual([{ rule: 'ends-soft', against: 'age' }]);
    expect(why({ injuries })).toEqual([{ rule: 'ends-soft', against: 'injury' }]);
    expect(why({ precautions: [{ id: 'exertional-breathing-limit', since: '2027-01-01' }] })).toEqual([
      { rule: 'ends-soft', against: 'breathing' },
    ]);
    const [unseen] = why({});
    expect(unseen).toMatchObject({ rule: 'no-drill-allowed', because: 'level' });
    expect(unseen && reasonText(bundledReference, unseen)).toMatch(/nearest is/);
    const exposure = [{ action: 'run', perWeek: 4, effort: 'hard' }];
    const { items, shown } = shownIn(day(hard, [], { exposure }));
    expect(shown[0]?.by.map((place) => drillOf(items[place]?.drill ?? '').intensityClass)).toContain('high');
  });
  it('kit that was brought is used, or the page says why not', () => {
    const { items, shown } = shownIn(day({}, ['mini-band', 'long-band', 'finger-band', 'weighted-ball']));
    const used = new Set(
      items.flatMap(({ drill }) =>
        kitUsed(
          drillOf(drill),
          shown.map(({ choice }) => ('kit' in choice ? choice.kit : '')),
        ),
      ),
    );
    expect(used.size).toBeGreaterThan(0);
    for (const { choice, by, because } of eachOf(shown)) {
      expect(by.length > 0).toBe('kit' in choice && used.has(choice.kit));
      expect(because === null).toBe(by.length > 0);
      if (because) expect(reasonText(bundledReference, because)).not.toBe('');
    }
  });
});
