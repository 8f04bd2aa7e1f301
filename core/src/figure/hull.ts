/** A circle on the picture. */
export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

const DIRECTIONS = 64;

const rounded = (value: number) => {
  const text = value.toFixed(1);
  return text.endsWith('.0') ? text.slice(0, -2) : text;
};
/** A point of a path, to a tenth. */
export const at = (x: number, y: number): string => `${rounded(x)} ${rounded(y)}`;
/** A length of a path, to a tenth. */
export const figure = rounded;

/**
 * The outline round some circles as a path of straight tangents and true arcs. In every direction one circle reaches furthest;
 * where another takes over, the tangent of both is found exactly.
 */
export function outline(circles: readonly Circle[]): string {
  const reach = ({ x, y, r }: Circle, a: number) => x * Math.cos(a) + y * Math.sin(a) + r;
  const furthest = (a: number) =>
    circles.reduce(
      (best, one, i) => (reach(one, a) > reach(circles[best] as Circle, a) + 1e-9 ? i : best),
      0,
    );
  const corners: { from: number; to: number; angle: number }[] = [];
  let before = furthest(0);
  for (let k = 1; k <= DIRECTIONS; k += 1) {
    const angle = (2 * Math.PI * k) / DIRECTIONS;
    const next = k === DIRECTIONS ? furthest(0) : furthest(angle);
    if (next !== before) {
      let low = (2 * Math.PI * (k - 1)) / DIRECTIONS;
      let high = angle;
      for (let i = 0; i < 24; i += 1) {
        const middle = (low + high) / 2;
        const ahead = reach(circles[next] as Circle, middle) > reach(circles[before] as Circle, middle);
        if (ahead) high = middle;
        else low = middle;
      }
      corners.push({ from: before, to: next, angle: high });
      before = next;
    }
  }
  const [first] = corners;
  const pointAt = (i: number, a: number) => {
    const { x, y, r } = circles[i] as Circle;
    return at(x + r * Math.cos(a), y + r * Math.sin(a));
  };
  if (!first) {
    const { x, y, r } = circles[before] as Circle;
    const s = figure(r);
    return `M${at(x - r, y)}a${s} ${s} 0 1 1 ${at(2 * r, 0)}a${s} ${s} 0 1 1 ${at(-2 * r, 0)}z`;
  }
  const parts = [`M${pointAt(first.to, first.angle)}`];
  corners.forEach(({ to, angle }, i) => {
    const next = corners[(i + 1) % corners.length] as (typeof corners)[0];
    const { r } = circles[to] as Circle;
    const turn = (next.angle - angle + 2 * Math.PI) % (2 * Math.PI);
    const s = figure(r);
    parts.push(`A${s} ${s} 0 ${turn > Math.PI ? 1 : 0} 1 ${pointAt(to, next.angle)}`);
    if (i < corners.length - 1) parts.push(`L${pointAt(next.to, next.angle)}`);
  });
  return `${parts.join('')}z`;
}
