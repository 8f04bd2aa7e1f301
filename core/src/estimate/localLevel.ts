/** Mean and variance of the true capacity, in the unit of the test and its square. */
export interface LevelState {
  readonly mean: number;
  readonly variance: number;
}

/** First visit: the measurement with the variance of its own error (FORMULAS 16). */
export function startLevel(measured: number, sem: number): LevelState {
  return { mean: measured, variance: sem ** 2 };
}

/** Variance grows by q²·weeks while nobody measures; `weeks` may be a fraction. */
export function predictLevel(state: LevelState, qPerWeek: number, weeks: number): LevelState {
  return { mean: state.mean, variance: state.variance + qPerWeek ** 2 * weeks };
}

/** Update with one visit's aggregate: gain K = P′/(P′ + SEM²) (FORMULAS 16). */
export function updateLevel(
  predicted: LevelState,
  measured: number,
  sem: number,
): LevelState & { gain: number } {
  const gain = predicted.variance / (predicted.variance + sem ** 2);
  return {
    mean: predicted.mean + gain * (measured - predicted.mean),
    variance: (1 - gain) * predicted.variance,
    gain,
  };
}
