import { outline } from './hull.ts';
import type { Circle } from './hull.ts';
import type { Part } from './shapes.ts';
import type { Body } from './skeleton.ts';
import { add, turned } from './vector.ts';
import type { Vec } from './vector.ts';

/** A circle on the picture with how near it is. */
export type Near = Circle & { readonly near: number };
/** What is needed to put a part of a body on the picture. */
export interface Placing {
  readonly body: Body;
  /** Units of the picture for one hundredth of the body's height. */
  readonly scale: number;
  readonly put: (p: Vec) => { x: number; y: number; near: number };
}

/** The circles of a part's hulls on the picture; of a limb, on its side. */
export function circlesOf({ body, put, scale }: Placing, part: Part, side: '' | 'L' | 'R'): Near[][] {
  const out = side === 'L' ? -1 : 1;
  return part.hulls.map((hull) =>
    hull.map(([bone, x, y, z, r]) => {
      const own = body.bones[side ? `${bone}${side}` : bone];
      if (!own) throw new Error(`no bone is called "${bone}"`);
      return { ...put(add(own.at, turned(own.turn, [x, y, out * z]))), r: r * scale };
    }),
  );
}

/** The path round every hull. */
export const pathOf = (hulls: readonly (readonly Circle[])[]): string => hulls.map(outline).join('');
