import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, stored, visit } = await atTheDesk();
const MIRA = 'Mira Oldtown';

describe('what a diary asked to refer', () => {
  it('stands on Today and in the strip, closes the joint, and is ended by a named person with a reason', async () => {
    const athlete = ids.get(MIRA);
    await stored(
      `UPDATE session_entries SET pain = 8 WHERE athlete_id = $1 AND drill = 'knee-to-wall-rock' AND side = 'left'`,
      [athlete],
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
    await open.page.waitForFunction(() => !document.body.innerText.includes('is to be looked at'));
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
