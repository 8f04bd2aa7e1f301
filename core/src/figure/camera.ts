import type { View } from './schema.ts';
import { dot } from './vector.ts';
import type { Vec } from './vector.ts';

/** Named views. */
export const VIEWS: Readonly<Record<string, View>> = {
  side: { az: -90, el: 6 },
  sideL: { az: 90, el: 6 },
  front: { az: 0, el: 8 },
  back: { az: 180, el: 8 },
  quarter: { az: -45, el: 12 },
  quarterL: { az: 45, el: 12 },
  backQuarter: { az: -140, el: 12 },
  backQuarterL: { az: 140, el: 12 },
  high: { az: -40, el: 42 },
  highL: { az: 40, el: 42 },
  highFront: { az: 0, el: 44 },
  highSide: { az: -90, el: 40 },
  highSideL: { az: 90, el: 40 },
};

/** Projects without perspective: a point of the picture (y downwards) and how near it is. */
export interface Camera {
  readonly see: (point: Vec) => { readonly x: number; readonly y: number; readonly near: number };
  /** Directions of the room that go to the right and up in the picture. */
  readonly right: Vec;
  readonly up: Vec;
}

/** The camera of a view. */
export function cameraOf({ az, el }: View): Camera {
  const a = (az * Math.PI) / 180;
  const e = (el * Math.PI) / 180;
  const right: Vec = [-Math.sin(a), 0, -Math.cos(a)];
  const towards: Vec = [Math.cos(a) * Math.cos(e), Math.sin(e), -Math.sin(a) * Math.cos(e)];
  const up: Vec = [-Math.cos(a) * Math.sin(e), Math.cos(e), Math.sin(a) * Math.sin(e)];
  return {
    right,
    up,
    see: (point) => ({ x: dot(point, right), y: -dot(point, up), near: dot(point, towards) }),
  };
}
