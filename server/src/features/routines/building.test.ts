import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bundledReference } from '@yonder/core/reference/bundled';
import { ownDrillOf } from '@yonder/core/formats';
import { addAthlete, createTestApp, issue, ROCK, screenAnkles, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

interface Line {
  kind: string;
  report?: {
    routine: {
      items: { drill: string; side: 'left' }[];
      totalSeconds: number;
      objective: number;
      gap: number;
    };
  };
}

async function build(athleteId: string, request: object): Promise<Line[]> {
  const { text } = await north
    .post(`/athletes/${athleteId}/build`, { on: TODAY, request })
    .buffer(true)
    .parse((response, done) => {
      let body = '';
      response.on('data', (chunk: Buffer) => (body += chunk.toString('utf8')));
      response.on('end', () => done(null, body));
    })
    .expect(200)
    .then((response) => ({ text: response.body as string }));
  return text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Line);
}

describe('building on the server', () => {
  it('sends better and better answers line by line and ends with the proven one', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-27');
    const lines = await build(id, { minutes: 10, kit: ['wall'] });
    expect(lines.at(-1)?.kind).toBe('done');
    expect(lines.slice(0, -1).every((line) => line.kind === 'interim')).toBe(true);
    const objectives = lines.map((line) => line.report?.routine.objective ?? 0);
    expect(objectives).toEqual([...objectives].sort((a, b) => a - b));
    const routine = lines.at(-1)?.report?.routine;
    expect(routine?.totalSeconds).toBeLessThanOrEqual(600);
    expect(routine?.gap).toBeLessThanOrEqual(0.005);
  });
  it('several at once each get their own answer', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-27');
    const minutes = [4, 8, 12, 16];
    const all = await Promise.all(minutes.map((m) => build(id, { minutes: m, kit: ['wall'] })));
    const seconds = all.map((lines) => lines.at(-1)?.report?.routine.totalSeconds ?? Infinity);
    expect(seconds.every((s, i) => s <= (minutes[i] ?? 0) * 60)).toBe(true);
    expect(new Set(seconds).size).toBeGreaterThan(2);
  });
  it('names the faults of a request and never builds for another practice', async () => {
    const { id } = await addAthlete(north);
    const faulty = await north
      .post(`/athletes/${id}/build`, { on: TODAY, request: { pattern: 'somersault', pins: ['moon-walk'] } })
      .expect(400);
    expect(faulty.body.errors.map((e: { path: string }) => e.path)).toEqual([
      '$.request.pins[0]',
      '$.request.pattern',
    ]);
    const south = await app.signIn('south');
    await south.post(`/athletes/${id}/build`, { on: TODAY, request: {} }).expect(404);
  });
});

describe('a precaution', () => {
  const excluded = bundledReference.data.precautions
    .filter((p) => p.severity === 'exclude')
    .flatMap((p) => {
      const drill = bundledReference.data.drills.find(
        (d) =>
          d.contraindications.includes(p.id) && !d.precautionOverrides.some((o) => o.precaution === p.id),
      );
      return drill ? [{ precaution: p.id, drill }] : [];
    });
  const itemOf = (drill: (typeof excluded)[0]['drill'], over: object = {}) => ({
    id: randomUUID(),
    drill: drill.id,
    side: drill.unilateral ? 'left' : 'both',
    sets: 1,
    amount: drill.dose.amount.min,
    measure: drill.dose.measure,
    restSeconds: 0,
    setup: {},
    ...over,
  });

  it('refuses its drills whatever the client sends: alone, pinned, in a circuit, hidden among others', async () => {
    expect(excluded.length).toBeGreaterThan(15);
    for (const { precaution, drill } of eachOf(excluded)) {
      const { id } = await addAthlete(north);
      await north.create(`/athletes/${id}/precautions`, { precaution, setBy: 'R. Halloran' }).expect(201);
      const tries: [string, object[], object][] = [
        ['alone', [itemOf(drill)], {}],
        ['pinned', [itemOf(drill)], { pins: [drill.id], prefer: [drill.id] }],
        ['in a circuit', [itemOf(drill, { circuit: { id: 'a', rounds: 2 } })], {}],
        ['among others', [ROCK, itemOf(drill, { phase: 'mobilise' })], { kit: ['wall'] }],
      ];
      for (const [how, items, request] of eachOf(tries)) {
        const body = { on: TODAY, mode: 'build', structure: 'short-minimum', request, items };
        const sent = await north.create(`/athletes/${id}/routines`, body);
        expect(sent.status, `${precaution} ${drill.id} ${how}`).toBe(422);
        expect(sent.body.code).toBe('safety-refused');
      }
      expect((await north.get(`/athletes/${id}/routines`)).body.items).toEqual([]);
    }
  });
  it('binds a drill of the practice’s own as well, also when a template brings it', async () => {
    const source = bundledReference.drills.get('box-drop-landing');
    if (!source) throw new Error('no drill');
    const { body } = await north
      .create('/library/drills', { drill: ownDrillOf(source, 'own-x', 'Soft drop') })
      .expect(201);
    const own = body.drills.find((d: { drill: { name: string } }) => d.drill.name === 'Soft drop').drill;
    await north
      .create('/templates', {
        name: 'Jump day',
        structure: 'short-minimum',
        request: {},
        items: [itemOf(source, { drill: own.id })],
      })
      .expect(201);
    const { id } = await addAthlete(north);
    await north
      .create(`/athletes/${id}/precautions`, { precaution: 'no-impact', setBy: 'R. Halloran' })
      .expect(201);
    const refused = await issue(north, id, TODAY, [itemOf(source, { drill: own.id })]).expect(422);
    expect(refused.body.errors[0]).toMatchObject({ path: '$.items[0]' });
    expect(refused.body.errors[0].message).toContain('Soft drop');
  });
});
