import { withSchools } from '../assess/index.ts';
import type { Assessment } from '../assess/index.ts';
import { monthsBefore } from '../domain/index.ts';
import type { BuildRequest, Region } from '../domain/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { FINDING_SETTINGS, schoolOption } from '../findings/index.ts';
import { START_RULE } from '../levels/index.ts';
import { coversRestriction } from '../reference/index.ts';
import type { ReadinessElement } from '../reference/index.ts';
import { FIT, fitOf, GAMES_UNDER, wantedElements } from '../readiness/index.ts';
import type { WantedElement } from '../readiness/index.ts';
import { binds, isGraded, topicsDueFor, YOUTH_AGE } from '../safety/index.ts';
import { actionsOfDay } from './dayActions.ts';
import { dayPattern, findingsForToday } from './dayPattern.ts';
import { regionsNearLimit } from './nearLimit.ts';
import { createOptions } from './options.ts';
import type { OptionSet } from './options.ts';
import { createProblem } from './problem.ts';
import type { Problem } from './problem.ts';
import { fitsPhase, hardRule, isNewcomer, openSides, softRule } from './rules.ts';
import type { RuleContext } from './rules.ts';
import { BUILDER, FATIGUE_CAP, FATIGUE_MINUTES, rampSteps, wakingDrills } from './settings.ts';
import { chooseStructure } from './structures.ts';
import type { ChosenStructure, TodaysPhase } from './structures.ts';
import { isOfAction, isOpen, restrictionWeights } from './weights.ts';
import { HARD_FINISH, PROMISES } from './promises.ts';
import type { Weighed, WeightedRestriction } from './weights.ts';

/** An assessment with a request, ready to be solved; also what swaps, checks and "why not" work on. */
export interface Prepared extends Assessment, Weighed {
  readonly request: BuildRequest;
  readonly rules: RuleContext;
  readonly dose: DoseContext;
  readonly chosen: ChosenStructure;
  readonly options: OptionSet;
  readonly problem: Problem;
}

/** The action that warms by itself. */
const RUN = 'run';
/** Parts of a readiness that are neither warming, opening, waking nor the action itself. */
const READYING: readonly ReadinessElement['part'][] = ['absorb', 'drive', 'steer'];

function maxDrills(request: BuildRequest, { structure, minutes }: ChosenStructure): number {
  if (request.maxDrills !== null) return request.maxDrills;
  const byTime = Math.round((minutes * 60) / BUILDER.secondsPerDrill);
  const { min, max } = structure.totalDrills;
  return Math.min(Math.max(byTime, BUILDER.fewestDrills, min), max, BUILDER.mostDrills);
}

/** Regions that something of today asks for: the focus, else what is weighted. */
function regionsAsked(request: BuildRequest, weights: readonly WeightedRestriction[]): Set<Region> {
  if (request.focus.length > 0) return new Set(request.focus);
  return new Set(weights.filter((one) => !isOfAction(one)).map(({ region }) => region));
}

/** What speaks against ending near maximal whatever the school says: under sixteen, a limit of breathing, an injury of late. */
function endsSoft({ standing, safety }: Assessment): RuleContext['endsSoft'] {
  const from = monthsBefore(standing.today, START_RULE.injuryMonths);
  if (safety.age < YOUTH_AGE) return 'age';
  if (safety.precautions.some(({ id }) => id === 'exertional-breathing-limit')) return 'breathing';
  return standing.athlete.injuries.some(({ date }) => date >= from) ? 'injury' : null;
}

/** Drills that ready feet and eyes, landing or power: what a preparation holds of them before the action itself. */
function readyingDrills({ reference, elements }: RuleContext): Set<string> {
  const quick = elements.filter(({ element }) => READYING.includes(element.part));
  return new Set(
    reference.data.drills
      .filter(
        (drill) =>
          drill.category === 'neuromuscular' &&
          quick.some(({ element }) => fitOf(element, drill) >= FIT.half),
      )
      .map(({ id }) => id),
  );
}

/**
 * Phases with what they hold today: a primer rehearses what follows, in as many steps as there is time for, where something
 * that does is open; what readies for it may stand before it. Children play: no phase but warming and the action is due.
 */
function todaysPhases(rules: RuleContext, phases: readonly TodaysPhase[]): TodaysPhase[] {
  const { reference, request, actions, plays } = rules;
  if (request.mode !== 'prepare') return [...phases];
  const readying = readyingDrills(rules);
  return phases.map((phase, index) => {
    if (phase.primer) {
      const primed: TodaysPhase = {
        ...phase,
        maxDrills: Math.max(phase.maxDrills, rampSteps(rules.minutes)),
        onlyActions: actions,
      };
      const open =
        actions.length > 0 &&
        reference.data.drills.some(
          (drill) =>
            fitsPhase(reference, drill, primed) &&
            !hardRule(rules, drill) &&
            !softRule(rules, drill) &&
            openSides(rules, drill, false).open.length > 0,
        );
      return open ? primed : phase;
    }
    if (phase.categories.includes('raise')) return phase;
    if (plays) return { ...phase, minDrills: 0, optional: true, also: readying };
    if (!phases[index + 1]?.primer) return phase;
    return { ...phase, maxDrills: Math.max(phase.maxDrills, wakingDrills(rules.minutes)), also: readying };
  });
}

/** Gentle drills of each region that hurts, one of which comes before anything else of it. */
function relievingDrills({ reference, safety }: Assessment, weights: readonly WeightedRestriction[]) {
  return safety.dayRules
    .filter(({ leads }) => leads.length > 0)
    .map(({ region, side, leads }) => {
      const asked = weights.filter((one) => one.region === region).map(({ restriction }) => restriction);
      const gentle = leads.flatMap((id) => reference.drills.get(id) ?? []);
      return {
        id: `${region}/${side}`,
        region,
        drills: new Set(leads),
        // Wanted by itself only where it is for something: a sore region may as well rest.
        wanted: new Set(
          gentle.filter((drill) => asked.some((id) => coversRestriction(drill, id))).map(({ id }) => id),
        ),
      };
    });
}

/** Graded drills for each painful position that is restored today: one of them is to be in, and no more while it is amber. */
function restoringDrills({ reference, safety }: Assessment) {
  return safety.dayRules
    .filter(({ restores }) => restores.length > 0)
    .map((rule) => ({
      id: `${rule.region}/${rule.side}`,
      drills: new Set(
        reference.data.drills.filter((drill) => isGraded(reference, rule, drill)).map(({ id }) => id),
      ),
      onlyOne: binds(rule),
    }));
}

/** What the actions that follow and the joints to look after ask the routine to hold. */
function elementsFor(
  { reference, standing, safety, report }: Assessment,
  request: BuildRequest,
  actions: readonly string[],
  minutes: number,
): WantedElement[] {
  const { athlete, today } = standing;
  const own = athlete.tasks.map(({ id }) => id);
  const followed = reference.data.patterns.filter(({ id }) => actions.includes(id));
  const since = monthsBefore(today, FINDING_SETTINGS.injuryMonths);
  const injured = athlete.injuries.filter(({ date }) => date >= since && date <= today);
  // What hurts above the limit is left alone, on the other side as well.
  const alone = new Set(safety.dayRules.filter(({ band }) => band === 'above').map(({ region }) => region));
  // In a preparation a finding has its drill anyway; otherwise its joint is what is worked on.
  const found =
    request.mode === 'prepare' ? [] : report.findings.filter((one) => isOpen(one) && one.priority > 0);
  found.sort((a, b) => b.priority - a.priority);
  return wantedElements(reference, {
    actions,
    tasks: own.filter((task) => followed.some(({ tasks }) => tasks.includes(task))),
    mode: request.mode,
    minutes,
    focus: request.focus,
    joints: [...new Set([...found, ...injured].map(({ region }) => region))].filter(
      (region) => !alone.has(region),
    ),
    age: safety.age,
    kit: request.kit,
  });
}

/** Drills for which stop-and-refer questions would have to be answered first, where others have been. */
function unaskedDrills({ reference, standing }: Assessment): Set<string> {
  const { athlete, today } = standing;
  if (!athlete.asked?.length) return new Set();
  const all = reference.data.drills.map(({ id }) => id);
  return new Set(topicsDueFor(reference, athlete, all, today).ofDrill.keys());
}

/** Works out weights, options, limits and wishes for a request, judged with the schools chosen for it. */
export function prepareBuild(given: Assessment, request: BuildRequest): Prepared {
  const assessment = withSchools(given, request.schools);
  const { reference, standing, report } = assessment;
  const day = dayPattern(assessment, request);
  const { mode, pins, fatigueCap } = request;
  const chosen = chooseStructure(reference, standing.schools, request);
  const actions = actionsOfDay(reference, standing, request);
  const elements = elementsFor(assessment, request, actions, chosen.minutes);
  const weighed = restrictionWeights(assessment, request, actions, elements, day);
  const { weights } = weighed;
  const restoring = restoringDrills(assessment);
  const soft = endsSoft(assessment);
  const promised = PROMISES.filter(
    (one) =>
      mode === 'prepare' &&
      schoolOption(reference, standing.schools, one.school) === one.option &&
      (one !== HARD_FINISH || soft === null),
  );
  const rules: RuleContext = {
    ...assessment,
    request,
    todaysFindings: findingsForToday(report, day),
    nearLimit: regionsNearLimit(reference, standing),
    minutes: chosen.minutes,
    general: weighed.general,
    promised,
    endsSoft: soft,
    actions,
    elements,
    plays:
      mode === 'prepare' && assessment.safety.age < GAMES_UNDER && assessment.safety.dayRules.length === 0,
    regions: regionsAsked(request, weights),
    unasked: unaskedDrills(assessment),
    restoring: new Set(restoring.flatMap(({ drills }) => [...drills])),
  };
  const dose = assessment.doses[mode];
  const phases = todaysPhases(rules, chosen.phases);
  const options = createOptions(rules, dose, phases, weights);
  const problem = createProblem({
    options: options.options,
    weights,
    phases,
    mode,
    seconds: Math.floor(chosen.minutes * 60),
    maxDrills: maxDrills(request, chosen),
    fatigueCap: fatigueCap ?? FATIGUE_CAP[mode] * Math.max(1, chosen.minutes / FATIGUE_MINUTES),
    stretchOption: schoolOption(reference, standing.schools, 'static-stretch-before'),
    pins: [...new Set(pins)],
    promised,
    runs: actions[0] === RUN,
    relieving: relievingDrills(assessment, weights),
    restoring,
    easyFrom: isNewcomer(standing) ? START_RULE.demandIndex : START_RULE.trainedDemandIndex,
  });
  return {
    ...assessment,
    request,
    rules,
    dose,
    chosen: { ...chosen, phases },
    ...weighed,
    options,
    problem,
  };
}
