import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';
import { Clinician } from './driver/Clinician.ts';
import { openPage } from './driver/openPage.ts';

const { open, clinician, stored, base, account } = await atTheDesk();

describe('today', () => {
  it('opens after signing in, says what comes first, and each line leads to its work', async () => {
    expect(new URL(open.page.url()).pathname).toBe('/today');
    await clinician.reads('Before anybody moves');
    await clinician.reads('Ada Brackenridge');
    await clinician.reads(/old results could change nothing/);
    const [sessions] = await stored<{ count: string }>(
      'SELECT count(*) FROM sessions WHERE finished AND date >= CURRENT_DATE - 1',
    );
    await clinician.reads(new RegExp(`Sessions run\\s+${sessions?.count}`));
    await clinician.presses('Ask now: Wren Hollis', 'link');
    await clinician.reads('Before anything is built');
    await clinician.opens('/today');
    await clinician.reads('Before anybody moves');
    await open.page.keyboard.press('j');
    await open.page.keyboard.press('j');
    expect(await clinician.focused()).toContain(': ');
    await open.page.keyboard.press('k');
    await open.page.keyboard.press('Enter');
    await clinician.sees('Trail', 'navigation');
  });
});

describe('a colleague', () => {
  it('is invited by a link that is shown once, chooses a password, and loses the session with the account', async () => {
    await clinician.opens('/practice');
    const form = (await open.page.$$('section form'))[1];
    const fields = (await form?.$$('input')) ?? [];
    await fields[0]?.type('Kim Moss');
    await fields[1]?.type(account.email.replace('rowan', 'kim'));
    await clinician.presses('Invite');
    await clinician.reads('Link for Kim Moss');
    const link = await open.page.$eval('code', (node) => node.textContent ?? '');
    const other = await openPage();
    const email = account.email.replace('rowan', 'kim');
    const kim = new Clinician(other.page, base, { email, password: 'over-the-moor' });
    await kim.opens(link);
    await kim.reads(email);
    await kim.fills('New password (at least 10 characters)', 'short');
    await kim.presses('Set password');
    await kim.reads('at least 10 characters');
    await kim.fills('New password (at least 10 characters)', 'over-the-moor');
    await kim.fills('Again', 'over-the-moor');
    await kim.presses('Set password');
    await kim.reads('Your password is set');
    await kim.opens('/sign-in');
    await kim.givesCredentials();
    await kim.reads('Since yesterday');
    expect(await other.page.$('a[href="/practice"]')).toBeNull(); // a clinician is no owner
    await clinician.ticks('Account of Kim Moss open', 'switch' as 'checkbox');
    const closed = () => stored("SELECT 1 FROM clinicians WHERE name = 'Kim Moss' AND NOT active");
    await expect.poll(closed, { timeout: 15_000 }).toHaveLength(1);
    await kim.loads('/athletes');
    await kim.sees('Sign in', 'button');
    await other.close();
  });

  it('sees the last sign-ins of the account', async () => {
    await clinician.opens('/account');
    await clinician.reads('Last sign-ins');
    await clinician.reads('signed in');
  });
});

describe('a record', () => {
  it('is archived and brought back, and erased only by its name typed again', async () => {
    const [one] = await stored<{ id: string; name: string }>(
      'SELECT id, name FROM athletes ORDER BY name DESC LIMIT 1',
    );
    await clinician.opens(`/athletes/${one?.id}/story`);
    await clinician.presses('Archive');
    await clinician.presses('Bring back onto the lists');
    await clinician.sees('Archive', 'button');
    await clinician.presses('Erase…');
    await clinician.fills(`Type the name: ${one?.name}`, 'somebody else');
    await clinician.fills('Why (without the name)', 'asked for it');
    const button = await clinician.sees('Erase for good', 'button');
    expect(await button.evaluate((node) => (node as HTMLButtonElement).disabled)).toBe(true);
    await clinician.fills(`Type the name: ${one?.name}`, one?.name ?? '');
    await clinician.presses('Erase for good');
    await clinician.reads('Add athlete');
    expect(await stored('SELECT 1 FROM athletes WHERE id = $1', [one?.id])).toEqual([]);
    await clinician.opens(`/audit?athlete=${one?.id}`);
    await clinician.reads('athlete: erase');
    await clinician.reads('erased');
  });
});

describe('keys', () => {
  it('are listed on ? everywhere, and never while something is typed', async () => {
    await clinician.opens('/athletes');
    await clinician.fills('Search athletes', 'what?');
    expect(await open.page.$('[aria-label="Keys"]')).toBeNull();
    await open.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await open.page.keyboard.type('?');
    await clinician.sees('Keys', 'table');
    await open.page.keyboard.press('Escape');
    await clinician.seesNoMore('Keys', 'table');
  });
});
