/** How far something was drawn, across and up the picture, in units of the room. */
export type By = readonly [across: number, up: number];

/**
 * Follows the pointer from where it took hold of something until it lets go: `during` once a frame at most, `done` with the
 * way of the last frame, or null where it was not moved.
 */
export function followPointer(
  event: React.PointerEvent<SVGElement>,
  unitsPerPixel: number,
  during: (by: By) => void,
  done: (by: By | null) => void,
): void {
  event.preventDefault();
  const held = event.currentTarget;
  held.focus();
  held.setPointerCapture(event.pointerId);
  const [x, y] = [event.clientX, event.clientY];
  let frame = 0;
  let to: By = [0, 0];
  let last: By | null = null;
  const move = ({ clientX, clientY }: PointerEvent) => {
    to = [(clientX - x) * unitsPerPixel, (y - clientY) * unitsPerPixel];
    frame ||= requestAnimationFrame(() => {
      frame = 0;
      last = to;
      during(to);
    });
  };
  const end = () => {
    held.removeEventListener('pointermove', move);
    if (frame) cancelAnimationFrame(frame);
    done(last === null ? null : to);
  };
  held.addEventListener('pointermove', move);
  held.addEventListener('lostpointercapture', end, { once: true });
}
