import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, createTestApp, issue, saySign, screenAnkles, TODAY } from '../testing/testApp.ts';
import type { Client, TestApp } from '../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

const PRECAUTION = { precaution: 'no-impact', setBy: 'R. Halloran' };
interface Event {
  action: string;
  refused: string | null;
  athlete_id: string | null;
  actor_kind: string;
  actor_id: string;
}
const actions = () => app.stored<Event>('SELECT * FROM audit_events ORDER BY id');
/** What was recorded while something was done. */
async function recorded(work: () => Promise<unknown>) {
  const before = (await actions()).length;
  await work();
  return (await actions()).slice(before);
}

describe('who changed what', () => {
  it('is recorded for every kind of change of an athlete', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-20');
    const pain = { region: 'knee', side: 'left', when: 'rest', nrs: 2, since: '2027-02-01' };
    const ticked = { by: 'Dr V. Ness', date: TODAY };
    const judgement = { restriction: 'calf-endurance-deficit', side: 'left', verdict: 'confirmed' };
    const rows = await recorded(async () => {
      const { body } = await north.create(`/athletes/${id}/pains`, pain).expect(201);
      await north
        .post(`/athletes/${id}/pains/${body.pains[0].id}/end`, { date: TODAY, version: 1 })
        .expect(200);
      await north.put(`/athletes/${id}/protocols/knee/left`, ticked).expect(200);
      await north.put(`/athletes/${id}/needs/wblt-distance/left`, { value: 8, reason: 'own' }).expect(200);
      await north.delete(`/athletes/${id}/needs/wblt-distance/left?version=1`).expect(200);
      const said = await north.create(`/athletes/${id}/judgements`, judgement).expect(201);
      await north.delete(`/athletes/${id}/judgements/${said.body.judgements[0].id}?version=1`).expect(200);
      await north.get(`/screenings.csv?athlete=${id}`).expect(200);
    });
    expect(rows.map((row) => row.action)).toEqual([
      'pain.add',
      'pain.end',
      'protocol.put',
      'need.put',
      'need.remove',
      'finding.judge',
      'finding.withdraw',
      'screenings.export',
    ]);
    expect(rows.map((row) => row.athlete_id)).toEqual(rows.map(() => id));
    expect(new Set(rows.map((row) => `${row.actor_kind} ${row.actor_id}`)).size).toBe(1);
  });

  it('is recorded for the practice’s figures, and a refused change leaves nothing', async () => {
    const edit = { test: 'wblt-distance', path: 'sem', value: 0.7, reason: 'our tape' };
    const rows = await recorded(async () => {
      const { body } = await north.create('/figures/edits', edit).expect(201);
      await north.post(`/figures/edits/${body.edits[0].id}/end`, { reason: 'back', version: 1 }).expect(200);
      await north.create('/figures/edits', { ...edit, value: -1 }).expect(400);
      await north.post('/figures/preview', { set: [edit] }).expect(200);
    });
    expect(rows.map((row) => row.action)).toEqual(['figure.set', 'figure.unset', 'figures.preview']);
  });

  it('is read by the owner alone, of everybody or of one athlete, page by page', async () => {
    const { id } = await addAthlete(north, { name: 'Una Fellgate' });
    await north.get(`/athletes/${id}`).expect(200);
    const first = (await north.get(`/audit?athlete=${id}&limit=1`).expect(200)).body;
    expect(first.items).toMatchObject([
      { action: 'athlete.read', actor: { name: 'R. Halloran' }, athlete: { id, name: 'Una Fellgate' } },
    ]);
    const rest = (await north.get(`/audit?athlete=${id}&after=${first.next}`).expect(200)).body;
    expect(rest.items.map((row: Event) => row.action)).toEqual(['athlete.create']);
    await (await app.signIn('north', 'clinician')).get('/audit').expect(403);
  });

  it('keeps what was refused, with why, and names nobody of another practice', async () => {
    const { id } = await addAthlete(north, { name: 'Una Fellgate' });
    const stranger = await addAthlete(await app.signIn('south'));
    const reader = await app.signIn('north', 'assistant');
    const { body: version } = await issue(north, id, TODAY).expect(201);
    const rows = await recorded(async () => {
      await saySign(north, id, 'gen-chest').expect(201);
      await issue(north, id, TODAY).expect(422);
      await reader.create(`/athletes/${id}/precautions`, PRECAUTION).expect(403);
      await reader.create(`/athletes/${stranger.id}/precautions`, PRECAUTION).expect(403);
      await north.create('/sessions', { routineId: version.id, date: TODAY }).expect(422);
    });
    expect(rows.map(({ action, refused, athlete_id }) => [action, refused, athlete_id])).toEqual([
      ['gate.answer', null, id],
      ['routine.issue', 'blocked', id],
      ['precaution.add', 'not-allowed', id],
      ['precaution.add', 'not-allowed', null],
      ['session.start', 'blocked', id],
    ]);
    const { body } = await north.get(`/audit?athlete=${id}&action=precaution`).expect(200);
    expect(body.items).toMatchObject([{ action: 'precaution.add', refused: 'not-allowed' }]);
  });

  it('cannot be changed or taken away, whoever asks the database', async () => {
    await addAthlete(north);
    for (const statement of [
      "UPDATE audit_events SET action = 'nothing'",
      'UPDATE audit_events SET change = NULL',
      'DELETE FROM audit_events',
      "BEGIN; SELECT set_config('yonder.erasing', 'on', true); UPDATE audit_events SET action = 'x'; COMMIT",
    ])
      await expect(app.stored(statement), statement).rejects.toThrow(/only be added to/);
  });

  it('says what was done, never what was said: no health data in the log', async () => {
    const { id } = await addAthlete(north, { name: 'Secret Hollow' });
    const said = {
      restriction: 'calf-endurance-deficit',
      side: 'left',
      verdict: 'dismissed',
      reason: 'old rupture',
    };
    await north.create(`/athletes/${id}/judgements`, said).expect(201);
    await north.create(`/athletes/${id}/judgements`, { ...said, reason: '' }).expect(400);
    const log = app.log.join('\n');
    expect(log).toContain('/judgements');
    for (const secret of ['Secret Hollow', 'old rupture', 'calf-endurance'])
      expect(log).not.toContain(secret);
  });
});
