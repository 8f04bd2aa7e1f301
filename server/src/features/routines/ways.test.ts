import { randomUUID } from 'node:crypto';
import { bundledReference } from '@yonder/core/reference/bundled';
import type { Drill } from '@yonder/core/reference';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loosened } from '../../testing/loose.ts';
import { addAthlete, createTestApp, issue, ROCK, said, saySign, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

/** What stands in the way, and a drill of the library that it forbids. */
interface Bar {
  readonly name: string;
  readonly drill: Drill;
  readonly athlete?: object;
  readonly set: (athlete: string) => Promise<unknown>;
  /** What the refusal names. */
  readonly says: RegExp;
}

const drills = bundledReference.data.drills;
const forbidden = (id: string) =>
  drills.find(
    (d) =>
      !d.needsPartner &&
      d.contraindications.includes(id) &&
      !d.precautionOverrides.some((o) => o.precaution === id),
  );

const precautions = bundledReference.data.precautions.flatMap((precaution): Bar[] => {
  const drill = forbidden(precaution.id);
  if (precaution.severity === 'modify' || !drill) return [];
  const body = { precaution: precaution.id, setBy: 'R. Halloran' };
  return [
    {
      name: precaution.id,
      drill,
      set: (id) => north.create(`/athletes/${id}/precautions`, body).expect(201),
      says: precaution.severity === 'clearance' ? /needs a clearance note/ : /a precaution forbids it/,
    },
  ];
});
const kneeDrill = drills.find((d) => d.regions.primary.includes('knee') && !d.unilateral) as Drill;
const adultDrill = drills.find((d) => !d.youthOk) as Drill;
const harmless = drills.find((d) => d.id === 'cat-camel') as Drill;
const OPERATION = { region: 'knee', side: 'left', date: '2026-12-01', operated: true, what: 'meniscus' };
const others: Bar[] = [
  {
    name: 'an operation',
    drill: kneeDrill,
    set: (id) => north.create(`/athletes/${id}/injuries`, OPERATION).expect(201),
    says: /after an operation/,
  },
  {
    name: 'a stop sign of the region',
    drill: kneeDrill,
    set: (id) => saySign(north, id, 'knee-giving').expect(201),
    says: /stop-and-refer sign blocks/,
  },
  {
    name: 'an emergency',
    drill: kneeDrill,
    set: (id) => saySign(north, id, 'gen-chest').expect(201),
    says: /Stop now/,
  },
  {
    name: 'the age',
    drill: adultDrill,
    athlete: { birthDate: '2012-05-02' },
    set: async () => undefined,
    says: /not offered under/,
  },
];
const bars = [...precautions, ...others];

const item = (drill: Drill, id = drill.id) => ({
  ...ROCK,
  id: randomUUID(),
  drill: id,
  side: 'both',
  sets: 1,
  amount: drill.dose.amount.min,
  measure: drill.dose.measure,
  setup: {},
});

/** The id under which a copy is kept that would get round every rule. */
async function looseCopy(drill: Drill): Promise<string> {
  const copy = loosened(drill);
  const { body } = await north.create('/library/drills', { drill: copy });
  if (!body.drills) throw new Error(JSON.stringify(body));
  return body.drills.find((row: { drill: { name: string } }) => row.drill.name === copy.name).drill.id;
}

/** Every text of a refusal, wherever it stands in it. */
const words = (body: { title?: string; detail?: string; errors?: { message: string }[] }) =>
  [body.title, body.detail, ...(body.errors ?? []).map((e) => e.message)].join(' | ');

describe.each(bars.map((bar) => [bar.name, bar] as const))('%s', (_name, bar) => {
  it('is not walked around by issue, own drill, print, run, swap or decision', async () => {
    const refused = (response: { status: number; body: object }, way: string) => {
      expect([way, response.status]).toEqual([way, 422]);
      expect(words(response.body), way).toMatch(bar.says);
    };
    // Another one issued while nothing stood in the way.
    const athlete = await addAthlete(north, bar.athlete);
    const before = item(bar.athlete ? harmless : bar.drill);
    const issued = await issue(north, athlete.id, '2027-02-02', [before]);
    expect([issued.status, words(issued.body)]).toEqual([201, expect.anything()]);
    const version = issued.body;
    const { body: session } = await north
      .create('/sessions', { routineId: version.id, date: '2027-02-03' })
      .expect(200);
    await bar.set(athlete.id);

    const own = await looseCopy(bar.drill);
    refused(await issue(north, athlete.id, TODAY, [item(bar.drill)]), 'issue');
    refused(await issue(north, athlete.id, TODAY, [item(bar.drill, own)]), 'own drill');
    const to = item(bar.drill);
    const swapped = said('swapped', { item: before.id, to });
    refused(await north.post(`/sessions/${session.id}/events`, { events: [swapped] }), 'swap');
    if (bar.athlete) return; // what is in force was never forbidden
    refused(await north.get(`/routines/${version.id}/handout.pdf`), 'print');
    refused(await north.create('/sessions', { routineId: version.id, date: TODAY }), 'run');
    const verdict = { item: before.id, verdict: 'overruled', instead: 'keep', reason: 'as it was' };
    const decide = { on: TODAY, routineId: version.id, verdicts: [verdict] };
    refused(await north.create(`/athletes/${athlete.id}/decisions`, decide), 'decision');
  });
});

describe('ways around in time', () => {
  it('neither a day long past nor one far ahead opens what today forbids', async () => {
    const athlete = await addAthlete(north);
    const [bar] = precautions as [Bar];
    await bar.set(athlete.id);
    for (const on of ['0001-01-01', '1990-01-01', '2027-02-01', '2027-04-20', '9999-12-31']) {
      const response = await issue(north, athlete.id, on, [item(bar.drill)]);
      expect([on, response.status < 400]).toEqual([on, false]);
    }
  });

  it('nothing ends or is cleared before it began, or after today', async () => {
    const athlete = await addAthlete(north);
    const { body } = await north
      .create(`/athletes/${athlete.id}/precautions`, { precaution: 'no-impact', setBy: 'R. H.' })
      .expect(201);
    const path = `/athletes/${athlete.id}/precautions/${body.precautions[0].id}/end`;
    for (const date of ['0001-01-01', '2027-02-28', '2027-03-02', '9999-12-31', '2027-02-30', '\u0000'])
      await north.post(path, { by: 'R. H.', date, version: 1 }).expect(400);
    const { body: signed } = await saySign(north, athlete.id, 'foot-locking').expect(201);
    const clear = `/athletes/${athlete.id}/red-flags/${signed.redFlags[0].id}/clearance`;
    for (const date of ['1990-01-01', '2027-02-28', '2027-03-02'])
      await north.post(clear, { by: 'Dr V. Ness', date, scope: 'all of it', version: 1 }).expect(400);
    const protocol = { by: 'Dr V. Ness', date: '2026-11-30', drills: [], tests: [] };
    await north.create(`/athletes/${athlete.id}/injuries`, OPERATION).expect(201);
    await north.put(`/athletes/${athlete.id}/protocols/knee/left`, protocol).expect(400);
  });

  it('an archived drill is not issued again', async () => {
    const athlete = await addAthlete(north);
    const own = await looseCopy(harmless);
    const { body: figures } = await north.get('/figures').expect(200);
    const row = figures.drills.find((one: { drill: { id: string } }) => one.drill.id === own);
    await north
      .put(`/library/drills/${row.rowId}`, { drill: { ...row.drill, archived: true }, version: 1 })
      .expect(200);
    const { body } = await issue(north, athlete.id, TODAY, [item(harmless, own)]).expect(422);
    expect(words(body)).toContain('archived by the practice');
  });
});
