import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { missingKit } from '../src/reference/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { yonder as runYonder } from './yonder.ts';
import { eachOf } from '../src/testing/eachOf.ts';

const root = resolve(import.meta.dirname, '../..');
const example = JSON.parse(readFileSync(join(root, 'docs/examples/stiff-ankle.json'), 'utf8')) as Record<
  string,
  never
>;

async function yonder(verb: string, content: unknown) {
  const folder = mkdtempSync(join(tmpdir(), 'yonder-case-'));
  writeFileSync(join(folder, 'case.json'), typeof content === 'string' ? content : JSON.stringify(content));
  const { code, stdout, stderr } = await runYonder([verb, join(folder, 'case.json')]);
  return { code, out: stdout, faults: stderr };
}

describe('the command line', () => {
  it('prints findings, a routine and decisions of the example case', async () => {
    const findings = JSON.parse((await yonder('findings', example)).out) as {
      findings: { restriction: string; side: string }[];
    };
    expect(findings.findings[0]?.side).toBe('left');
    const built = JSON.parse((await yonder('build', example)).out) as {
      routine: { items: unknown[]; totalSeconds: number };
    };
    expect(built.routine.totalSeconds).toBeLessThanOrEqual(600);
    const routine = { issued: '2027-02-15', mode: 'prepare', items: built.routine.items.map(strip) };
    const progress = JSON.parse((await yonder('progress', { ...example, routine })).out) as {
      decisions: { decision: string }[];
    };
    expect(progress.decisions.map((d) => d.decision)).toEqual(built.routine.items.map(() => 'keep'));
  });

  it('prints a list taken over, one row a line, a row more for each further part', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yonder-list-'));
    const list = join(folder, 'list.txt');
    const file = join(folder, 'case.json');
    writeFileSync(list, 'bridge 2x12 ea\n\nNO jumping\nY-T-W prone x8\npogos 2x20\nbreathing 90/90 x5\n');
    const precautions = [{ id: 'no-impact', reason: 'shin', setBy: 'R. Halloran' }];
    const athlete = { ...(example.athlete as unknown as object), precautions };
    writeFileSync(file, JSON.stringify({ ...example, athlete }));
    const rows = async (...more: string[]) => {
      const { code, stdout } = await runYonder(['takeover', list, ...more]);
      expect(code).toBe(0);
      return stdout
        .trim()
        .split('\n')
        .map((row) => JSON.parse(row) as Record<string, unknown>);
    };
    const anybody = await rows();
    expect(anybody.map(({ row, kind, sure, drill }) => [row, kind, sure, drill])).toEqual([
      [1, 'drill', 'sure', 'glute-bridge'],
      [2, 'caution', null, null],
      [3, 'drill', 'sure', 'prone-y-raise'],
      [3, 'drill', 'sure', 'prone-t-raise'],
      [3, 'text', 'text', null],
      [4, 'drill', 'sure', 'pogo-hop'],
      [5, 'drill', 'sure', 'supine-breathing-reset'],
    ]);
    expect(anybody[6]).toMatchObject({ line: 'breathing 90/90 x5', sets: 1, amount: 5, measure: 'breaths' });
    expect(anybody[1]?.more).toEqual({ avoid: 'jumping' });
    expect((await rows('--case', file))[5]).toMatchObject({
      sure: 'held',
      drill: null,
      others: ['pogo-hop'],
    });
  });
  it.each([
    [['takeover', '/nowhere.txt'], /cannot be read/],
    [['takeover', 'README.md', '--cases'], /not understood/],
  ] as const)('a list that cannot be read ends with code 2: %o', async (args, says) => {
    const { code, stderr } = await runYonder([...args]);
    expect(code).toBe(2);
    expect(stderr).toMatch(says);
  });

  it('prints the reference in force as one document', async () => {
    const { code, stdout } = await runYonder(['reference']);
    const printed = JSON.parse(stdout) as Record<string, { id: string }[]>;
    expect(code).toBe(0);
    for (const part of ['drills', 'ladders', 'restrictions', 'tests', 'precautions', 'schools'] as const)
      expect(printed[part]?.map(({ id }) => id)).toEqual(bundledReference.data[part].map(({ id }) => id));
    expect(printed.actions?.length).toBe(bundledReference.data.patterns.length);
    const renamed = (printed as unknown as { renamed: Record<string, string[]> }).renamed;
    expect(renamed['raise-lane']).toEqual(['raise-shuffle', 'raise-skip', 'raise-run']);
    for (const id of eachOf(Object.values(renamed).flat()))
      expect(bundledReference.ladders.has(id), id).toBe(true);
  });

  it.each(readdirSync(join(root, 'docs/examples')))(
    'takes the documented example %s with every verb',
    async (file) => {
      const content = readFileSync(join(root, 'docs/examples', file), 'utf8');
      for (const verb of ['findings', 'build', 'progress']) {
        const run = await yonder(verb, content);
        expect({ verb, code: run.code, faults: run.faults }).toEqual({ verb, code: 0, faults: '' });
        expect(JSON.parse(run.out)).toBeTypeOf('object');
      }
    },
    30_000,
  );

  it('builds within every option at once: minutes, drills, fatigue, positions, action, pins, bans, own drills', async () => {
    const file = readFileSync(join(root, 'docs/examples/every-option.json'), 'utf8');
    const { request } = JSON.parse(file) as {
      request: {
        minutes: number;
        maxDrills: number;
        fatigueCap: number;
        pins: string[];
        bans: string[];
        kit: string[];
      };
    };
    const { routine } = JSON.parse((await yonder('build', file)).out) as {
      routine: {
        structure: string;
        totalSeconds: number;
        items: { drill: string; sets: number; phase: string; reasons: { rule: string }[] }[];
      };
    };
    const drills = routine.items.map((item) => item.drill);
    expect(routine.structure).toBe('six-step-ramp');
    expect(routine.totalSeconds).toBeLessThanOrEqual(request.minutes * 60);
    expect(drills.length).toBeLessThanOrEqual(request.maxDrills);
    expect(drills).toEqual(expect.arrayContaining(request.pins));
    for (const ban of eachOf(request.bans)) expect(drills).not.toContain(ban);
    let fatigue = 0;
    for (const { drill, sets } of eachOf(routine.items)) {
      const known = bundledReference.drills.get(drill);
      fatigue += (known?.fatigue ?? 0) * sets;
      expect(['supine', 'prone', 'side-lying']).not.toContain(known?.position);
      if (known) expect(missingKit(known, request.kit)).toBeNull();
    }
    expect(fatigue).toBeLessThanOrEqual(request.fatigueCap);
    const late = routine.items.filter((item) => item.phase === 'pattern' || item.phase === 'primer');
    expect(late.flatMap((item) => item.reasons.map((r) => r.rule))).toContain('rehearses');
  }, 30_000);

  it('names every fault by its path on stderr, prints nothing and exits 2', async () => {
    const faulty = structuredClone(example) as never as {
      colour?: string;
      athlete: { tasks: { id: string }[] };
      screenings: { results: { test: string; trials: number[] }[] }[];
    };
    const results = faulty.screenings[0]?.results ?? [];
    if (results[0]) results[0].trials[2] = 650;
    results.push({ test: 'reach-balance-composite', trials: [94], side: 'left' } as never);
    faulty.athlete.tasks.push({ id: 'moon-walk' });
    const run = await yonder('findings', faulty);
    expect(run).toMatchObject({ code: 2, out: '' });
    expect(run.faults).toContain('$.screenings[0].results[0].trials[2]: 650 cm is outside -5 to 25 cm');
    expect(run.faults).toContain('$.athlete.tasks[1].id: unknown task "moon-walk"');
    expect(run.faults).toMatch(
      /\$\.screenings\[0\]\.results\[6\]\.trials: reach-balance-composite is computed/,
    );
    faulty.colour = 'teal';
    expect((await yonder('findings', faulty)).faults).toBe('$.colour: unknown key; remove it\n');
  });

  it('calls broken JSON a fault, not a bug', async () => {
    expect(await yonder('build', '{ "format": ')).toMatchObject({ code: 2, out: '' });
  });
});

/** A built item as an issued one: without what the build added to explain it. */
function strip(built: unknown): unknown {
  const { seconds: _seconds, serves: _serves, reasons: _reasons, ...item } = built as Record<string, unknown>;
  return item;
}
