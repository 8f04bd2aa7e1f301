import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { assessCase } from '@yonder/core/assess';
import { bundledReference } from '@yonder/core/reference/bundled';
import { addAthlete, createTestApp, screenAnkles, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
let south: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  south = await app.signIn('south');
});
afterAll(() => app.close());

const caseOf = async (id: string) => (await north.get(`/athletes/${id}/case`).expect(200)).body.case;
const findingsOf = async (id: string) => assessCase(bundledReference, await caseOf(id)).report.findings;

describe('what hurts now', () => {
  const pain = { region: 'elbow', side: 'right', aspect: 'outer', feel: 'ache', when: 'day-after', nrs: 3 };

  it('is in the case until it ends, and stays on record after', async () => {
    const { id } = await addAthlete(north);
    const { body } = await north
      .create(`/athletes/${id}/pains`, { ...pain, since: '2027-02-01' })
      .expect(201);
    expect((await caseOf(id)).athlete.pains).toEqual([{ ...pain, since: '2027-02-01', ended: null }]);
    const end = (date: string) =>
      north.post(`/athletes/${id}/pains/${body.pains[0].id}/end`, { date, version: 1 });
    expect((await end('2027-01-31').expect(400)).body.errors[0].path).toBe('$.date');
    expect((await end(TODAY).expect(200)).body.pains).toMatchObject([{ ...pain, ended: TODAY }]);
  });

  it.each([
    [{ nrs: 11 }, '$.nrs'],
    [{ feel: 'itch' }, '$.feel'],
    [{ since: '2027-03-02' }, '$.since'],
    [{ when: undefined }, '$.when'],
  ])('with %o is refused at %s and nothing is stored', async (over, path) => {
    const { id } = await addAthlete(north);
    const body = { ...pain, since: '2027-02-01', ...over };
    const refused = await north.create(`/athletes/${id}/pains`, body).expect(400);
    expect(refused.body.errors.map((e: { path: string }) => e.path)).toContain(path);
    expect((await north.get(`/athletes/${id}`)).body.pains).toEqual([]);
  });
});

describe('a protocol after an operation', () => {
  const ticked = { by: 'Dr V. Ness', date: '2027-02-20', drills: ['ankle-pumps'], tests: ['wblt-distance'] };
  const operated = async () => {
    const { id } = await addAthlete(north);
    const drill = bundledReference.data.drills.find((d) => d.regions.primary.includes('ankle-foot'))?.id;
    await north.create(`/athletes/${id}/injuries`, {
      region: 'ankle-foot',
      side: 'left',
      date: '2027-01-10',
      operated: true,
    });
    return { id, body: { ...ticked, drills: [drill] } };
  };

  it('opens exactly the ticked tests of that region and side', async () => {
    const { id, body } = await operated();
    const visit = (await north.create(`/athletes/${id}/screenings`, { date: TODAY })).body.id;
    const put = (test: string, trials: number[]) =>
      north.put(`/screenings/${visit}/results/${test}/left`, { trials });
    await put('wblt-distance', [7, 7, 7]).expect(422);
    await north.put(`/athletes/${id}/protocols/ankle-foot/left`, body).expect(200);
    await put('wblt-distance', [7, 7, 7]).expect(200);
    await put('heel-raise-reps', [10]).expect(422);
  });

  it('is changed on the version it was read at; unknown drills are named', async () => {
    const { id, body } = await operated();
    const path = `/athletes/${id}/protocols/ankle-foot/left`;
    const first = await north.put(path, body).expect(200);
    expect(first.body.protocols).toMatchObject([{ ...body, region: 'ankle-foot', side: 'left', version: 1 }]);
    await north.put(path, { ...body, version: 1, tests: [] }).expect(200);
    const conflict = await north.put(path, { ...body, version: 1 }).expect(409);
    expect(conflict.body.current).toMatchObject({ tests: [], version: 2 });
    await north.put(path, body).expect(409);
    const unknown = await north.put(path, { ...body, version: 2, drills: ['moon-walk'] }).expect(400);
    expect(unknown.body.errors).toEqual([{ path: '$.drills[0]', message: 'unknown drill "moon-walk"' }]);
  });
});

describe('an athlete’s own need', () => {
  it('replaces task and floor with its reason, and can be taken back', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-20');
    const short = async () =>
      (await findingsOf(id)).find((f) => f.restriction === 'ankle-dorsiflexion-limit' && f.side === 'left');
    const before = await short();
    const path = `/athletes/${id}/needs/wblt-distance/left`;
    await north.put(path, { value: 6, reason: 'bony block, lives well with it' }).expect(200);
    expect((await short())?.evidence.map((e) => e.needSource.kind)).toContain('override');
    expect((await short())?.severity).toBeLessThan(before?.severity ?? 0);
    await north.delete(`${path}?version=1`).expect(200);
    expect((await short())?.severity).toBe(before?.severity);
    await north.delete(`${path}?version=1`).expect(404);
  });

  it.each([
    ['wblt-distance/left', { value: 99, reason: 'too much' }, 400, '$.value'],
    ['wblt-distance/central', { value: 9, reason: 'wrong side' }, 400, '$.side'],
    ['wblt-distance/left', { value: 9, reason: '' }, 400, '$.reason'],
  ])('%s with %o is refused', async (place, body, status, path) => {
    const { id } = await addAthlete(north);
    const refused = await north.put(`/athletes/${id}/needs/${place}`, body).expect(status);
    expect(refused.body.errors[0].path).toBe(path);
  });
});

describe('a level that was seen', () => {
  const raise = 'single-leg-heel-raise';
  const path = (id: string, drill = raise, side = 'both') => `/athletes/${id}/placements/${drill}/${side}`;
  const placed = async (id: string) => (await caseOf(id)).athlete.placements;

  it('stands in the case with its ladder, who saw it and when; the later word counts; it can be taken back', async () => {
    const { id } = await addAthlete(north);
    const { body } = await north.put(path(id), { verdict: 'fine' }).expect(200);
    const seen = { drill: raise, side: 'both', by: 'R. Halloran', date: TODAY };
    expect(body.placements).toMatchObject([{ ...seen, verdict: 'fine', version: 1 }]);
    await north.put(path(id, raise, 'left'), { verdict: 'fine' }).expect(200);
    await north.put(path(id), { verdict: 'too-hard', version: 1 }).expect(200);
    expect(await placed(id)).toEqual([
      { ...seen, side: 'left', ladder: 'calf-strength', verdict: 'fine' },
      { ...seen, ladder: 'calf-strength', verdict: 'too-hard' },
    ]);
    await north.delete(`${path(id)}?version=2`).expect(200);
    expect(await placed(id)).toHaveLength(1);
  });

  it('is changed on the version it was read at', async () => {
    const { id } = await addAthlete(north);
    await north.put(path(id), { verdict: 'fine' }).expect(200);
    const clash = await north.put(path(id), { verdict: 'too-hard' }).expect(409);
    expect(clash.body.current).toMatchObject({ verdict: 'fine', version: 1 });
    await north.delete(`${path(id)}?version=2`).expect(409);
  });

  it('of no drill, of a side that a drill has not, or of another practice’s athlete is refused', async () => {
    const { id } = await addAthlete(north);
    await north.put(path(id, 'moon-walk'), { verdict: 'fine' }).expect(404);
    const central = bundledReference.data.drills.find((d) => !d.unilateral)?.id ?? '';
    const refused = await north.put(path(id, central, 'left'), { verdict: 'fine' }).expect(400);
    expect(refused.body.errors[0].path).toBe('$.side');
    await north.put(path(id, raise, 'central'), { verdict: 'fine' }).expect(400);
    await north.put(path(id), { verdict: 'perhaps' }).expect(400);
    await south.put(path(id), { verdict: 'fine' }).expect(404);
  });
});

describe('what is said of a finding', () => {
  const calf = { restriction: 'calf-endurance-deficit', side: 'left' };

  it('set aside it loses its priority, taken back it has it again; who and when is kept', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-20');
    const priority = async () =>
      (await findingsOf(id)).find((f) => f.restriction === calf.restriction && f.side === 'left')?.priority;
    const before = await priority();
    const aside = { ...calf, verdict: 'dismissed', reason: 'tested tired after a race' };
    const { body } = await north.create(`/athletes/${id}/judgements`, aside).expect(201);
    expect(body.judgements).toMatchObject([{ ...aside, by: 'R. Halloran', date: TODAY }]);
    expect(await priority()).toBe(0);
    await north.delete(`/athletes/${id}/judgements/${body.judgements[0].id}?version=1`).expect(200);
    expect(await priority()).toBe(before);
  });

  it.each([
    [{ ...calf, verdict: 'dismissed' }, '$.reason'],
    [{ ...calf, side: 'central', verdict: 'seen' }, '$.side'],
    [{ restriction: 'moon-walk', side: 'left', verdict: 'seen' }, '$.restriction'],
  ])('%o is refused at %s', async (body, path) => {
    const { id } = await addAthlete(north);
    const refused = await north.create(`/athletes/${id}/judgements`, body).expect(400);
    expect(refused.body.errors[0].path).toBe(path);
  });

  it('of another practice’s athlete does not exist', async () => {
    const { id } = await addAthlete(north);
    await south.create(`/athletes/${id}/judgements`, { ...calf, verdict: 'seen' }).expect(404);
    await south.put(`/athletes/${id}/needs/wblt-distance/left`, { value: 6, reason: 'why' }).expect(404);
    await south.put(`/athletes/${id}/protocols/knee/left`, { by: 'X', date: TODAY }).expect(404);
  });
});
