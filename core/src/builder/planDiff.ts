import type { Option } from './options.ts';

/** What a plan takes out and puts in against another, drill by drill. */
export interface PlanDiff {
  readonly out: readonly string[];
  readonly in: readonly string[];
  /** Drills in both whose sets, side or amount differ. */
  readonly changed: readonly string[];
}

function dose({ item }: Option): string {
  return JSON.stringify([item.side, item.sets, item.amount, item.perSide ?? null]);
}

/** Which drills leave, come in and change their dose between two plans. */
export function planDiff(before: readonly Option[], after: readonly Option[]): PlanDiff {
  const was = new Map(before.map((option) => [option.drill, option]));
  const is = new Map(after.map((option) => [option.drill, option]));
  return {
    out: [...was.keys()].filter((drill) => !is.has(drill)).sort(),
    in: [...is.keys()].filter((drill) => !was.has(drill)).sort(),
    changed: [...is]
      .filter(([drill, option]) => {
        const old = was.get(drill);
        return old !== undefined && dose(old) !== dose(option);
      })
      .map(([drill]) => drill)
      .sort(),
  };
}
