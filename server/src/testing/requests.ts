import { randomUUID } from 'node:crypto';
import { ownDrillOf } from '@yonder/core/formats';
import { bundledReference } from '@yonder/core/reference/bundled';
import { PASSWORD } from './practices.ts';
import { addAthlete, ATHLETE, DONE, issue, ROCK, said, saySign, screenAnkles, TODAY } from './testApp.ts';
import type { Client } from './testApp.ts';

/** A request that would succeed: the path after /api/v1 and, unless it is read, the body. */
export interface Arranged {
  readonly path: string;
  readonly body?: object;
}

/** Lays what a request needs into the practice of an owner, anew each time, and gives the request. */
export type Arrange = (owner: Client) => Promise<Arranged>;

/** A word that stands in everything arranged, and must never be seen by another practice. */
export const MARK = 'Hollowfen';

const person = (owner: Client) => addAthlete(owner, { name: `Rill ${MARK}`, sport: MARK });

function ofAthlete(make: (owner: Client, id: string) => Promise<Arranged> | Arranged): Arrange {
  return async (owner) => make(owner, (await person(owner)).id);
}

/** Adds something to an athlete and gives its place under the athlete. */
async function added(owner: Client, id: string, list: string, body: object): Promise<string> {
  const { body: athlete } = await owner.create(`/athletes/${id}/${list}`, body).expect(201);
  const key = list === 'red-flags' ? 'redFlags' : list;
  const one = athlete[key].find((row: { answer?: boolean }) => row.answer !== false);
  return `/athletes/${id}/${list}/${one.id}`;
}

const INJURY = { region: 'knee', side: 'left', date: '2027-01-10', what: MARK };
const PAIN = { region: 'knee', side: 'left', when: 'movement', nrs: 2, since: '2027-02-01' };
const PRECAUTION = { precaution: 'no-impact', setBy: MARK };
const JUDGEMENT = { restriction: 'calf-endurance-deficit', side: 'left', verdict: 'confirmed' };
const PROTOCOL = { by: MARK, date: TODAY };
const RAISE = 'single-leg-heel-raise';
const SEEN = { verdict: 'fine' };
const NEED = { value: 8, reason: MARK };
const FIGURE = { test: 'wblt-distance', path: 'sem', value: 0.7, reason: MARK };
const TASK = { name: MARK, sport: MARK, demands: [{ test: 'heel-raise-reps', value: 30, side: 'both' }] };
const OWN_TEST = {
  name: MARK,
  region: 'knee',
  quantity: 'endurance-reps',
  sides: 'per-side',
  unit: 'reps',
  better: 'higher',
  procedure: MARK,
  plausible: { min: 0, max: 60 },
  sem: 2,
  cutOff: 15,
  informs: ['quadriceps-strength-deficit'],
};
const ROUTINE = {
  on: TODAY,
  mode: 'prepare',
  structure: 'short-minimum',
  request: { kit: ['wall'] },
  items: [ROCK],
};
const TEMPLATE = { sport: MARK, structure: 'short-minimum', request: {}, items: [ROCK] };
const DRAFT = { request: {}, structure: 'short-minimum', items: [ROCK], version: null };

const source = bundledReference.data.drills.find((drill) => drill.id === ROCK.drill);
if (!source) throw new Error('no drill to copy');
const drill = ownDrillOf(source, 'own-new', `${MARK} rock`);

const figuresOf = async (owner: Client) => (await owner.get('/figures').expect(200)).body;
const withId = (path: string, body: object): Arranged => ({ path, body: { id: randomUUID(), ...body } });

/** Everything but the table of templates needs names of their own; this one does too. */
const template = () => ({ ...TEMPLATE, name: `${MARK} ${randomUUID()}` });

async function visit(owner: Client): Promise<{ athlete: string; screening: string }> {
  const { id } = await person(owner);
  return { athlete: id, screening: await screenAnkles(owner, id, '2027-02-20') };
}

async function version(owner: Client): Promise<{ athlete: string; routine: string }> {
  const { id } = await person(owner);
  return { athlete: id, routine: (await issue(owner, id, '2027-02-02').expect(201)).body.id };
}

async function session(owner: Client): Promise<string> {
  const { routine } = await version(owner);
  const { body } = await owner.create('/sessions', { routineId: routine, date: '2027-02-03' }).expect(200);
  await owner.post(`/sessions/${body.id}/events`, { events: DONE() }).expect(200);
  return body.id;
}

/** A new account of the practice, with its one-time link. */
async function invited(owner: Client): Promise<{ id: string; token: string }> {
  const email = `${randomUUID()}@${MARK.toLowerCase()}.example`;
  const { body } = await owner.create('/people', { name: MARK, email, role: 'read-only' }).expect(201);
  return { id: body.person.id, token: body.token };
}

const people: Record<string, Arrange> = {
  readPractice: async () => ({ path: '/practice' }),
  changePractice: async (owner) => {
    const { body } = await owner.get('/practice').expect(200);
    return { path: '/practice', body };
  },
  listPeople: async (owner) => {
    await invited(owner);
    return { path: '/people' };
  },
  invitePerson: async () =>
    withId('/people', { name: MARK, email: `${randomUUID()}@moor.example`, role: 'assistant' }),
  changePerson: async (owner) => ({
    path: `/people/${(await invited(owner)).id}`,
    body: { name: MARK, role: 'assistant', active: true, version: 1 },
  }),
  makeLink: async (owner) => withId(`/people/${(await invited(owner)).id}/link`, {}),
  changePassword: async () => ({
    path: '/account/password',
    body: { current: PASSWORD, next: `${PASSWORD} again` },
  }),
  signOutEverywhere: async () => ({ path: '/account/sign-out-everywhere', body: {} }),
  listSignIns: async () => ({ path: '/account/sign-ins' }),
  lookAtLink: async (owner) => ({
    path: '/auth/link/look',
    body: { token: (await invited(owner)).token },
  }),
  useLink: async (owner) => ({
    path: '/auth/link',
    body: { token: (await invited(owner)).token, password: PASSWORD },
  }),
};

const account: Record<string, Arrange> = {
  signIn: async () => ({
    path: '/auth/sign-in',
    body: { email: 'owner@south.example', password: PASSWORD },
  }),
  signOut: async () => ({ path: '/auth/sign-out', body: {} }),
  readMe: async () => ({ path: '/auth/me' }),
  exportAudit: ofAthlete((_owner, id) => ({ path: `/audit.csv?athlete=${id}` })),
  listAudit: ofAthlete((_owner, id) => ({ path: `/audit?athlete=${id}` })),
  readReferenceVersion: async () => ({ path: '/reference' }),
  readReference: async (owner) => ({
    path: `/reference/${(await owner.get('/reference').expect(200)).body.version}`,
  }),
  readPictures: async (owner) => ({
    path: `/reference/pictures/${(await owner.get('/reference').expect(200)).body.pictures}/calf-strength`,
  }),
};

const athletes: Record<string, Arrange> = {
  listAthletes: ofAthlete(() => ({ path: '/athletes' })),
  createAthlete: async () => withId('/athletes', { ...ATHLETE, name: MARK }),
  readAthlete: ofAthlete((_owner, id) => ({ path: `/athletes/${id}` })),
  updateAthlete: ofAthlete((_owner, id) => ({
    path: `/athletes/${id}`,
    body: { ...ATHLETE, name: MARK, version: 1 },
  })),
  archiveAthlete: ofAthlete((_owner, id) => ({
    path: `/athletes/${id}/archive`,
    body: { archived: true, version: 1 },
  })),
  exportAthlete: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/export.json` })),
  eraseAthlete: ofAthlete((_owner, id) =>
    withId(`/athletes/${id}/erase`, { name: `Rill ${MARK}`, reason: 'asked for it' }),
  ),
  readCase: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/case` })),
  addInjury: ofAthlete((_owner, id) => withId(`/athletes/${id}/injuries`, INJURY)),
  removeInjury: ofAthlete(async (owner, id) => ({
    path: `${await added(owner, id, 'injuries', INJURY)}?version=1`,
  })),
  addPain: ofAthlete((_owner, id) => withId(`/athletes/${id}/pains`, PAIN)),
  endPain: ofAthlete(async (owner, id) => ({
    path: `${await added(owner, id, 'pains', PAIN)}/end`,
    body: { date: TODAY, version: 1 },
  })),
  addPrecaution: ofAthlete((_owner, id) => withId(`/athletes/${id}/precautions`, PRECAUTION)),
  endPrecaution: ofAthlete(async (owner, id) => ({
    path: `${await added(owner, id, 'precautions', PRECAUTION)}/end`,
    body: { by: MARK, date: TODAY, version: 1 },
  })),
  clearPrecaution: ofAthlete(async (owner, id) => ({
    path: `${await added(owner, id, 'precautions', { ...PRECAUTION, precaution: 'no-kneeling-pressure' })}/clearance`,
    body: { by: MARK, date: TODAY, scope: 'kneeling on a mat', version: 1 },
  })),
  answerGate: ofAthlete((_owner, id) =>
    withId(`/athletes/${id}/gate`, { topic: 'knee', outcome: 'none', seconds: 6 }),
  ),
  clearRedFlag: ofAthlete(async (owner, id) => {
    const { body } = await saySign(owner, id, 'ankle-achilles').expect(201);
    return {
      path: `/athletes/${id}/red-flags/${body.redFlags[0].id}/clearance`,
      body: { by: MARK, date: TODAY, scope: 'full loading', version: 1 },
    };
  }),
  putProtocol: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/protocols/knee/left`, body: PROTOCOL })),
  putNeed: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/needs/wblt-distance/left`, body: NEED })),
  removeNeed: ofAthlete(async (owner, id) => {
    const path = `/athletes/${id}/needs/wblt-distance/left`;
    await owner.put(path, NEED).expect(200);
    return { path: `${path}?version=1` };
  }),
  putPlacement: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/placements/${RAISE}/left`, body: SEEN })),
  removePlacement: ofAthlete(async (owner, id) => {
    const path = `/athletes/${id}/placements/${RAISE}/left`;
    await owner.put(path, SEEN).expect(200);
    return { path: `${path}?version=1` };
  }),
  addJudgement: ofAthlete((_owner, id) => withId(`/athletes/${id}/judgements`, JUDGEMENT)),
  removeJudgement: ofAthlete(async (owner, id) => ({
    path: `${await added(owner, id, 'judgements', JUDGEMENT)}?version=1`,
  })),
};

const practice: Record<string, Arrange> = {
  readFigures: async () => ({ path: '/figures' }),
  setFigure: async () => withId('/figures/edits', FIGURE),
  unsetFigure: async (owner) => {
    const { body } = await owner.create('/figures/edits', FIGURE).expect(201);
    return { path: `/figures/edits/${body.edits[0].id}/end`, body: { reason: 'back', version: 1 } };
  },
  previewFigures: async () => ({ path: '/figures/preview', body: { set: [FIGURE] } }),
  setPainLimits: async (owner) => ({
    path: '/figures/pain-limits',
    body: { painLimits: { fine: 2, stop: 4 }, why: MARK, version: (await figuresOf(owner)).version },
  }),
  setDoseShares: async (owner) => ({
    path: '/figures/dose-shares',
    body: { doseShares: [], version: (await figuresOf(owner)).version },
  }),
  addTask: async () => withId('/figures/tasks', TASK),
  changeTask: async (owner) => {
    const id = randomUUID();
    await owner.post('/figures/tasks', { id, ...TASK }).expect(201);
    return { path: `/figures/tasks/${id}`, body: { ...TASK, version: 1 } };
  },
  removeTask: async (owner) => {
    const id = randomUUID();
    await owner.post('/figures/tasks', { id, ...TASK }).expect(201);
    return { path: `/figures/tasks/${id}?version=1` };
  },
  addTest: async () => withId('/figures/tests', OWN_TEST),
  changeTest: async (owner) => {
    const id = randomUUID();
    await owner.post('/figures/tests', { id, ...OWN_TEST }).expect(201);
    return { path: `/figures/tests/${id}`, body: { ...OWN_TEST, version: 1 } };
  },
  removeTest: async (owner) => {
    const id = randomUUID();
    await owner.post('/figures/tests', { id, ...OWN_TEST }).expect(201);
    return { path: `/figures/tests/${id}?version=1` };
  },
  addDrill: async () => withId('/library/drills', { drill }),
  changeDrill: async (owner) => {
    const id = randomUUID();
    const { body } = await owner.post('/library/drills', { id, drill }).expect(201);
    const row = body.drills.find((one: { rowId: string }) => one.rowId === id);
    return { path: `/library/drills/${id}`, body: { drill: row.drill, version: 1 } };
  },
  importDrills: async () =>
    withId('/library/drills/import', { drills: [{ ...drill, id: `own-${randomUUID().slice(0, 8)}` }] }),
  exportDrills: async (owner) => {
    await owner.create('/library/drills', { drill }).expect(201);
    return { path: '/library/drills/export.json' };
  },
  listTemplates: async (owner) => {
    await owner.create('/templates', template()).expect(201);
    return { path: '/templates' };
  },
  addTemplate: async () => withId('/templates', template()),
  changeTemplate: async (owner) => {
    const { body } = await owner.create('/templates', template()).expect(201);
    return { path: `/templates/${body.id}`, body: { ...template(), version: 1 } };
  },
  templateVersions: async (owner) => {
    const { body } = await owner.create('/templates', template()).expect(201);
    return { path: `/templates/${body.id}/versions` };
  },
  applyTemplate: ofAthlete(async (owner, id) => {
    const { body } = await owner.create('/templates', template()).expect(201);
    return {
      path: `/templates/${body.id}/apply`,
      body: { athleteId: id, occasion: 'travel', how: 'word-by-word' },
    };
  }),
  removeTemplate: async (owner) => {
    const { body } = await owner.create('/templates', template()).expect(201);
    return { path: `/templates/${body.id}?version=1` };
  },
};

const CHOICE = { school: 'release-first', option: 'first', reason: MARK };

/** A choice of an owner's, or of an athlete's, with its place; the one before it is taken back. */
async function chosen(owner: Client, root: string): Promise<string> {
  const { body: before } = await owner.get(root).expect(200);
  const inForce = [...before.practice, ...before.athlete].find((row) => row.ended === null);
  if (inForce) return `${root}/choices/${inForce.id}`;
  const { body } = await owner.create(`${root}/choices`, CHOICE).expect(201);
  return `${root}/choices/${[...body.athlete, ...body.practice][0].id}`;
}

const methods: Record<string, Arrange> = {
  readMethods: async (owner) => {
    await chosen(owner, '/methods');
    return { path: '/methods' };
  },
  chooseMethod: async (owner) => {
    const replaces = (await chosen(owner, '/methods')).split('/').at(-1);
    return withId('/methods/choices', { ...CHOICE, replaces });
  },
  endMethod: async (owner) => ({
    path: `${await chosen(owner, '/methods')}/end`,
    body: { reason: MARK, version: 1 },
  }),
  previewMethod: async (owner) => {
    const { athlete } = await version(owner);
    return { path: '/methods/preview', body: { ...CHOICE, reason: undefined, athleteId: athlete } };
  },
  setPainPatterns: async (owner) => ({
    path: '/methods/pain-patterns',
    body: { painPatterns: null, version: (await owner.get('/methods').expect(200)).body.version },
  }),
  readAthleteMethods: ofAthlete(async (owner, id) => {
    await chosen(owner, `/athletes/${id}/methods`);
    return { path: `/athletes/${id}/methods` };
  }),
  chooseAthleteMethod: ofAthlete((_owner, id) => withId(`/athletes/${id}/methods/choices`, CHOICE)),
  endAthleteMethod: ofAthlete(async (owner, id) => {
    const { body } = await owner.create(`/athletes/${id}/methods/choices`, CHOICE).expect(201);
    return {
      path: `/athletes/${id}/methods/choices/${body.athlete[0].id}/end`,
      body: { reason: MARK, version: 1 },
    };
  }),
};

const SORE = { ...PAIN, nrs: 4, aspect: 'front' };
const LIFT = { region: PAIN.region, side: PAIN.side, reason: MARK };

const day: Record<string, Arrange> = {
  liftRule: ofAthlete(async (owner, id) => {
    await owner.create(`/athletes/${id}/pains`, SORE).expect(201);
    return withId(`/athletes/${id}/lifts`, LIFT);
  }),
  removeLift: ofAthlete(async (owner, id) => {
    await owner.create(`/athletes/${id}/pains`, SORE).expect(201);
    return { path: `${await added(owner, id, 'lifts', LIFT)}?version=1` };
  }),
  readCheckIn: ofAthlete(async (owner, id) => ({ path: `/athletes/${id}/check-ins/${TODAY}` })),
  putCheckIn: ofAthlete((_owner, id) => ({
    path: `/athletes/${id}/check-ins/${TODAY}`,
    body: { sore: [{ region: 'knee', side: 'left', nrs: 3 }] },
  })),
};

const screenings: Record<string, Arrange> = {
  importScreenings: ofAthlete((_owner, id) => {
    const result = { test: 'heel-raise-reps', side: 'left', trials: [14] };
    return withId('/screenings/import', { rows: [{ athleteId: id, date: '2027-02-01', result }] });
  }),
  exportScreenings: async (owner) => ({ path: `/screenings.csv?athlete=${(await visit(owner)).athlete}` }),
  listScreenings: async (owner) => ({ path: `/athletes/${(await visit(owner)).athlete}/screenings` }),
  openScreening: ofAthlete((_owner, id) => withId(`/athletes/${id}/screenings`, { date: TODAY })),
  putResult: async (owner) => ({
    path: `/screenings/${(await visit(owner)).screening}/results/wblt-distance/left`,
    body: { trials: [9, 9.2], version: 1 },
  }),
  removeResult: async (owner) => ({
    path: `/screenings/${(await visit(owner)).screening}/results/wblt-distance/left?version=1`,
  }),
  finishScreening: async (owner) => ({
    path: `/screenings/${(await visit(owner)).screening}/finish`,
    body: { version: 1 },
  }),
};

const routines: Record<string, Arrange> = {
  listRoutines: async (owner) => ({ path: `/athletes/${(await version(owner)).athlete}/routines` }),
  issueRoutine: ofAthlete((_owner, id) => withId(`/athletes/${id}/routines`, ROUTINE)),
  readRoutine: async (owner) => ({ path: `/routines/${(await version(owner)).routine}` }),
  printCard: async (owner) => ({ path: `/routines/${(await version(owner)).routine}/card.pdf` }),
  printBooklet: async (owner) => ({ path: `/athletes/${(await version(owner)).athlete}/booklet.pdf` }),
  weekCalendar: async (owner) => {
    const { athlete } = await version(owner);
    const days = { days: ['tue', 'fri'], timesPerDay: 1, version: null };
    await owner.put(`/athletes/${athlete}/occasions/before-training`, days).expect(200);
    return { path: `/athletes/${athlete}/week.ics` };
  },
  printRoutine: async (owner) => ({ path: `/routines/${(await version(owner)).routine}/handout.pdf` }),
  decideProgress: async (owner) => {
    const { athlete, routine } = await version(owner);
    const verdicts = [{ item: ROCK.id, verdict: 'accepted' }];
    return withId(`/athletes/${athlete}/decisions`, { on: TODAY, routineId: routine, verdicts });
  },
  buildRoutine: ofAthlete((_owner, id) => ({
    path: `/athletes/${id}/build`,
    body: { on: TODAY, request: { minutes: 3 } },
  })),
  listOccasions: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/occasions` })),
  putOccasion: ofAthlete((_owner, id) => ({
    path: `/athletes/${id}/occasions/at-home`,
    body: { days: ['mon', 'thu'], timesPerDay: 1, version: null },
  })),
  readDraft: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/drafts/before-training` })),
  saveDraft: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/drafts/before-training`, body: DRAFT })),
  discardDraft: ofAthlete(async (owner, id) => {
    await owner.put(`/athletes/${id}/drafts/before-training`, DRAFT).expect(200);
    return { path: `/athletes/${id}/drafts/before-training?version=1` };
  }),
};

const sessions: Record<string, Arrange> = {
  recentSessions: async (owner) => {
    await session(owner);
    return { path: '/sessions?since=2027-02-01' };
  },
  listSessions: ofAthlete((_owner, id) => ({ path: `/athletes/${id}/sessions` })),
  startSession: async (owner) =>
    withId('/sessions', { routineId: (await version(owner)).routine, date: '2027-02-03' }),
  readSession: async (owner) => ({ path: `/sessions/${await session(owner)}` }),
  mayGoOn: async (owner) => ({ path: `/sessions/${await session(owner)}/door` }),
  appendEvents: async (owner) => ({
    path: `/sessions/${await session(owner)}/events`,
    body: { events: [said('amended', { item: ROCK.id, nextDayPain: 2 })] },
  }),
};

/** A request for every endpoint, by the endpoint's id. */
export const REQUESTS: Readonly<Record<string, Arrange>> = {
  ...account,
  ...people,
  ...athletes,
  ...practice,
  ...methods,
  ...day,
  ...screenings,
  ...routines,
  ...sessions,
};
