import { cameraOf, drawnTo, kitWay } from '@yonder/core/figure';
import type { Kit, SolvedFigure } from '@yonder/core/figure';
import type { By } from './followPointer.ts';
import { KIT_WORDS } from './words.ts';

type Point = [number, number, number];

/** A place by which kit is taken hold of in the picture: where it stands, or one end of what is strung. */
export interface KitHandle {
  /** Which piece of the figure's kit. */
  readonly piece: number;
  /** Which of the places it runs through; null for what stands. */
  readonly end: number | null;
  readonly at: Readonly<Point>;
  readonly name: string;
}

/** From how far above the floor it is looked down on, as a sine, a thing on it can be drawn away from us. */
const LOOKED_DOWN = 0.25;
const FURTHEST = 300;

/** The places by which the kit of a figure is taken hold of; what is in a hand goes with the hand. */
export function kitHandles({ kit }: SolvedFigure): KitHandle[] {
  return kit.flatMap((one, piece): KitHandle[] => {
    const way = kitWay(one);
    const word = KIT_WORDS[one.type];
    if (way === 'strung')
      return (one.through ?? []).flatMap((at, end) =>
        typeof at === 'string' ? [] : [{ piece, end, at, name: `${word}, end ${end + 1}` }],
      );
    if (way === 'held' || typeof one.at === 'string') return [];
    return [{ piece, end: null, at: one.at ?? [0, 0, 0], name: `${word}, where it stands` }];
  });
}

/** Along the floor by what is seen of it: across, and away where it is looked down on. */
function alongFloor({ view }: SolvedFigure, [x, , z]: Readonly<Point>, [across, up]: By): Point {
  const { right, up: high } = cameraOf(view);
  const down = Math.hypot(high[0], high[2]);
  const away = down < LOOKED_DOWN ? 0 : up / down ** 2;
  return [x + right[0] * across + high[0] * away, 0, z + right[2] * across + high[2] * away];
}

/** The kit of a figure with one place drawn across and up the picture; what stands on the floor stays on it. */
export function kitDrawn(figure: SolvedFigure, { piece, end, at }: KitHandle, by: By): Kit[] {
  const moved =
    end === null && at[1] === 0 ? alongFloor(figure, at, by) : drawnTo(figure, [...at] as Point, ...by);
  const to = moved.map((v) => Math.max(-FURTHEST, Math.min(FURTHEST, Math.round(v * 2) / 2))) as Point;
  return figure.kit.map((one, i) => {
    if (i !== piece) return one;
    return end === null ? { ...one, at: to } : { ...one, through: (one.through ?? []).with(end, to) };
  });
}
