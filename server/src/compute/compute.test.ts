import type { BuildReport } from '@yonder/core/builder';
import { caseSchema } from '@yonder/core/schemas';
import { afterAll, describe, expect, it } from 'vitest';
import { Compute } from './compute.ts';

const compute = new Compute(2);
afterAll(() => compute.close());

const ask = (minutes: number) =>
  caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: '2027-03-01',
    athlete: { birthDate: '2001-05-02', tasks: [{ id: 'fell-running-descent' }] },
    request: { minutes, kit: ['wall'] },
  });
const never = () => new AbortController().signal;
const nothing = () => {};
const build = (minutes: number, signal = never(), onInterim = nothing): Promise<BuildReport> => {
  const input = ask(minutes);
  return compute.build(input, input.request, onInterim, signal);
};

describe('builds on threads', () => {
  it('answer each its own question, however many are asked at once', async () => {
    const minutes = [4, 6, 9, 12, 15];
    const reports = await Promise.all(minutes.map((m) => build(m)));
    reports.forEach((report, i) =>
      expect(report.routine?.totalSeconds).toBeLessThanOrEqual(60 * (minutes[i] ?? 0)),
    );
  });
  it('stop when they are aborted, running or waiting, and the next one is answered all the same', async () => {
    const gone = new AbortController();
    const stale = build(20, gone.signal, () => gone.abort());
    await expect(stale).rejects.toThrow(/abort/i);
    const away = new AbortController();
    const running = [build(8), build(8)];
    const waiting = build(8, away.signal);
    away.abort();
    await expect(waiting).rejects.toThrow(/abort/i);
    await expect(Promise.all(running)).resolves.toHaveLength(2);
    expect((await build(5)).routine?.items.length).toBeGreaterThan(2);
  });
  it('a case that cannot be built says why and leaves the thread usable', async () => {
    const input = ask(5);
    const request = { ...input.request, structure: 'no-such-structure' };
    await expect(compute.build(input, request, () => undefined, never())).rejects.toThrow(
      'unknown structure',
    );
    expect((await build(5)).routine).not.toBeNull();
  });
});
