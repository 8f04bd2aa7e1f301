import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { decideProgress } from '@yonder/core/progress';
import { entry, item } from '@yonder/core/testing/cases';
import { describe, expect, it, vi } from 'vitest';
import { keptUnder } from '../../app/kept/store.ts';
import { choose } from '../../testing/choose.ts';
import { problem } from '../../testing/server.ts';
import type { Sent } from '../../testing/server.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { NextDay } from './NextDay.tsx';
import { ProgressPage } from './ProgressPage.tsx';

vi.setConfig({ testTimeout: 20_000 });
const [ONE, TWO] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'];
const ITEMS = [item('cat-camel', { id: ONE }), item('dead-bug', { id: TWO, amount: 8 })];
/** A routine in force since two weeks, done three times without anything to note. */
const inForce = (over: (drill: string) => object = () => ({})) =>
  workspaceOf({
    routine: { issued: '2027-02-15', mode: 'prepare', items: ITEMS },
    diary: ['2027-02-18', '2027-02-22', '2027-02-26'].map((date) => ({
      date,
      entries: ITEMS.map(({ drill }) => entry(drill, { nextDayPain: 0, ...over(drill) })),
    })),
  });
type Answer = Parameters<typeof showIn>[2];
const answering =
  (decision: () => { status: number; body?: unknown }): Answer =>
  ({ method, path }) => {
    if (method === 'POST') return decision();
    if (path.endsWith('/sessions')) return { status: 200, body: { items: [], next: null } };
    return 'no answer';
  };
const open = (
  workspace = inForce(),
  decision: () => { status: number; body?: unknown } = () => ({ status: 201, body: { routine: null } }),
) => showIn(workspace, <ProgressPage />, answering(decision));
const decisions = (sent: Sent[]) =>
  sent.filter(({ path }) => path.endsWith('/decisions')).map(({ body }) => body as { verdicts: unknown[] });
const card = (name: string) => within(screen.getByRole('radiogroup', { name: `Verdict on ${name}` }));
const record = () =>
  screen.getByRole<HTMLButtonElement>('button', { name: /^(?:Record \d decisions|\d to answer)$/ });

describe('what should happen to each drill', () => {
  it('is proposed with the rule that fired; accepted, both are sent with the lines they are of', async () => {
    const sent = await open();
    const list = screen.getByRole('list', { name: 'Decisions' });
    expect(within(list).getAllByRole('heading', { level: 3 })).toHaveLength(2);
    expect(list.textContent).toContain('Amount reached; range of movement to full.');
    expect(list.textContent).toContain('gets harder now: one thing at a time');
    for (const name of ['Cat-camel', 'Dead bug'])
      fireEvent.click(card(name).getByRole('radio', { name: 'Accept' }));
    expect(record().textContent).toBe('Record 2 decisions');
    fireEvent.click(record());
    await screen.findByText('Recorded; nothing changes');
    expect(decisions(sent)).toEqual([
      expect.objectContaining({
        routineId: 'r',
        verdicts: [
          expect.objectContaining({ item: ONE, verdict: 'accepted' }),
          expect.objectContaining({ item: TWO, verdict: 'accepted' }),
        ],
      }),
    ]);
  });

  it('names what was shown, so that nothing is stored that nobody saw', async () => {
    const workspace = inForce();
    const sent = await open(workspace, () => problem(409, 'proposal-changed', 'Look again.'));
    for (const name of ['Cat-camel', 'Dead bug'])
      fireEvent.click(card(name).getByRole('radio', { name: 'Accept' }));
    fireEvent.click(record());
    expect((await screen.findByRole('alert')).textContent).toContain('Look again.');
    const proposed = decideProgress(workspace.assessment).decisions;
    expect(decisions(sent)[0]?.verdicts).toEqual(
      proposed.map(({ decision, next }, i) => ({
        item: [ONE, TWO][i],
        verdict: 'accepted',
        shown: { decision, next },
      })),
    );
  });

  it('overruled needs a reason, and says what instead', async () => {
    const sent = await open();
    fireEvent.click(card('Cat-camel').getByRole('radio', { name: 'Accept' }));
    fireEvent.click(card('Dead bug').getByRole('radio', { name: 'Overrule' }));
    expect(record().disabled).toBe(true);
    const why = screen.getByRole('textbox', { name: 'Reason for overruling Dead bug' });
    expect(why.getAttribute('aria-invalid')).toBe('true');
    await choose('Instead, for Dead bug', 'leave it out');
    fireEvent.change(why, { target: { value: '  ' } });
    expect(record().disabled).toBe(true);
    fireEvent.change(why, { target: { value: 'back is tired' } });
    expect(record().disabled).toBe(false);
    // What it would come to is shown before it is recorded.
    expect(screen.getByRole('region', { name: /next version/i }).textContent).toMatch(/Dead bug/);
    fireEvent.click(record());
    await waitFor(() => expect(decisions(sent)).toHaveLength(1));
    expect(decisions(sent)[0]?.verdicts[1]).toMatchObject({
      item: TWO,
      verdict: 'overruled',
      instead: 'remove',
      reason: 'back is tired',
    });
  });

  it('that the server refuses is said, and what was decided stays on this device', async () => {
    await open(inForce(), () => problem(409, 'conflict', 'Another version was issued meanwhile.'));
    for (const name of ['Cat-camel', 'Dead bug'])
      fireEvent.click(card(name).getByRole('radio', { name: 'Overrule' }));
    for (const name of ['Cat-camel', 'Dead bug'])
      fireEvent.change(screen.getByRole('textbox', { name: `Reason for overruling ${name}` }), {
        target: { value: 'not yet' },
      });
    fireEvent.click(record());
    expect((await screen.findByRole('alert')).textContent).toContain('Another version was issued meanwhile.');
    expect(Object.values(keptUnder<object>('verdicts/ada')[0]?.value ?? {})).toEqual([
      expect.objectContaining({ verdict: 'overruled', instead: 'keep', reason: 'not yet' }),
      expect.objectContaining({ verdict: 'overruled', instead: 'keep', reason: 'not yet' }),
    ]);
  });

  it('that hurt is proposed easier, never harder, and says the pain that did it', async () => {
    await open(inForce((drill) => (drill === 'dead-bug' ? { pain: 5, nextDayPain: 5 } : {})));
    const hurt = screen
      .getAllByRole('listitem')
      .find((one) => one.querySelector('h3')?.textContent.startsWith('Dead bug'));
    expect(hurt?.dataset['kind']).toMatch(/^(?:ease|regress|stop|remove)/);
    expect(hurt?.textContent).toContain('5 the day after');
  });

  it('without a routine leads to where one is built', async () => {
    await open(workspaceOf({}));
    expect(screen.getByText(/No routine is in force as of 1 Mar 2027/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Build and issue one.' })).toBeTruthy();
  });
});

describe('the morning after', () => {
  const session = {
    id: 's1',
    date: '2027-02-28',
    finished: true,
    entries: ITEMS.map(({ id, drill }) => ({ item: id, drill, nextDayPain: null })),
  };
  const show = (one: object = session) =>
    showIn(inForce(), <NextDay />, ({ method, path }) => {
      if (path.endsWith('/sessions')) return { status: 200, body: { items: [one], next: null } };
      if (method === 'POST') return { status: 200, body: { events: [], session } };
      return 'no answer';
    });
  it('asks about each drill: a morning nobody asked about is not one without pain', async () => {
    const sent = await show();
    const store = await screen.findByRole<HTMLButtonElement>('button', {
      name: 'Store the morning (2 to answer)',
    });
    expect(store.disabled).toBe(true);
    await choose('Next morning, Cat-camel', '0 / 10');
    expect(screen.getByRole('button', { name: 'Store the morning (1 to answer)' })).toBeTruthy();
    await choose('Next morning, Dead bug', '3 / 10');
    fireEvent.click(screen.getByRole('button', { name: 'Store the morning' }));
    await waitFor(() => expect(sent.some(({ method }) => method === 'POST')).toBe(true));
    const { path, body } = sent.find(({ method }) => method === 'POST') ?? {};
    expect(path).toBe('/sessions/s1/events');
    expect((body as { events: object[] }).events).toMatchObject([
      { type: 'amended', item: ONE, nextDayPain: 0 },
      { type: 'amended', item: TWO, nextDayPain: 3 },
    ]);
  });
  it('of a session that was not ended is not asked about', async () => {
    await show({ ...session, finished: false });
    expect(await screen.findByText('No morning report is missing.')).toBeTruthy();
  });
});
