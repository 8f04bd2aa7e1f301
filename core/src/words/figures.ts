import type { Reference } from '../reference/index.ts';

const UNIT_WORD: Readonly<Record<string, string>> = {
  deg: '°',
  cm: ' cm',
  s: ' s',
  N: ' N',
  'N/kg': ' N/kg',
  'Nm/kg': ' Nm/kg',
  reps: ' reps',
  '%limb-length': ' % limb',
  'grade-0-3': '',
  'points-0-5': ' points',
  'nrs-0-10': '/10',
};

/** Decimals that the unit of a test deserves. */
export function decimalsOf(unit: string): number {
  if (unit === 'N/kg' || unit === 'Nm/kg') return 2;
  return unit === 'cm' || unit === 's' || unit === 'deg' || unit === '%limb-length' ? 1 : 0;
}

/** A number with a true minus sign and fixed decimals; never "−0". */
export function number(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
}

/** Always with its sign, for reserves and changes. */
export function signed(value: number, decimals: number): string {
  const text = number(value, decimals);
  return text.startsWith('−') || Number(text) === 0 ? text : `+${text}`;
}

/** A figure with its unit: "6.5 cm", "41°", "grade 2". */
export function figure(value: number, unit: string): string {
  const text = number(value, decimalsOf(unit));
  return unit === 'grade-0-3' ? `grade ${text}` : `${text}${UNIT_WORD[unit] ?? ` ${unit}`}`;
}

/** A signed figure with its unit: "−2.5 cm". */
export function signedFigure(value: number, unit: string): string {
  const text = signed(value, decimalsOf(unit));
  return unit === 'grade-0-3' ? `${text} grade` : `${text}${UNIT_WORD[unit] ?? ` ${unit}`}`;
}

/** Unit of a test for captions: "cm", "deg" becomes "°". */
export function unitWord(unit: string): string {
  return unit === 'grade-0-3' ? 'grade 0–3' : (UNIT_WORD[unit] ?? unit).trim();
}

/** A probability as a person reads it: "97 %", "> 99 %", "< 1 %". */
export function percent(share: number): string {
  if (share > 0.99 && share < 1) return '> 99 %';
  if (share < 0.01 && share > 0) return '< 1 %';
  return `${Math.round(share * 100)} %`;
}

/** Minutes and seconds: "4 min 05 s", "45 s". */
export function duration(seconds: number): string {
  const whole = Math.round(seconds);
  const minutes = Math.floor(whole / 60);
  if (minutes === 0) return `${whole} s`;
  return `${minutes} min ${String(whole % 60).padStart(2, '0')} s`;
}

/** Name of anything in the reference, or the id itself. */
export function nameOf(reference: Reference, id: string): string {
  return (
    reference.tests.get(id)?.name ??
    reference.restrictions.get(id)?.name ??
    reference.drills.get(id)?.name ??
    reference.ladders.get(id)?.name ??
    reference.precautions.get(id)?.name ??
    reference.demands.get(id)?.name ??
    reference.regions.get(id)?.name ??
    reference.structures.get(id)?.name ??
    reference.patterns.get(id)?.name ??
    reference.schools.get(id)?.question.replace(/\?$/, '') ??
    id.replaceAll('-', ' ')
  );
}
