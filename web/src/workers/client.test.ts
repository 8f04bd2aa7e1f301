import { bundledReference } from '@yonder/core/reference/bundled';
import { createHighsSolver } from '@yonder/core/builder';
import { caseSchema } from '@yonder/core/schemas';
import loadHighs from 'highs';
import { describe, expect, it } from 'vitest';
import { ComputeClient } from './client.ts';
import type { WorkerPort } from './client.ts';
import { handlers } from './handlers.ts';
import type { Ask, Reply } from './protocol.ts';

/** A port that only notes what it is told; answers are given by hand. */
function fakePort() {
  const asked: Ask[] = [];
  let ended = false;
  const port: WorkerPort = {
    postMessage: (ask) => asked.push(ask),
    terminate: () => (ended = true),
    onmessage: null,
    onerror: null,
  };
  const answer = (reply: Reply) => port.onmessage?.({ data: reply } as MessageEvent<Reply>);
  return { port, asked, answer, isEnded: () => ended };
}

describe('calling the worker', () => {
  it('matches answers to questions, whatever their order', async () => {
    const fake = fakePort();
    const client = new ComputeClient(() => fake.port);
    const first = client.call('warm', {});
    const second = client.call('warm', {});
    fake.answer({ id: fake.asked[1]?.id ?? 0, kind: 'failed', message: 'no solver' });
    fake.answer({ id: fake.asked[0]?.id ?? 0, kind: 'done', answer: { ready: true } });
    await expect(first).resolves.toEqual({ ready: true });
    await expect(second).rejects.toThrow('no solver');
  });

  it('cancelling ends the worker, rejects what waits, and the next call starts a new one', async () => {
    const ports = [fakePort(), fakePort()];
    let opened = 0;
    const client = new ComputeClient(() => (ports[opened++] ?? fakePort()).port);
    const controller = new AbortController();
    const stale = client.call('warm', {}, { signal: controller.signal });
    controller.abort();
    await expect(stale).rejects.toMatchObject({ name: 'AbortError' });
    expect(ports[0]?.isEnded()).toBe(true);
    const next = client.call('warm', {});
    ports[1]?.answer({ id: ports[1].asked[0]?.id ?? 0, kind: 'done', answer: { ready: true } });
    await expect(next).resolves.toEqual({ ready: true });
  });

  it('a worker that dies rejects its calls instead of leaving them waiting', async () => {
    const fake = fakePort();
    const client = new ComputeClient(() => fake.port);
    const call = client.call('warm', {});
    fake.port.onerror?.({} as ErrorEvent);
    await expect(call).rejects.toThrow('stopped unexpectedly');
  });
});

describe('the handlers', () => {
  it('build with interim answers that never get worse, and explain what was built', async () => {
    const tools = { reference: bundledReference, solver: createHighsSolver(await loadHighs()) };
    const input = caseSchema.parse({
      format: 'yonder-ridge-case/1',
      today: '2027-03-01',
      athlete: { birthDate: '2001-05-02', tasks: [{ id: 'fell-running-descent' }] },
      screenings: [
        {
          date: '2027-02-27',
          results: [
            { test: 'wblt-distance', side: 'left', trials: [7] },
            { test: 'wblt-distance', side: 'right', trials: [11] },
          ],
        },
      ],
      request: { minutes: 10, kit: ['wall'] },
    });
    const interims: number[] = [];
    const report = handlers.build(tools, { case: input }, ({ report: r }) =>
      interims.push(r.routine?.objective ?? -1),
    );
    expect(interims.length).toBeGreaterThan(0);
    expect(interims).toEqual([...interims].sort((a, b) => a - b));
    const items = (report.routine?.items ?? []).map(
      ({ seconds: _s, serves: _v, reasons: _r, ...item }) => item,
    );
    const explained = handlers.explain(tools, { case: input, items }, () => undefined);
    expect(explained.items.map((e) => e.serves)).toEqual(report.routine?.items.map((item) => item.serves));
    expect(explained.uncovered).toEqual([]);
  });
});
