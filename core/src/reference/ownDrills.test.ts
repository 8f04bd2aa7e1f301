import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { caseFaults, ownDrillOf, ownDrillsFaults, readDrillFile, writeDrillFile } from '../formats/index.ts';
import { ownDrillSchema } from '../schemas/index.ts';
import { stiffAnkle, placement } from '../testing/cases.ts';
import { buildCase, drillOf } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { bundledData, bundledReference } from './bundled.ts';
import { inheritedTraits } from './inherited.ts';
import { demandIndexOf, kitWordsOf, patternTag, practiceReference, requiredPrecautions } from './index.ts';
import type { Drill, OwnDrill } from './index.ts';
import { figureOf } from '../figure/bundled.ts';
import { shownBy } from '../figure/index.ts';
import type { SolvedFigure } from '../figure/index.ts';
import { eachOf } from '../testing/eachOf.ts';

/** The knee-to-wall rock on a slope board, put after the shipped one. */
function slopeRock(over: Partial<OwnDrill> = {}): OwnDrill {
  return ownDrillSchema.parse({
    ...ownDrillOf(drillOf('knee-to-wall-rock'), 'own-slope-rock', 'Rock on a slope board'),
    ...over,
  });
}
const withDrills = (drills: OwnDrill[]) =>
  practiceReference(bundledReference, { reference: [], tasks: [], drills });
const paths = (drills: OwnDrill[]) => ownDrillsFaults(bundledReference, drills).map((f) => f.path);

describe('rules that every drill keeps to', () => {
  it('hold for all that ship: demand is load + fatigue + skill + speed, and traits bring their precautions', () => {
    for (const drill of eachOf(bundledData.drills)) {
      expect(demandIndexOf(drill), drill.id).toBe(drill.demandIndex);
      expect(drill.contraindications, drill.id).toEqual(
        expect.arrayContaining(requiredPrecautions(drill, bundledData.precautions)),
      );
    }
  });
  it('hold for the patterns: known tasks, known ladders, an action of its own in each', () => {
    for (const pattern of eachOf(bundledData.patterns)) {
      for (const task of eachOf(pattern.tasks)) expect(bundledReference.demands.has(task), task).toBe(true);
      for (const ladder of eachOf(Object.keys(pattern.ladders)))
        expect(bundledReference.ladders.has(ladder), ladder).toBe(true);
      const rehearsing = bundledData.drills.filter((d) => patternTag(bundledReference, d, pattern.id) >= 0.7);
      expect(
        rehearsing.some((d) => kitWordsOf(d).length === 0),
        pattern.id,
      ).toBe(true);
    }
    expect(bundledData.patterns.map((p) => p.id)).toEqual([
      ...'squat hinge lunge push pull overhead throw land cut run ski paddle climb'.split(' '),
      ...'serve swing kick hand-balance swim row grapple slide dance cycle'.split(' '),
    ]);
  });
});

describe('a drill of the practice’s own', () => {
  it('goes into its ladder at its level, and its neighbours know it', () => {
    const reference = withDrills([slopeRock()]);
    const at = drillOf('knee-to-wall-rock').level;
    expect(reference.ladders.get('dorsiflexion-mobility')?.drills[at]).toBe('own-slope-rock');
    expect(reference.drills.get('own-slope-rock')).toMatchObject({
      level: at + 1,
      easeTo: 'knee-to-wall-rock',
      progressTo: 'band-ankle-mobilisation',
      own: true,
    });
    expect(reference.drills.get('knee-to-wall-rock')?.progressTo).toBe('own-slope-rock');
    expect(reference.drills.get('band-ankle-mobilisation')?.easeTo).toBe('own-slope-rock');
    expect(bundledReference.drills.get('knee-to-wall-rock')?.progressTo).toBe('band-ankle-mobilisation');
    expect(withDrills([slopeRock()]).data).toEqual(
      practiceReference(reference, { reference: [], tasks: [], drills: [slopeRock()] }).data,
    );
  });
  it('can open a ladder of its own, and archived leaves it but keeps its name', () => {
    const own = slopeRock({ ladder: 'own-slope', ladderName: 'Slope board', level: 1 });
    expect(withDrills([own]).ladders.get('own-slope')?.drills).toEqual(['own-slope-rock']);
    const gone = withDrills([{ ...own, archived: true }]);
    expect(gone.ladders.has('own-slope')).toBe(false);
    expect(gone.drills.get('own-slope-rock')?.name).toBe('Rock on a slope board');
  });
  it('never falls below what it was copied from, whatever it says of itself', () => {
    const source = drillOf('pogo-hop');
    const loose: Partial<OwnDrill> = {
      contraindications: [],
      youthOk: true,
      loadClass: 'partial',
      regions: { primary: ['wrist-hand'], secondary: [] },
      loadRegions: [],
    };
    const copy = (over: Partial<OwnDrill> = {}) =>
      ownDrillSchema.parse({ ...ownDrillOf(source, 'own-hop', 'Own hop'), ...loose, ...over });
    const held = withDrills([copy()]).drills.get('own-hop');
    expect(held).toMatchObject({ loadClass: source.loadClass, youthOk: source.youthOk });
    expect(held?.contraindications).toEqual(expect.arrayContaining(source.contraindications));
    expect(source.precautionExcludes).toContain('patellar-tendon-irritable');
    expect(held?.precautionExcludes).toEqual(expect.arrayContaining(source.precautionExcludes ?? []));
    expect(held?.regions.secondary).toEqual(expect.arrayContaining(source.regions.primary));
    expect(held?.loadRegions.map((l) => l.region)).toEqual(
      expect.arrayContaining(source.loadRegions.map((l) => l.region)),
    );
    // A copy of a copy is held to the first; a place on the ladder holds as well.
    const second = ownDrillSchema.parse({ ...copy(), id: 'own-hop-two', name: 'Hop two', from: 'own-hop' });
    expect(withDrills([copy(), second]).drills.get('own-hop-two')?.loadClass).toBe(source.loadClass);
    const placed = withDrills([copy({ from: undefined })]).drills.get('own-hop');
    expect(placed?.contraindications).toEqual(expect.arrayContaining(drillOf(source.id).contraindications));
    // Looser only with a reason, and then what its own traits bring still holds.
    const reason = { reason: 'done sitting', by: 'R. Halloran', date: '2027-01-04' };
    const freed = withDrills([copy({ looser: reason, loadClass: 'impact' })]).drills.get('own-hop');
    expect(freed?.looser).toEqual({ ...reason, than: source.id });
    expect(freed?.contraindications).toContain('bone-stress-suspected');
  });
  it('stops for what every shipped drill like it stops for', () => {
    const own = slopeRock({
      from: undefined,
      ladder: 'own-jumps',
      ladderName: 'Own jumps',
      regions: { primary: ['whole-body'], secondary: [] },
      position: 'standing',
      loadClass: 'impact',
      contraction: 'ballistic',
      contraindications: [],
    });
    expect(withDrills([own]).drills.get(own.id)?.contraindications).toEqual(
      expect.arrayContaining(['acute-calf-strain', 'no-impact', 'acute-quadriceps-strain']),
    );
  });
  it('copied from none keeps to most of what forbids drills like it, unless somebody says why not', () => {
    const hard = new Set(
      bundledReference.data.precautions.filter((p) => p.severity !== 'modify').map((p) => p.id),
    );
    const counts = { carried: 0, alone: 0, signed: 0 };
    for (const drill of eachOf(bundledReference.data.drills)) {
      const others = bundledReference.data.drills.filter(({ id }) => id !== drill.id);
      const bare = { ...ownDrillOf(drill, 'own-bare', 'Bare'), ladder: 'own-alone', contraindications: [] };
      const { from: _from, ...alone } = { ...bare, precautionExcludes: [] };
      const kept = (own: OwnDrill) =>
        inheritedTraits(others, own, null, bundledReference.data.precautions).contraindications;
      const forbidding = drill.contraindications.filter((id) => hard.has(id));
      const found = (own: OwnDrill) => forbidding.filter((id) => kept(own).includes(id)).length;
      counts.carried += forbidding.length;
      counts.alone += found(alone);
      counts.signed += found({
        ...alone,
        looser: { reason: 'tried with us', by: 'R. H.', date: '2027-01-01' },
      });
    }
    expect(counts.alone / counts.carried).toBeGreaterThan(0.8);
    expect(counts.signed).toBeLessThan(counts.alone);
  });
  it('is chosen by the builder like any other, and never once archived', async () => {
    const solver = await testSolver();
    const drills = [
      slopeRock({ serves: [{ restriction: 'ankle-dorsiflexion-limit', match: 1 }], unilateral: true }),
    ];
    const build = (own: OwnDrill[]) => {
      // Beside its shipped neighbours nothing speaks for the one or the other.
      const bans = bundledReference.ladders.get('dorsiflexion-mobility')?.drills ?? [];
      const base = stiffAnkle({ request: { bans } as unknown as Case['request'] });
      const input = {
        ...base,
        overrides: { ...base.overrides, drills: own },
        athlete: {
          ...base.athlete,
          placements: [placement('dorsiflexion-mobility', 'own-slope-rock')],
        },
      };
      return buildCase(bundledReference, input, solver).routine?.items.map((item) => item.drill) ?? [];
    };
    expect(build(drills)).toContain('own-slope-rock');
    expect(build(drills.map((d) => ({ ...d, archived: true })))).not.toContain('own-slope-rock');
  });
});

describe('what is checked of it', () => {
  it('a sound one has no faults', () => {
    expect(paths([slopeRock()])).toEqual([]);
  });
  it('its picture travels with it in a file, and stands for what is copied from it', () => {
    const picture = figureOf('split-squat') ?? undefined;
    const drawn = ownDrillSchema.parse({ ...slopeRock(), picture });
    expect(paths([drawn])).toEqual([]);
    const read = readDrillFile(writeDrillFile([drawn]));
    if ('fault' in read) throw new Error(read.fault.message);
    expect(read.drills.map((drill) => ownDrillSchema.parse(drill))).toEqual([drawn]);
    const copy = ownDrillSchema.parse({ ...slopeRock(), id: 'own-second', name: 'Second', from: drawn.id });
    const { drills } = withDrills([drawn, copy]);
    expect(shownBy(drills, drills.get('own-second') as Drill).picture).toEqual(picture);
    const bare = withDrills([{ ...copy, from: 'knee-to-wall-rock' }]).drills;
    expect(shownBy(bare, bare.get('own-second') as Drill).id).toBe('knee-to-wall-rock');
    const round = ownDrillSchema.parse({ ...slopeRock(), id: 'own-a', from: 'own-b' });
    const circle = withDrills([round, { ...round, id: 'own-b', name: 'B', from: 'own-a' }]).drills;
    expect(shownBy(circle, circle.get('own-a') as Drill).picture).toBeUndefined();
  });
  it.each<[string, Partial<OwnDrill>, string]>([
    ['an id of the reference', { id: 'cat-camel' }, '$[0].id'],
    [
      'an unknown restriction',
      { serves: [{ restriction: 'stiffness', match: 1 }] },
      '$[0].serves[0].restriction',
    ],
    [
      'a fast drill in held seconds',
      { contraction: 'ballistic', dose: { ...drillOf('forearm-plank').dose } },
      '$[0].dose.measure',
    ],
    ['a demand above the drill after it', { level: 1, fatigue: 3, skill: 3 }, '$[0].level'],
    ['a new ladder without a name', { ladder: 'own-nameless' }, '$[0].ladderName'],
    [
      'a picture nobody can draw',
      { picture: { ...(figureOf('split-squat') as SolvedFigure), marks: [{ hold: 'tail' }] } },
      '$[0].picture.marks[0].hold',
    ],
    ['a far harder swap', { equivalents: ['copenhagen-adduction'] }, '$[0].equivalents[0]'],
    ['a pattern nobody knows', { patterns: { somersault: 1 } }, '$[0].patterns.somersault'],
    ['one-sided and alternating', { unilateral: true, alternating: true }, '$[0].alternating'],
  ])('%s', (_what, over, path) => {
    expect(paths([slopeRock(over)])).toContain(path);
  });
  it('two of one id', () => {
    expect(paths([slopeRock(), slopeRock()])).toContain('$[1].id');
  });
  it('a case that carries a faulty one says where', () => {
    const base = stiffAnkle();
    const input = { ...base, overrides: { ...base.overrides, drills: [slopeRock({ ladder: 'own-x' })] } };
    expect(caseFaults(bundledReference, input).map((f) => f.path)).toContain(
      '$.overrides.drills[0].ladderName',
    );
  });
});

describe('drill files', () => {
  it('carry a drill there and back unchanged', () => {
    const read = readDrillFile(writeDrillFile([slopeRock()]));
    if ('fault' in read) throw new Error(read.fault.message);
    expect(read.drills.map((d) => ownDrillSchema.parse(d))).toEqual([slopeRock()]);
  });
  it.each([
    ['{', '$'],
    ['{"format":"else","drills":[]}', '$.format'],
    ['{"format":"yonder-ridge-drills/1","drills":[]}', '$.drills'],
    ['null', '$.format'],
  ])('%s is no drill file', (text, path) => {
    const read = readDrillFile(text);
    expect('fault' in read ? read.fault.path : null).toBe(path);
  });
  it('any shipped drill can be copied and put right behind itself without a fault', () => {
    for (const drill of eachOf(bundledData.drills)) {
      const copy = ownDrillSchema.safeParse(ownDrillOf(drill, 'own-copy', `${drill.name} (copy)`));
      expect(copy.error?.issues ?? [], drill.id).toEqual([]);
      if (copy.data) expect(paths([copy.data]), drill.id).toEqual([]);
    }
  });
  it('a copy keeps the dose and binds what was softened for the original alone', () => {
    const softened = bundledData.drills.find((d) => d.precautionOverrides.length > 0);
    if (!softened) throw new Error('no softened drill');
    const copy = ownDrillOf(softened, 'own-copy', 'Copy');
    expect(copy.dose).toEqual(softened.dose);
    expect(copy.contraindications).toEqual(
      expect.arrayContaining(softened.precautionOverrides.map((o) => o.precaution)),
    );
  });
});

describe('dose shares of the practice’s own', () => {
  it('replace the shipped ones for their category and mode alone', () => {
    const reference = practiceReference(bundledReference, {
      reference: [],
      tasks: [],
      doseShares: [{ category: 'activate', mode: 'prepare', of: 'reps', low: 0.2, high: 0.4 }],
    });
    expect(reference.doseCell('activate', 'prepare').repShareOfMax).toEqual({ low: 0.2, high: 0.4 });
    expect(reference.doseCell('activate', 'prepare').holdShareOfMax).toEqual({ low: 0.3, high: 0.5 });
    expect(reference.doseCell('activate', 'build').repShareOfMax).toEqual({ low: 0.5, high: 0.65 });
  });
});
