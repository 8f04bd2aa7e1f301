import { bundledReference } from '@yonder/core/reference/bundled';
import { createHighsSolver } from '@yonder/core/builder';
import { caseSchema } from '@yonder/core/schemas';
import loadHighs from 'highs';
import { describe, expect, it } from 'vitest';
import { ComputeClient } from './client.ts';
import type { WorkerPort } from './client.ts';
import { handlers } from './handlers.ts';
import type { Ask, Message, Reply, Subject } from './protocol.ts';
import { HeldRecord } from './solvedCase.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

/** A port that only notes what it is told; answers are given by hand. */
function fakePort() {
  const told: Message[] = [];
  const asked: Ask[] = [];
  let ended = false;
  const port: WorkerPort = {
    postMessage: (message) => {
      told.push(message);
      if ('id' in message) asked.push(message);
    },
    terminate: () => (ended = true),
    onmessage: null,
    onerror: null,
  };
  const answer = (reply: Reply) => port.onmessage?.({ data: reply } as MessageEvent<Reply>);
  return { port, told, asked, answer, isEnded: () => ended };
}

const runner = (minutes: number) =>
  caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: '2027-03-01',
    athlete: { birthDate: '2001-05-02', trainingYears: 5, tasks: [{ id: 'fell-running-descent' }] },
    screenings: [
      {
        date: '2027-02-27',
        results: [
          { test: 'wblt-distance', side: 'left', trials: [7] },
          { test: 'wblt-distance', side: 'right', trials: [11] },
        ],
      },
    ],
    request: { minutes, kit: ['wall'] },
  });

/** A record as the worker holds it. */
async function held(minutes: number) {
  const subject = { revision: 'one', case: runner(minutes) };
  const record = new HeldRecord(bundledReference, subject, createHighsSolver(await loadHighs()));
  return { record, request: subject.case.request };
}

describe('calling the worker', () => {
  it('matches answers to questions, whatever their order', async () => {
    const fake = fakePort();
    const client = new ComputeClient(() => fake.port);
    const first = client.call('warm', null, {});
    const second = client.call('warm', null, {});
    fake.answer({ id: fake.asked[1]?.id ?? 0, kind: 'failed', message: 'no solver' });
    fake.answer({ id: fake.asked[0]?.id ?? 0, kind: 'done', answer: { ready: true } });
    await expect(first).resolves.toEqual({ ready: true });
    await expect(second).rejects.toThrow('no solver');
  });

  it('cancelling ends the worker, and the next call starts a new one', async () => {
    const ports = [fakePort(), fakePort()];
    let opened = 0;
    const client = new ComputeClient(() => (ports[opened++] ?? fakePort()).port);
    const controller = new AbortController();
    const stale = client.call('warm', null, {}, { signal: controller.signal });
    controller.abort();
    await expect(stale).rejects.toMatchObject({ name: 'AbortError' });
    expect(ports[0]?.isEnded()).toBe(true);
    const next = client.call('warm', null, {});
    ports[1]?.answer({ id: ports[1].asked[0]?.id ?? 0, kind: 'done', answer: { ready: true } });
    await expect(next).resolves.toEqual({ ready: true });
  });

  it('tells a worker of a record once, and again when it is another one or another worker', async () => {
    const ports = [fakePort(), fakePort()];
    let opened = 0;
    const client = new ComputeClient(() => (ports[opened++] ?? fakePort()).port);
    const subject = (revision: string): Subject => ({ revision, case: runner(8) });
    const request = runner(8).request;
    const controller = new AbortController();
    const kept = [
      client.call('build', subject('a'), { request }),
      client.call('build', subject('a'), { request }),
    ];
    const stale = client.call('build', subject('b'), { request }, { signal: controller.signal });
    const shape = (message: Message) => ('hold' in message ? `hold ${message.hold.revision}` : message.call);
    expect(ports[0]?.told.map(shape)).toEqual(['hold a', 'build', 'build', 'hold b', 'build']);
    controller.abort();
    await expect(stale).rejects.toMatchObject({ name: 'AbortError' });
    const next = client.call('build', subject('b'), { request });
    expect(ports[1]?.told.map(shape)).toEqual(['hold a', 'build', 'build', 'hold b', 'build']);
    // Taking one question back costs nobody else their answer.
    for (const { id } of ports[1]?.asked ?? []) ports[1]?.answer({ id, kind: 'failed', message: `no ${id}` });
    for (const call of [...kept, next]) await expect(call).rejects.toThrow(/^no \d$/);
  });

  it('a worker that dies rejects its calls instead of leaving them waiting', async () => {
    const fake = fakePort();
    const client = new ComputeClient(() => fake.port);
    const call = client.call('warm', null, {});
    fake.port.onerror?.({} as ErrorEvent);
    await expect(call).rejects.toThrow('stopped unexpectedly');
  });
});

describe('the handlers', () => {
  it('build with interim answers that never get worse, and explain what was built', async () => {
    const { record, request } = await held(10);
    const interims: number[] = [];
    const report = handlers.build(record, { request }, ({ report: r }) =>
      interims.push(r.routine?.objective ?? -1),
    );
    expect(interims.length).toBeGreaterThan(0);
    expect(interims).toEqual([...interims].sort((a, b) => a - b));
    const items = (report.routine?.items ?? []).map(
      ({ seconds: _s, serves: _v, reasons: _r, ...item }) => item,
    );
    const explained = handlers.explain(record, { request, items }, () => undefined);
    expect(explained.items.map((e) => e.serves)).toEqual(report.routine?.items.map((item) => item.serves));
    expect(explained.unserved).toEqual([]);
  });

  it('answer many questions about one case: why not, what if, minutes, re-fit, swaps', async () => {
    const { record, request } = await held(8);
    const first: object[] = [];
    const nearest = handlers.whyNot(record, { request, drills: [] }, (bounds) => first.push(bounds));
    expect(Object.keys(nearest)).toHaveLength(10);
    expect(Object.keys(first[0] ?? {})).toEqual(Object.keys(nearest));
    const [costly] = Object.entries(nearest).filter(([, a]) => a.kind === 'costs');
    if (!costly) throw new Error('nothing costs anything');
    const exact = handlers.whyNotExact(record, { request, drill: costly[0] }, () => undefined as never);
    expect(exact.why).toMatchObject({ kind: 'costs', exact: true });

    const longer = handlers.whatIf(record, { request, change: { minutes: 4 } }, () => undefined as never);
    expect(longer.request.minutes).toBe(12);
    expect(longer.report.routine?.benefit).toBeGreaterThanOrEqual(longer.now.routine?.benefit ?? 0);

    const points: number[] = [];
    const curve = handlers.curve(record, { request, minutes: [5, 8] }, (p) => points.push(p.minutes));
    expect(points).toEqual([5, 8]);
    expect(curve).toHaveLength(2);

    const built = handlers.build(record, { request }, () => undefined).routine?.items ?? [];
    const from = [...built.map((item) => item.drill), 'drop-rebound-jump'];
    const refit = handlers.refit(record, { request, from }, () => undefined as never);
    expect(refit.changes.filter((c) => c.what === 'kept')).toHaveLength(built.length);
    expect(refit.changes.find((c) => c.drill === 'drop-rebound-jump')?.what).toBe('left-out');

    const items = built.map(({ seconds: _s, serves: _v, reasons: _r, ...item }) => item);
    const swaps = handlers.swaps(
      record,
      { request, items, index: 0, reason: 'dislikes' },
      () => undefined as never,
    );
    for (const swap of eachOf(swaps)) expect(items.map((i) => i.drill)).not.toContain(swap.drill);
  }, 20_000);
});
