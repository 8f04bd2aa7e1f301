import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { assessCase } from '@yonder/core/assess';
import { decideProgress } from '@yonder/core/progress';
import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { addAthlete, createTestApp, issue, ROCK, screenAnkles, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

describe('issuing', () => {
  it('numbers versions without gaps or doubles, also when two are sent at once', async () => {
    const { id } = await addAthlete(north);
    const sent = await Promise.all([1, 2, 3, 4, 5].map(() => issue(north, id, TODAY)));
    expect(sent.map((r) => r.status)).toEqual([201, 201, 201, 201, 201]);
    expect(sent.map((r) => r.body.number).sort()).toEqual([1, 2, 3, 4, 5]);
  });
  it('keeps the findings it answered', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-27');
    const { body } = await issue(north, id, TODAY).expect(201);
    expect(
      body.findings.map((f: { restriction: string; side: string }) => `${f.restriction}/${f.side}`),
    ).toContain('ankle-dorsiflexion-limit/left');
  });
  it.each([
    [{ ...ROCK, drill: 'moon-walk' }, '$.items[0].drill'],
    [{ ...ROCK, measure: 'seconds' }, '$.items[0].measure'],
    [{ ...ROCK, setup: { 'foot-wall-distance': 7 } }, '$.items[0].setup.foot-wall-distance'],
    [{ ...ROCK, sets: 0 }, '$.items[0].sets'],
    [{ ...ROCK, colour: 'teal' }, '$.items[0]'],
    [{ ...ROCK, tempo: 'slowly' }, '$.items[0].tempo'],
    [{ ...ROCK, circuit: { id: 'a', rounds: 0 } }, '$.items[0].circuit.rounds'],
  ])('refuses %o at %s and stores nothing', async (item, path) => {
    const { id } = await addAthlete(north);
    const response = await issue(north, id, TODAY, [item]).expect(400);
    expect(response.body.errors.map((e: { path: string }) => e.path)).toContain(path);
    expect((await north.get(`/athletes/${id}/routines`)).body.items).toEqual([]);
  });
  it('judges safety as of today too: a working date before the precaution does not help', async () => {
    const { id } = await addAthlete(north);
    await north
      .create(`/athletes/${id}/precautions`, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran' })
      .expect(201);
    expect((await issue(north, id, '2027-02-01')).body.code).toBe('safety-refused');
    expect((await issue(north, id, '2027-04-01')).body.code).toBe('safety-refused');
  });
  it('a protocol after an operation leaves only what is ticked', async () => {
    const { id } = await addAthlete(north);
    await north
      .create(`/athletes/${id}/injuries`, {
        region: 'ankle-foot',
        side: 'left',
        date: '2027-01-01',
        operated: true,
      })
      .expect(201);
    expect((await issue(north, id, TODAY)).body.code).toBe('safety-refused');
    // Standing on it loads the operated leg as well; what is done sitting, on the other side, does not.
    const other = (drill: string, over = {}) => [{ ...ROCK, setup: {}, drill, side: 'right', ...over }];
    expect((await issue(north, id, TODAY, other(ROCK.drill))).body.code).toBe('safety-refused');
    await issue(north, id, TODAY, other('ankle-circles')).expect(201);
  });
  it('throws the draft away that it came from', async () => {
    const { id } = await addAthlete(north);
    const draft = { request: {}, structure: 'short-minimum', items: [ROCK], version: null };
    await north.put(`/athletes/${id}/drafts/before-training`, draft).expect(200);
    expect((await north.get(`/athletes/${id}/drafts/before-training`)).body).toMatchObject({
      version: 1,
      draft: { items: [{ drill: ROCK.drill }] },
    });
    await issue(north, id, TODAY).expect(201);
    expect((await north.get(`/athletes/${id}/drafts/before-training`)).body).toEqual({
      draft: null,
      version: null,
    });
  });
});

describe('the handout', () => {
  const text = async (routineId: string) => {
    const pdf = await north.get(`/routines/${routineId}/handout.pdf`).expect(200);
    return spawnSync('pdftotext', ['-layout', '-', '-'], {
      input: pdf.body as Buffer,
      encoding: 'utf8',
    }).stdout.replace(/\s+/g, ' ');
  };
  it('says dose, set-up, what to feel, the school’s pain limit and when to stop', async () => {
    const { id } = await addAthlete(north, { name: 'Ivo Langdale' });
    const routine = (await issue(north, id, TODAY).expect(201)).body;
    const read = await text(routine.id);
    expect(read).toContain('Ivo Langdale: your routine');
    expect(read).toContain('2 sets of 8 repetitions, left only; rest 10 s between sets.');
    expect(read).toContain('foot distance from wall 6 cm');
    expect(read).toContain('Stop a drill if it hurts more than 5 out of 10');
    expect(read).not.toMatch(/\b(safe|prevents|cleared|risk)\b/i);
  });
  it('fits ten drills with their pictures on one page, with a page to log them by pen', async () => {
    const { id } = await addAthlete(north, { name: 'Ivo Langdale' });
    const drills = [
      'cat-camel',
      'dead-bug',
      'glute-bridge',
      'ankle-circles',
      'wall-slide',
      'bird-dog',
      'side-lying-clam',
      'double-leg-heel-raise',
      'standing-hip-circle',
    ];
    const items = [
      ROCK,
      ...drills.map((drill) => ({ ...ROCK, id: randomUUID(), drill, amount: 6, side: 'both', setup: {} })),
    ];
    const routine = (await issue(north, id, TODAY, items).expect(201)).body;
    const pdf = await north.get(`/routines/${routine.id}/handout.pdf`).expect(200);
    const info = spawnSync('pdfinfo', ['-'], { input: pdf.body as Buffer, encoding: 'utf8' }).stdout;
    expect(Number(/Pages:\s+(\d+)/.exec(info)?.[1])).toBe(2);
    expect((pdf.body as Buffer).length).toBeLessThan(400_000);
    const read = await text(routine.id);
    for (const word of [
      'Log: Ivo Langdale, before training, version 1',
      'The morning after',
      'Effort',
      '10. Standing hip circle',
      'Feel it Calves',
      'Questions: R. Halloran',
    ])
      expect(read).toContain(word);
  });
  it('few drills stand large in one column, and many go on over two pages rather than be too small to read', async () => {
    const { id } = await addAthlete(north);
    const line = (drill: string) => ({
      ...ROCK,
      id: randomUUID(),
      drill,
      amount: 6,
      side: 'both',
      setup: {},
    });
    const pages = async (items: object[]) => {
      const issued = await issue(north, id, TODAY, items as never);
      expect([issued.status, issued.body.errors ?? []]).toEqual([201, []]);
      const routine = issued.body;
      const pdf = await north.get(`/routines/${routine.id}/handout.pdf`).expect(200);
      const input = pdf.body as Buffer;
      const info = spawnSync('pdfinfo', ['-'], { input, encoding: 'utf8' }).stdout;
      return { pages: Number(/Pages:\s+(\d+)/.exec(info)?.[1]), bytes: input.length, id: routine.id };
    };
    const few = await pages([ROCK, line('cat-camel'), line('bird-dog')]);
    expect(few.pages).toBe(2);
    const read = await text(few.id);
    // One below the other: what belongs to the first drill is read before the second begins.
    expect(read.indexOf('Low calf stretch')).toBeLessThan(read.indexOf('2 Cat-camel'));
    const gentle = bundledReference.data.drills.filter(
      ({ equipment, equipmentAny, needsPartner, intensityClass, loadClass, unilateral, level }) =>
        equipment.length === 0 &&
        !equipmentAny &&
        !needsPartner &&
        !unilateral &&
        intensityClass === 'low' &&
        loadClass === 'unloaded' &&
        level === 1,
    );
    const words = gentle.slice(0, 16).map(({ id: drill, dose }) => ({
      ...line(drill),
      measure: dose.measure,
      sets: dose.sets.default,
      amount: dose.amount.default,
      note: 'Slowly, with a break after each, and only as far as it is easy; say afterwards what it feels like.',
    }));
    expect(words).toHaveLength(16);
    const many = await pages(words);
    expect(many.pages).toBeGreaterThan(2);
    expect(many.bytes).toBeLessThan(400_000);
  });
  it('writes uneven sides, breaths, both ways and rounds in words', async () => {
    const { id } = await addAthlete(north);
    const uneven = {
      ...ROCK,
      side: 'both',
      perSide: { left: { sets: 3, amount: 8 }, right: { sets: 2, amount: 8 } },
    };
    const foot = {
      ...ROCK,
      id: randomUUID(),
      drill: 'short-foot-seated',
      side: 'both',
      setup: {},
      holdBreaths: 3,
      bothWays: true,
      circuit: { id: 'a', rounds: 3 },
    };
    const read = await text((await issue(north, id, TODAY, [uneven, foot]).expect(201)).body.id);
    expect(read).toContain('Left 3 sets of 8 repetitions; right 2 sets of 8 repetitions');
    expect(read).toContain('holding each for 3 slow breaths');
    expect(read).toContain('then the same again the other way round');
    expect(read).toContain('in a circuit of 3 rounds');
  });
  it('carries the stricter limit of the growing and the handling of a precaution', async () => {
    const { id } = await addAthlete(north, { birthDate: '2011-01-01' });
    await north
      .create(`/athletes/${id}/precautions`, {
        precaution: 'achilles-insertional-irritation',
        setBy: 'R. Halloran',
      })
      .expect(201);
    const drill = {
      ...ROCK,
      drill: 'wall-calf-stretch-straight',
      side: 'both',
      measure: 'hold-seconds',
      amount: 30,
      setup: {},
    };
    const made = await issue(north, id, TODAY, [drill]);
    if (made.status === 201) {
      const read = await text(made.body.id);
      expect(read).toContain('Stop a drill if it hurts more than 3 out of 10');
    } else {
      expect(made.body.code).toBe('safety-refused');
    }
  });
});

describe('deciding', () => {
  const decisionsOf = (id: string) => app.stored('SELECT * FROM decisions WHERE athlete_id = $1', [id]);
  it('is refused for items the routine does not have, and stores nothing then', async () => {
    const { id } = await addAthlete(north);
    const routine = (await issue(north, id, '2027-02-01').expect(201)).body;
    const response = await north
      .create(`/athletes/${id}/decisions`, {
        on: TODAY,
        routineId: routine.id,
        verdicts: [{ item: randomUUID(), verdict: 'accepted' }],
      })
      .expect(400);
    expect(response.body.errors[0].path).toBe('$.verdicts[0].item');
    expect(await decisionsOf(id)).toEqual([]);
  });
  it('accepting "keep" records it and issues nothing', async () => {
    const { id } = await addAthlete(north);
    const routine = (await issue(north, id, '2027-02-01').expect(201)).body;
    const { body } = await north
      .create(`/athletes/${id}/decisions`, {
        on: TODAY,
        routineId: routine.id,
        verdicts: [{ item: ROCK.id, verdict: 'accepted' }],
      })
      .expect(201);
    expect(body).toEqual({ routine: null });
    expect(await decisionsOf(id)).toMatchObject([{ item_id: ROCK.id, verdict: 'accepted' }]);
  });
  it('of something else than is proposed by now stores nothing, and shows what is', async () => {
    const { id } = await addAthlete(north);
    const routine = (await issue(north, id, '2027-02-01').expect(201)).body;
    const { case: input } = (await north.get(`/athletes/${id}/case?on=${TODAY}`).expect(200)).body;
    const [now] = decideProgress(assessCase(bundledReference, caseSchema.parse(input))).decisions;
    const accept = (shown: object) =>
      north.create(`/athletes/${id}/decisions`, {
        on: TODAY,
        routineId: routine.id,
        verdicts: [{ item: ROCK.id, verdict: 'accepted', shown }],
      });
    const proposed = { decision: now?.decision, next: now?.next };
    for (const other of [
      { ...proposed, decision: 'ease' },
      { ...proposed, next: null },
      { ...proposed, next: { ...now?.next, amount: 99 } },
    ]) {
      const { body } = await accept(other).expect(409);
      expect(body).toMatchObject({ code: 'proposal-changed', current: [{ item: ROCK.id, ...proposed }] });
    }
    expect(await decisionsOf(id)).toEqual([]);
    await accept(proposed).expect(201);
    expect(await decisionsOf(id)).toHaveLength(1);
  });
  it('never issues what a precaution set meanwhile forbids, even when overruled to keep', async () => {
    const { id } = await addAthlete(north);
    const items = [ROCK, { ...ROCK, id: randomUUID(), drill: 'cat-camel', side: 'both', setup: {} }];
    const routine = (await issue(north, id, '2027-02-01', items).expect(201)).body;
    await north
      .create(`/athletes/${id}/precautions`, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran' })
      .expect(201);
    const decide = (verdicts: object[]) =>
      north.create(`/athletes/${id}/decisions`, { on: TODAY, routineId: routine.id, verdicts });
    const kept = await decide([
      { item: ROCK.id, verdict: 'overruled', instead: 'keep', reason: 'feels fine' },
    ]);
    expect(kept.body.code).toBe('safety-refused');
    const { body } = await decide([{ item: ROCK.id, verdict: 'accepted' }]).expect(201);
    expect(body.routine.changes).toMatchObject([{ rule: 'item-removed' }]);
    expect(body.routine.items.map((i: { drill: string }) => i.drill)).toEqual(['cat-camel']);
  });
});
