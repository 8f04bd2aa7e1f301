/** A point or direction in units of a hundredth of the body's height: x forwards, y up, z to the athlete's right. */
export type Vec = readonly [x: number, y: number, z: number];
/** A rotation, row by row. */
export type Turn = readonly [number, number, number, number, number, number, number, number, number];

/** a + b. */
export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** a − b. */
export const less = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** a times k. */
export const times = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k, a[2] * k];
/** Scalar product. */
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Length. */
export const size = (a: Vec): number => Math.hypot(a[0], a[1], a[2]);
/** Vector product. */
export const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** The direction of a, of length 1; straight up where a is nothing. */
export const unit = (a: Vec): Vec => {
  const length = size(a);
  return length < 1e-9 ? [0, 1, 0] : times(a, 1 / length);
};
/** The point a share k of the way from a to b. */
export const between = (a: Vec, b: Vec, k: number): Vec => add(a, times(less(b, a), k));

const RADIANS = Math.PI / 180;

/** A turn by degrees about x. */
export const aboutX = (degrees: number): Turn => {
  const c = Math.cos(degrees * RADIANS);
  const s = Math.sin(degrees * RADIANS);
  return [1, 0, 0, 0, c, -s, 0, s, c];
};
/** A turn by degrees about y. */
export const aboutY = (degrees: number): Turn => {
  const c = Math.cos(degrees * RADIANS);
  const s = Math.sin(degrees * RADIANS);
  return [c, 0, s, 0, 1, 0, -s, 0, c];
};
/** A turn by degrees about z. */
export const aboutZ = (degrees: number): Turn => {
  const c = Math.cos(degrees * RADIANS);
  const s = Math.sin(degrees * RADIANS);
  return [c, -s, 0, s, c, 0, 0, 0, 1];
};
/** First b, then a. */
export const turns = (a: Turn, b: Turn): Turn => [
  a[0] * b[0] + a[1] * b[3] + a[2] * b[6],
  a[0] * b[1] + a[1] * b[4] + a[2] * b[7],
  a[0] * b[2] + a[1] * b[5] + a[2] * b[8],
  a[3] * b[0] + a[4] * b[3] + a[5] * b[6],
  a[3] * b[1] + a[4] * b[4] + a[5] * b[7],
  a[3] * b[2] + a[4] * b[5] + a[5] * b[8],
  a[6] * b[0] + a[7] * b[3] + a[8] * b[6],
  a[6] * b[1] + a[7] * b[4] + a[8] * b[7],
  a[6] * b[2] + a[7] * b[5] + a[8] * b[8],
];
/** A direction turned. */
export const turned = (r: Turn, v: Vec): Vec => [
  r[0] * v[0] + r[1] * v[1] + r[2] * v[2],
  r[3] * v[0] + r[4] * v[1] + r[5] * v[2],
  r[6] * v[0] + r[7] * v[1] + r[8] * v[2],
];
/** The angle at m between a and c, in degrees. */
export function angleAt(a: Vec, m: Vec, c: Vec): number {
  const cos = dot(unit(less(a, m)), unit(less(c, m)));
  return Math.acos(Math.max(-1, Math.min(1, cos))) / RADIANS;
}
