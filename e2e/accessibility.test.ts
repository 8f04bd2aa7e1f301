import { describe, expect, it } from 'vitest';
import { atTheDoor } from './driver/atTheDesk.ts';
import { violations } from './driver/violations.ts';

const { open, clinician, ids } = await atTheDoor();

describe('in the light and in the dark', () => {
  it('the door has no violation', async () => {
    await clinician.opens('/sign-in');
    expect(await violations(open)).toEqual([]);
    await clinician.signsIn();
  });

  it.each([
    ['today', '', '/today', 'Since yesterday'],
    ['the practice and its people', '', '/practice', 'Last sign-in'],
    ['one’s own account', '', '/account', 'Last sign-ins'],
    ['a link that is none', '', '/link#nothing', 'no whole link'],
    ['the athletes list', '', '/athletes', 'Mira Oldtown'],
    ['a new athlete', '', '/athletes/new', 'What the sport asks'],
    ['the stop-and-refer gate', 'Wren Hollis', '/gate', 'Before anything is built'],
    ['a story with precautions', 'Pell Sunderby', '/story', 'Past injuries'],
    ['a story with an open stop sign', 'Ada Brackenridge', '/story', 'Record a clearance'],
    ['screening', 'Mira Oldtown', '/screen', 'How to'],
    ['anything new at a visit', 'Perrin Caldbeck', '/screen?scope=battery', 'Anything new since'],
    ['what hurts and a protocol', 'Isla Crowmarsh', '/story?region=knee', 'Protocol after an operation'],
    ['the practice’s figures', '', '/figures', 'Short below'],
    ['methods of the practice', '', '/methods?school=release-first', 'Release first, always'],
    ['what holds where it hurts', '', '/methods?school=pain-patterns', 'Precautions that hold'],
    ['methods of an athlete', 'Mira Oldtown', '/methods', 'Methods for'],
    ['who saw what', '', '/audit', 'newest'],
    ['the library', '', '/library?drill=knee-to-wall-rock', 'easiest below'],
    ['a drill of the practice’s own', '', '/library/new?copy=cat-camel', 'What it serves'],
    ['files of screenings', '', '/screenings', 'Export all screenings'],
    ['the ridge', 'Mira Oldtown', '/ridge', 'Where the reserve runs out'],
    ['an issued routine', 'Mira Oldtown', '/routine', 'Print handout'],
    ['the way into a run', 'Mira Oldtown', '/run', 'Ask first'],
    ['progress', 'Mira Oldtown', '/progress', 'Accept'],
  ])('%s has no violation', async (_, name, path, text) => {
    await clinician.opens(name ? `/athletes/${ids.get(name)}${path}` : path);
    if (path === '/screen') await clinician.hasNothingNew();
    await clinician.reads(text);
    expect(await violations(open)).toEqual([]);
  });

  it('the keys, erasing and the menus of a routine have none', async () => {
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/story`);
    await clinician.sees('Erase…', 'button');
    await open.page.keyboard.type('?');
    await clinician.sees('Keys', 'table');
    expect(await violations(open)).toEqual([]);
    await open.page.keyboard.press('Escape');
    await clinician.seesNoMore('Keys', 'table');
    await clinician.presses('Erase…');
    await clinician.reads('go for good');
    expect(await violations(open)).toEqual([]);
    await open.page.keyboard.press('Escape');
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/routine`);
    await clinician.presses('Derive…');
    await open.page.waitForSelector('[role="menu"]');
    expect(await violations(open)).toEqual([]);
  });

  it('drawing a picture by hand has none, with its joints, its kit and its view', async () => {
    await clinician.opens('/library/new?copy=split-squat');
    await clinician.presses('Change the picture');
    await clinician.sees('Left knee', 'button');
    expect(await violations(open)).toEqual([]);
    await clinician.ticks('Kit', 'radio');
    await clinician.searches('Add kit', 'band');
    await clinician.sees('Remove band', 'button');
    await clinician.seesNoMore('band', 'option');
    expect(await violations(open)).toEqual([]);
    await clinician.ticks('View and marks', 'radio');
    await clinician.sees('Seen from', 'combobox');
    expect(await violations(open)).toEqual([]);
  });

  it('a routine being edited has none, nor has the runner', async () => {
    const mira = ids.get('Mira Oldtown');
    await clinician.loads(`/athletes/${mira}/routine`); // the picture that was drawn is left as it is
    await clinician.presses('Choose drills');
    await clinician.reads(/Proven/);
    await clinician.presses('Swap for an equivalent…');
    await clinician.reads('Does the same job');
    expect(await violations(open)).toEqual([]);
    await clinician.ticks('Why not', 'radio');
    await clinician.reads(/It (costs|would cost)/);
    expect(await violations(open)).toEqual([]);
    await clinician.ticks('What if', 'radio');
    await clinician.reads(/more time adds little|still pays/);
    expect(await violations(open)).toEqual([]);
    await clinician.discards();
    await clinician.opens(`/athletes/${mira}/run`);
    await clinician.startsTheRun();
    expect(await violations(open)).toEqual([]);
    await clinician.presses('End here');
    await clinician.reads('How was it?');
    expect(await violations(open)).toEqual([]);
    await clinician.presses('Store the session');
    await clinician.reads('Last sessions');
    expect(open.errors).toEqual([]);
  });
});
