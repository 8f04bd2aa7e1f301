import { act, fireEvent, screen } from '@testing-library/react';
import type { RoutineItem } from '@yonder/core/domain';
import { routineTimeline } from '@yonder/core/dose';
import { figureOf } from '@yonder/core/figure/bundled';
import { bundledReference } from '@yonder/core/reference/bundled';
import type { Drill, Test } from '@yonder/core/reference';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { RunPicture } from '../run/RunPicture.tsx';
import { DrillPicture } from './DrillPicture.tsx';
import { TestPicture } from './TestPicture.tsx';
import { Thumb } from './Thumb.tsx';

/** The server with pictures beside the reference. */
const answer = ({ path }: { path: string }) => {
  const [, chunk] = /^\/reference\/pictures\/p\/(.+)$/.exec(path) ?? [];
  if (path === '/reference') return { status: 200, body: { version: 'v', pictures: 'p' } };
  if (!chunk) return 'no answer' as const;
  const ids =
    chunk === 'tests'
      ? bundledReference.data.tests.map(({ id }) => `test-${id}`)
      : (bundledReference.ladders.get(chunk)?.drills ?? []);
  return { status: 200, body: Object.fromEntries(ids.map((id) => [id, figureOf(id)])) };
};
const drillOf = (id: string) => bundledReference.drills.get(id) as Drill;
const show = (children: React.ReactNode) => showIn(workspaceOf({}), children, answer);
const paths = () => [...document.querySelectorAll('svg path')];
const fills = () => new Set(paths().map((path) => path.getAttribute('fill')));
const shape = () =>
  paths()
    .map((path) => path.getAttribute('d'))
    .join();
afterEach(() => vi.restoreAllMocks());

describe('a picture', () => {
  it('stands in the row on the side that works, and is not read twice', async () => {
    await show(<Thumb drill={drillOf('split-squat')} side="right" />);
    await vi.waitFor(() => expect(paths().length).toBeGreaterThan(5));
    expect(fills()).toContain('var(--fig-right)');
    expect(fills()).not.toContain('var(--fig-left)');
    expect(screen.queryByRole('img')).toBeNull();
  });
  it('that is drawn with the right side is turned round for the left', async () => {
    const drill = [...bundledReference.drills.values()].find(({ id, unilateral }) => {
      const accent = figureOf(id)?.accent ?? [];
      return unilateral && accent.length > 0 && accent.every((part) => part.endsWith('R'));
    });
    if (!drill) throw new Error('no drill is drawn with the right');
    await show(<Thumb drill={drill} side="left" />);
    await vi.waitFor(() => expect(fills()).toContain('var(--fig-left)'));
    expect(fills()).not.toContain('var(--fig-right)');
  });
  it('says what is done in the words for the athlete, and offers sides only where the drill has them', async () => {
    const drill = drillOf('bodyweight-squat');
    await show(<DrillPicture drill={drill} />);
    expect(await screen.findByRole('img', { name: drill.athleteText })).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Show the/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'Play the picture' })).toBeTruthy();
  });
  it('of a test shows where it begins and ends, and says what is measured with', async () => {
    const test = bundledReference.tests.get('wblt-angle') as Test;
    await show(<TestPicture test={test} />);
    const start = await screen.findByRole('img', { name: `${test.name}: start` });
    const end = screen.getByRole('img', { name: `${test.name}: end` });
    expect(start.innerHTML).not.toBe(end.innerHTML);
    expect(screen.getByText('In gold: the sensor. The left side is shown.')).toBeTruthy();
  });
  it('of a test moves on press between where it begins and ends, and stands again', async () => {
    const test = bundledReference.tests.get('wblt-angle') as Test;
    await show(<TestPicture test={test} />);
    const end = await screen.findByRole('img', { name: `${test.name}: end` });
    const stood = end.innerHTML;
    fireEvent.click(screen.getByRole('button', { name: 'Play the picture' }));
    await vi.waitFor(() => expect(end.innerHTML).not.toBe(stood));
    fireEvent.click(screen.getByRole('button', { name: 'Stop the picture' }));
    expect(end.innerHTML).toBe(stood);
  });
  it('of a test in one position has nothing to play', async () => {
    const test = bundledReference.tests.get('bar-hang-hold') as Test;
    await show(<TestPicture test={test} />);
    await screen.findByRole('img', { name: `${test.name}: position` });
    expect(screen.queryByRole('button')).toBeNull();
  });
  it('of a drill that nobody drew is left out, without a hole', async () => {
    const own = { ...drillOf('bodyweight-squat'), id: 'own-bare', ladder: 'own-ladder', own: true };
    await show(<DrillPicture drill={own} />);
    expect(screen.queryByRole('img')).toBeNull();
    fireEvent.focus(document.body);
  });
});

describe('the picture beside the count', () => {
  const item = {
    id: 'one',
    drill: 'bodyweight-squat',
    side: 'both',
    sets: 1,
    amount: 4,
    setup: {},
  } as unknown as RoutineItem;
  const segment = routineTimeline(bundledReference, [item]).find(({ kind }) => kind === 'work');
  const at = async (elapsed: number) => {
    if (!segment) throw new Error('no work');
    document.body.innerHTML = '';
    await act(
      async () =>
        void (await show(
          <RunPicture drill={drillOf('bodyweight-squat')} item={item} segment={segment} elapsed={elapsed} />,
        )),
    );
    await vi.waitFor(() => expect(paths().length).toBeGreaterThan(5));
    return shape();
  };
  it('begins every repetition where it begins, and is elsewhere in the middle of it', async () => {
    const each = segment?.secondsPerRep ?? 0;
    expect(each).toBeGreaterThan(0);
    const [first, middle, second] = [await at(0), await at(each / 2), await at(2 * each)];
    expect(middle).not.toBe(first);
    expect(second).toBe(first);
  });
});
