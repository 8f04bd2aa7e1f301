import { caseSchema } from '@yonder/core/schemas';
import { afterAll, describe, expect, it } from 'vitest';
import { Builds } from './builds.ts';

const builds = new Builds();
afterAll(() => builds.close());

const ask = (minutes: number) =>
  caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: '2027-03-01',
    athlete: { birthDate: '2001-05-02', tasks: [{ id: 'fell-running-descent' }] },
    request: { minutes, kit: ['wall'] },
  });
const never = () => new AbortController().signal;

describe('builds on threads', () => {
  it('answer each its own question, however many are asked at once', async () => {
    const reports = await Promise.all(
      [4, 6, 9, 12, 15].map((m) => builds.run(ask(m), () => undefined, never())),
    );
    reports.forEach((report, i) =>
      expect(report.routine?.totalSeconds).toBeLessThanOrEqual(60 * ([4, 6, 9, 12, 15][i] ?? 0)),
    );
  }, 30_000);
  it('stop when they are aborted, and the next one is answered all the same', async () => {
    const gone = new AbortController();
    const stale = builds.run(ask(20), () => gone.abort(new Error('gone')), gone.signal);
    await expect(stale).rejects.toThrow('gone');
    const next = await builds.run(ask(5), () => undefined, never());
    expect(next.routine?.items.length).toBeGreaterThan(2);
  }, 30_000);
  it('that still wait leave the queue when they are aborted', async () => {
    const gone = new AbortController();
    const running = [
      builds.run(ask(8), () => undefined, never()),
      builds.run(ask(8), () => undefined, never()),
    ];
    const waiting = builds.run(ask(8), () => undefined, gone.signal);
    gone.abort(new Error('no longer wanted'));
    await expect(waiting).rejects.toThrow('no longer wanted');
    await expect(Promise.all(running)).resolves.toHaveLength(2);
  }, 30_000);
  it('a case that cannot be built says why and leaves the thread usable', async () => {
    const broken = { ...ask(5), request: { ...ask(5).request, structure: 'no-such-structure' } };
    await expect(builds.run(broken, () => undefined, never())).rejects.toThrow('unknown structure');
    expect((await builds.run(ask(5), () => undefined, never())).routine).not.toBeNull();
  }, 30_000);
});
