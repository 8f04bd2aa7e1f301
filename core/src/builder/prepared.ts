import type { Assessment } from '../assess/index.ts';
import type { BuildRequest } from '../domain/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { schoolOption } from '../findings/index.ts';
import { dayPattern, findingsForToday } from './dayPattern.ts';
import { regionsNearLimit } from './nearLimit.ts';
import { createOptions } from './options.ts';
import type { OptionSet } from './options.ts';
import { createProblem } from './problem.ts';
import type { Problem } from './problem.ts';
import type { RuleContext } from './rules.ts';
import { BUILDER, FATIGUE_CAP } from './settings.ts';
import { chooseStructure } from './structures.ts';
import type { ChosenStructure } from './structures.ts';
import { restrictionWeights } from './weights.ts';
import type { WeightedRestriction } from './weights.ts';

/** An assessment with a request, ready to be solved; also what swaps, checks and "why not" work on. */
export interface Prepared extends Assessment {
  readonly request: BuildRequest;
  readonly rules: RuleContext;
  readonly dose: DoseContext;
  readonly chosen: ChosenStructure;
  readonly weights: readonly WeightedRestriction[];
  readonly general: boolean;
  readonly options: OptionSet;
  readonly problem: Problem;
}

function maxDrills(request: BuildRequest, structure: ChosenStructure): number {
  if (request.maxDrills !== null) return request.maxDrills;
  const own = structure.structure.totalDrills.max;
  return request.mode === 'prepare' ? Math.min(own, BUILDER.defaultMaxDrillsPrepare) : own;
}

/** Works out weights, options and limits for a request. */
export function prepareBuild(assessment: Assessment, request: BuildRequest): Prepared {
  const { reference, standing, report, safety } = assessment;
  const day = dayPattern(assessment, request);
  const rules: RuleContext = {
    ...assessment,
    request,
    todaysFindings: findingsForToday(report, day),
    nearLimit: regionsNearLimit(reference, standing),
  };
  const { mode, pins, fatigueCap } = request;
  const dose = assessment.doses[mode];
  const chosen = chooseStructure(reference, standing.schools, request);
  const { weights, general } = restrictionWeights(reference, standing, report, safety.age, day);
  const options = createOptions(rules, dose, chosen.phases, weights);
  const problem = createProblem({
    options: options.options,
    weights,
    phases: chosen.phases,
    minutes: chosen.minutes,
    maxDrills: maxDrills(request, chosen),
    fatigueCap: fatigueCap ?? FATIGUE_CAP[mode],
    mode,
    stretchOption: schoolOption(reference, standing.schools, 'static-stretch-before'),
    pins: [...new Set(pins)],
  });
  return { ...assessment, request, rules, dose, chosen, weights, general, options, problem };
}
