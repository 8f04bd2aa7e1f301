import { describe, expect, it } from 'vitest';
import { bundledReference } from '@yonder/core/reference/bundled';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, stored, visit } = await atTheDesk();
const MIRA = 'Mira Oldtown';
const ofTheAnkle = bundledReference.data.drills
  .filter(({ ladder }) => ladder === 'dorsiflexion-mobility')
  .map(({ id }) => id);

describe('what a diary asked to refer', () => {
  it('stands on Today and in the strip, closes the joint, and is ended by a named person with a reason', async () => {
    const athlete = ids.get(MIRA);
    await stored(
      `UPDATE session_entries SET pain = 8 WHERE athlete_id = $1 AND drill = ANY($2) AND side = 'left'`,
      [athlete, ofTheAnkle],
    );
    await stored('UPDATE sessions SET version = version WHERE athlete_id = $1', [athlete]); // as every event does
    await clinician.loads('/today');
    await clinician.reads(/To be looked at: ankle and foot,? left, pain 8.10/);
    await visit(MIRA, 'progress');
    await clinician.reads('Stop and refer');
    await visit(MIRA, 'run');
    await clinician.reads('Nothing loads it until a named person ends this');
    await clinician.reads(/not today: a diary said to stop and refer/);
    await clinician.pressesLike('End the referral');
    await clinician.reads('Only once a qualified person has looked at it');
    await clinician.fills('Who looked at it, and what was found', 'Dr Halden: ligaments firm, may be loaded');
    await clinician.presses('End it');
    await clinician.readsNoMore('is to be looked at');
    const lifts = await stored<{ referral: boolean; reason: string; by: string }>(
      'SELECT referral, reason, by FROM lifts WHERE athlete_id = $1',
      [athlete],
    );
    expect(lifts).toEqual([
      { referral: true, reason: 'Dr Halden: ligaments firm, may be loaded', by: 'Rowan Halloran' },
    ]);
    expect(open.errors).toEqual([]);
  });
});

describe('a run that is under way', () => {
  it('leaves out what a precaution forbids meanwhile, and ends when a sign is there', async () => {
    const athlete = ids.get('Tarn Whitlow') ?? '';
    /** Says something elsewhere, as a colleague at another desk would. */
    const elsewhere = (path: string, body: object) =>
      open.page.evaluate(
        async (url: string, given: object) => {
          const { csrfToken } = await (await fetch('/api/v1/auth/me')).json();
          const { status } = await fetch(url, {
            method: 'POST',
            headers: { 'content-type': 'application/json', 'x-csrf-token': csrfToken },
            body: JSON.stringify({ id: crypto.randomUUID(), ...given }),
          });
          return status;
        },
        `/api/v1/athletes/${athlete}/${path}`,
        body,
      );
    await visit('Tarn Whitlow', 'run');
    await clinician.startsTheRun();
    await clinician.presses('Go');
    expect(
      await elsewhere('precautions', { precaution: 'shoulder-anterior-apprehension', setBy: 'K. Moor' }),
    ).toBe(201);
    await clinician.reads('Left out from now on');
    await clinician.reads('a precaution forbids it');
    const chest = { topic: 'heart', outcome: 'signs', signs: [{ redFlag: 'gen-chest' }] };
    expect(await elsewhere('gate', chest)).toBe(201);
    await clinician.reads('Stop: this run does not go on');
    await clinician.presses('End the session');
    await clinician.reads('How was it?');
    await clinician.presses('Store the session');
    await clinician.reads('Last sessions');
    const [run] = await stored<{ finished: boolean; done: string[] }>(
      `SELECT s.finished, array_agg(e.done) AS done FROM sessions s JOIN session_entries e ON e.session_id = s.id
       WHERE s.athlete_id = $1 AND s.date = CURRENT_DATE GROUP BY s.id, s.finished`,
      [athlete],
    );
    expect(run?.finished).toBe(true);
    expect(run?.done.filter((done) => done === 'all')).toEqual([]);
    expect(open.errors).toEqual([]);
  });
});
