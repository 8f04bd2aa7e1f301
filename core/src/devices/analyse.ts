/** Editable limits of the capture panel. */
export const CAPTURE = {
  /** Seconds at the start of a recording that set the zero of a force trace. */
  tareSeconds: 0.5,
  /** A rise of more than this share of the peak within `jerkMs` is a jerk, not a build-up. */
  jerkShare: 0.5,
  jerkMs: 40,
  /** The best second must reach this share of the peak, else the hold was missed. */
  holdShare: 0.85,
  /** An angle is steady when the last second stays within this SD, in degrees. */
  steadySd: 0.4,
} as const;

const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

function sd(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((v) => (v - middle) ** 2)));
}

/** What a force trace comes to in newtons, and what spoils it. */
export interface ForceCapture {
  /** Newtons above the zero. */
  readonly peak: number;
  /** Highest mean over one second, in newtons. */
  readonly bestSecond: number;
  /** First sample of that second. */
  readonly from: number;
  readonly artefacts: readonly ('jerk' | 'missed-hold')[];
}

/** The zero of a force trace: the mean of its first half second, in newtons; 0 while it is shorter. */
export function tareOf(samples: readonly number[], hz: number): number {
  const n = Math.round(CAPTURE.tareSeconds * hz);
  return samples.length < n ? 0 : mean(samples.slice(0, n));
}

/** Peak and mean of the best second of a force trace in newtons; null while it is shorter than a second. */
export function analyseForce(
  samples: readonly number[],
  hz: number,
  tare = tareOf(samples, hz),
): ForceCapture | null {
  const window = Math.round(hz);
  if (samples.length < window) return null;
  const net = samples.map((v) => v - tare);
  const peak = Math.max(...net);
  let sum = net.slice(0, window).reduce((total, v) => total + v, 0);
  let best = { mean: sum / window, from: 0 };
  for (let end = window; end < net.length; end += 1) {
    sum += (net[end] ?? 0) - (net[end - window] ?? 0);
    if (sum / window > best.mean) best = { mean: sum / window, from: end - window + 1 };
  }
  const step = Math.max(1, Math.round((CAPTURE.jerkMs / 1000) * hz));
  const jerk = net.some((v, i) => i >= step && v - (net[i - step] ?? 0) > CAPTURE.jerkShare * peak);
  const artefacts: ('jerk' | 'missed-hold')[] = [];
  if (peak > 0 && jerk) artefacts.push('jerk');
  if (peak > 0 && best.mean < CAPTURE.holdShare * peak) artefacts.push('missed-hold');
  return { peak, bestSecond: best.mean, from: best.from, artefacts };
}

/** The angle in degrees once the last second is steady and away from rest; null while it still moves. */
export function steadyAngle(samples: readonly number[], hz: number): number | null {
  const window = Math.round(hz);
  if (samples.length < 2 * window) return null;
  const last = samples.slice(-window);
  const start = mean(samples.slice(0, Math.max(1, Math.round(window / 5))));
  const angle = mean(last);
  return sd(last) <= CAPTURE.steadySd && Math.abs(angle - start) > 2 ? angle : null;
}

/** What contacts on a mat come to: hops, flights and contacts in ms. */
export interface MatCapture {
  /** Completed hops: a flight that ended in a landing. */
  readonly hops: number;
  readonly flightsMs: readonly number[];
  /** Contacts between two flights, in ms. */
  readonly contactsMs: readonly number[];
  /** Mean flight over mean contact time; null without both. */
  readonly reactiveRatio: number | null;
  /** Height of the mean flight in cm, by g·t²/8. */
  readonly heightCm: number | null;
}

const GRAVITY = 9.81;

/** Flights and contacts of a contact mat from its switches, times in ms. */
export function analyseMat(events: readonly { t: number; down: boolean }[]): MatCapture {
  const flightsMs: number[] = [];
  const contactsMs: number[] = [];
  let upAt: number | null = null;
  let downAt: number | null = null;
  for (const { t, down } of events) {
    if (down) {
      if (upAt !== null) flightsMs.push(t - upAt);
      downAt = t;
      upAt = null;
    } else {
      if (downAt !== null && flightsMs.length > 0) contactsMs.push(t - downAt);
      upAt = t;
      downAt = null;
    }
  }
  const flight = flightsMs.length > 0 ? mean(flightsMs) : null;
  const contact = contactsMs.length > 0 ? mean(contactsMs) : null;
  return {
    hops: flightsMs.length,
    flightsMs,
    contactsMs,
    reactiveRatio: flight !== null && contact !== null && contact > 0 ? flight / contact : null,
    heightCm: flight === null ? null : (100 * GRAVITY * (flight / 1000) ** 2) / 8,
  };
}
