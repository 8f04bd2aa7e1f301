import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { pictureFaults, standingFigure } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import { figureOf } from '@yonder/core/figure/bundled';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it, vi } from 'vitest';
import { choose } from '../../../testing/choose.ts';
import { showIn, workspaceOf } from '../../../testing/workspace.tsx';
import { PictureEditor } from './PictureEditor.tsx';

vi.setConfig({ testTimeout: 30_000 });
const standing = standingFigure();
const rhythm = { tempo: null, secondsPerRep: 3, holdSeconds: null };

/** Draws a picture by hand; what was said of it last is in `now`. */
async function draw(initial: SolvedFigure = standing) {
  const seen = { now: initial, closed: 0 };
  await showIn(
    workspaceOf({}),
    <PictureEditor
      initial={initial}
      rhythm={rhythm}
      onChange={(next) => (seen.now = next)}
      onClose={() => (seen.closed += 1)}
    />,
  );
  return seen;
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const tab = (name: string) => fireEvent.click(screen.getByRole('radio', { name }));
const disabled = (name: string) => screen.getByRole('button', { name }).hasAttribute('disabled');
const sound = (figure: SolvedFigure) => expect(pictureFaults(figure)).toEqual([]);

describe('positions', () => {
  it('are added up to four, one stands for the drill, and the last one stays', async () => {
    const seen = await draw();
    for (let i = 0; i < 3; i += 1) press('Add a position');
    expect(seen.now.poses).toHaveLength(4);
    expect(disabled('Add a position')).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: /^Position 2/ }));
    press('Let it stand for the drill');
    expect(seen.now.shown).toBe(1);
    expect(screen.getByRole('button', { name: 'Position 2, shown', pressed: true })).toBeTruthy();
    for (let i = 0; i < 3; i += 1) press('Remove it');
    expect([seen.now.poses.length, seen.now.shown]).toEqual([1, 0]);
    expect(disabled('Remove it')).toBe(true);
    sound(seen.now);
  });
});

describe('kit', () => {
  it('is put in, set by numbers and by arrows, changed to the other hand, and taken out', async () => {
    const seen = await draw();
    tab('Kit');
    await choose('Add kit', 'box');
    const up = screen.getByRole('textbox', { name: 'box, forwards' });
    fireEvent.change(up, { target: { value: '44' } });
    await waitFor(() => expect(seen.now.kit[0]?.at).toEqual([44, 0, 0]));
    fireEvent.keyDown(screen.getByRole('button', { name: 'box, where it stands' }), { key: 'ArrowUp' });
    // Seen from the side nothing goes up that stands on the floor.
    expect(seen.now.kit[0]?.at?.[1]).toBe(0);
    await choose('Add kit', 'dumbbell');
    await choose('Hand', 'both');
    expect(seen.now.kit[1]).toEqual({ type: 'dumbbell', side: 'both' });
    press('Remove box');
    expect(seen.now.kit.map(({ type }) => type)).toEqual(['dumbbell']);
    sound(seen.now);
  });
  it('that is strung runs from place to place, or to a point that is drawn like what stands', async () => {
    const seen = await draw();
    tab('Kit');
    await choose('Add kit', 'band');
    const end = screen.getByRole('button', { name: 'band, end 2' });
    fireEvent.keyDown(end, { key: 'ArrowUp' });
    const [first, second] = seen.now.kit[0]?.through ?? [];
    expect(first).toBe('fistL');
    expect((second as number[])[1]).toBe(42);
    await choose('From', 'left knee');
    expect(seen.now.kit[0]?.through?.[0]).toBe('kneeL');
    await choose('To', 'right knee');
    expect(screen.queryByRole('button', { name: 'band, end 2' })).toBeNull();
    sound(seen.now);
  });
});

describe('view and marks', () => {
  it('it is seen from where it is said, in the frame that is said, and what works is coloured', async () => {
    const seen = await draw();
    tab('View and marks');
    await choose('Seen from', 'front');
    expect(seen.now.view.az).toBe(0);
    await choose('In the picture', 'the upper body');
    expect(seen.now.frame).toEqual(['upper']);
    fireEvent.click(screen.getByRole('checkbox', { name: 'left leg' }));
    expect(seen.now.accent).toContain('legL');
  });
  it('an arrow goes the way that is said, to and fro or up to a stop; closed eyes are at the head', async () => {
    const seen = await draw();
    tab('View and marks');
    await choose('Add a mark', 'arrow of a push');
    await choose('Which way', 'forwards');
    fireEvent.click(screen.getByRole('checkbox', { name: 'to and fro' }));
    fireEvent.click(screen.getByRole('checkbox', { name: 'up to a stop' }));
    expect(seen.now.marks[0]).toMatchObject({ to: [14, 0, 0], both: true, stop: true });
    await choose('Add a mark', 'eyes closed');
    expect(seen.now.marks[1]).toEqual({ shut: 'head' });
    await choose('Add a mark', 'looks there');
    const gaze = within(screen.getByRole('region', { name: 'looks there' }));
    await choose('Where: looks there', 'left ankle', gaze);
    press('Remove eyes closed');
    expect(seen.now.marks.map((mark) => Object.keys(mark)[0])).toEqual(['push', 'gaze']);
    sound(seen.now);
  });
});

describe('a hand seen close', () => {
  it('is drawn by its fingers and thumb, and has no eyes to close', async () => {
    const hand = figureOf('finger-open-hold') as SolvedFigure;
    const seen = await draw(hand);
    for (const part of ['thumb', 'fingers', 'index finger', 'wrist', 'knuckles'])
      expect(screen.getByRole('button', { name: `Left ${part}` })).toBeTruthy();
    fireEvent.keyDown(screen.getByRole('button', { name: 'Left fingers' }), { key: 'ArrowDown' });
    expect(seen.now.poses).not.toEqual(hand.poses);
    sound(seen.now);
    tab('View and marks');
    fireEvent.click(screen.getByRole('combobox', { name: 'Add a mark' }));
    await screen.findByRole('option', { name: 'breath', hidden: true });
    expect(screen.queryByRole('option', { name: 'eyes closed', hidden: true })).toBeNull();
  });
});

describe('the page', () => {
  it('takes back every step and does it again, and is left by Done', async () => {
    const seen = await draw();
    expect([disabled('Undo'), disabled('Redo')]).toEqual([true, true]);
    fireEvent.keyDown(screen.getByRole('button', { name: 'Head' }), { key: 'ArrowDown' });
    const once = seen.now;
    press('Exchange sides');
    const twice = seen.now;
    press('Undo');
    expect(seen.now).toEqual(once);
    press('Undo');
    expect(seen.now).toEqual(standing);
    expect(disabled('Undo')).toBe(true);
    press('Redo');
    press('Redo');
    expect(seen.now).toEqual(twice);
    press('Done');
    expect(seen.closed).toBe(1);
  });
  it('says so where the picture to begin with cannot be had, and keeps what is drawn', async () => {
    const seen = await draw();
    const before = seen.now;
    await choose('Begin with the picture of', bundledReference.data.drills[0]?.name ?? '');
    expect(await screen.findByText(/is not there, or the server is out of reach/)).toBeTruthy();
    expect(seen.now).toBe(before);
  });
});
