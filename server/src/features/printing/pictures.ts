import type { RoutineItem } from '@yonder/core/domain';
import { drawFigure, PAPER, shownBy, svgOf, turnedFor } from '@yonder/core/figure';
import { figureOf } from '@yonder/core/figure/bundled';
import type { Drill } from '@yonder/core/reference';

/** What stands for the picture of a line, so many points on each side. */
export type Pictures = (item: RoutineItem, side: number) => object;

/** Nothing, in the place that a picture takes: to see what fits. */
export const blank: Pictures = (_item, side) => ({
  canvas: [{ type: 'rect', x: 0, y: 0, w: side, h: side, lineWidth: 0.1, lineColor: '#ffffff' }],
});

/** Pictures of lines as vectors, each on its working side, with letters for paper without colour. */
export function picturesOf(drills: ReadonlyMap<string, Drill>, items: readonly RoutineItem[]): Pictures {
  const drawn = new Map(
    items.flatMap((item) => {
      const drill = drills.get(item.drill);
      const shown = drill && shownBy(drills, drill);
      const figure = shown && (shown.picture ?? figureOf(shown.id));
      if (!figure) return [];
      const picture = drawFigure(figure, {
        small: true,
        letters: item.side === 'left' || item.side === 'right',
        mirrored: turnedFor(figure, item.side),
      });
      return [[item, svgOf(picture, PAPER)] as const];
    }),
  );
  return (item, side) => {
    const svg = drawn.get(item);
    return svg ? { svg, width: side, height: side, font: 'body' } : blank(item, side);
  };
}
