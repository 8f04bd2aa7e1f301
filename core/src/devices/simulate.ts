import { seededRandom } from '../random/index.ts';

/** Samples per second of the stand-ins. */
export const SAMPLE_HZ = 100;
const REST_S = 1;
const MISHAP_SHARE = 0.2;

/** A pull on a handheld dynamometer in newtons: rest with an offset, build-up, a hold of about three seconds; now and then a jerk or a hold let go. */
export function forceTrace(seed: number, about: number): number[] {
  const random = seededRandom(seed);
  const offset = 2 + random() * 6;
  const level = about * (0.94 + random() * 0.12);
  const mishap = random();
  const jerk = mishap < MISHAP_SHARE;
  const dropped = mishap > 1 - MISHAP_SHARE;
  const rise = 0.25 + random() * 0.2;
  return Array.from({ length: 6 * SAMPLE_HZ }, (_, i) => {
    const t = i / SAMPLE_HZ - REST_S;
    const noise = (random() - 0.5) * 1.2;
    if (t < 0) return offset + noise;
    const build = jerk && t < 0.12 ? 1.35 * Math.sin((Math.PI * t) / 0.12) : 1 - Math.exp((-3 * t) / rise);
    const held = dropped ? Math.max(0.35, 1 - Math.max(0, t - 0.5) * 1.6) : 1;
    const end = t > 4 ? Math.max(0, 1 - (t - 4) * 3) : 1;
    const wobble = 1 + 0.015 * Math.sin(9 * t);
    return offset + noise + level * build * held * end * wobble;
  });
}

/** An angle in degrees: from rest to the end of range, then held still. */
export function angleTrace(seed: number, about: number): number[] {
  const random = seededRandom(seed);
  const end = about + (random() - 0.5) * 3;
  return Array.from({ length: 6 * SAMPLE_HZ }, (_, i) => {
    const share = Math.min(1, Math.max(0, (i / SAMPLE_HZ - 0.6) / 2));
    return end * share * share * (3 - 2 * share) + (random() - 0.5) * 0.5;
  });
}

/** Hops on a contact mat as its switch events, times in ms. */
export function matEvents(seed: number, about: number): { t: number; down: boolean }[] {
  const random = seededRandom(seed);
  const hops = Math.max(1, Math.round(about));
  const events = [{ t: 0, down: true }];
  let t = 500;
  for (let i = 0; i < hops; i += 1) {
    events.push({ t: Math.round(t), down: false });
    t += 190 + random() * 60;
    events.push({ t: Math.round(t), down: true });
    t += 150 + random() * 50;
  }
  return events;
}
