import { angleAt, bodyAt, drawnTo, jointsOf, layoutOf, PICTURE, pulled } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import { useMemo, useRef, useState } from 'react';
import { Picture } from '../Picture.tsx';
import classes from './Editor.module.css';

/** Rounds of the solver while a joint is drawn, and when it is let go. */
const DRAWING = 3;
const LET_GO = 24;
/** How far an arrow key draws a joint, in hundredths of the body's height. */
const NUDGE = 2;
const KEYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-NUDGE, 0],
  ArrowRight: [NUDGE, 0],
  ArrowUp: [0, NUDGE],
  ArrowDown: [0, -NUDGE],
};

interface Props {
  /** What is drawn. */
  figure: SolvedFigure;
  /** Which position of it. */
  position: number;
  /** The joint that is taken. */
  joint: string;
  /** A joint was taken. */
  onJoint: (site: string) => void;
  /** A joint was let go in a new pose. */
  onPose: (pose: number[]) => void;
}

/** The figure with its joints to take hold of: drawn with the pointer or with the arrow keys. */
export function Canvas({ figure, position, joint, onJoint, onPose }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<{ pose: number[]; snapped: string | null } | null>(null);
  const latest = useRef<number[] | null>(null);
  const base = figure.poses[position] ?? [];
  const pose = drawn?.pose ?? base;
  // The frame stays as it is while a joint is drawn.
  const layout = useMemo(() => layoutOf(figure), [figure]);
  const { sites } = bodyAt(figure, pose);
  const joints = figure.rig === 'body' ? jointsOf(figure) : [];
  const taken = joints.find(({ site }) => site === joint);
  const at = (site: string) => layout.put(sites[site]?.at ?? [0, 0, 0]);
  // A hinge shows how far it is bent, as its number says; any other joint the angle between its bones.
  const hinge = taken?.settings.length === 1 || taken?.name.endsWith('elbow') ? taken.settings[0] : undefined;
  const degrees = taken?.angle?.map((site) => sites[site]?.at ?? ([0, 0, 0] as const));
  const angle = hinge
    ? Math.round(pose[hinge.place] ?? 0)
    : degrees
      ? Math.round(angleAt(...(degrees as [never, never, never])))
      : null;

  /** Draws a joint from where it is in this position by so many units of the room, across and up the picture; `from` is the pose so far. */
  const draw = (from: readonly number[], site: string, by: readonly [number, number], rounds: number) => {
    const start = bodyAt(figure, base).sites[site]?.at ?? [0, 0, 0];
    return pulled(from, figure.kit, site, drawnTo(figure, start, ...by), rounds);
  };
  const take = (site: string) => (event: React.PointerEvent<SVGCircleElement>) => {
    event.preventDefault();
    const ring = event.currentTarget;
    ring.focus();
    ring.setPointerCapture(event.pointerId);
    onJoint(site);
    const units = PICTURE / (svg.current?.getBoundingClientRect().width || PICTURE) / layout.scale;
    const [x, y] = [event.clientX, event.clientY];
    let frame = 0;
    let to: [number, number] = [0, 0];
    const step = () => {
      frame = 0;
      const next = draw(latest.current ?? base, site, to, DRAWING);
      latest.current = next.pose;
      setDrawn(next);
    };
    const move = ({ clientX, clientY }: PointerEvent) => {
      to = [(clientX - x) * units, (y - clientY) * units];
      frame ||= requestAnimationFrame(step);
    };
    const end = () => {
      ring.removeEventListener('pointermove', move);
      if (frame) cancelAnimationFrame(frame);
      const last = latest.current;
      latest.current = null;
      setDrawn(null);
      if (last) onPose(draw(last, site, to, LET_GO).pose);
    };
    ring.addEventListener('pointermove', move);
    ring.addEventListener('lostpointercapture', end, { once: true });
  };
  const nudge = (site: string) => (event: React.KeyboardEvent) => {
    const by = KEYS[event.key];
    if (!by) return;
    event.preventDefault();
    onPose(draw(base, site, by, LET_GO).pose);
  };
  return (
    <div className={classes.canvas}>
      <Picture figure={figure} pose={pose} />
      <svg ref={svg} viewBox={`0 0 ${PICTURE} ${PICTURE}`} role="group" aria-label="Joints of the figure">
        {joints.map(({ site, name }) => {
          const { x, y } = at(site);
          return (
            <circle
              key={site}
              cx={x}
              cy={y}
              r={site === joint ? 5.4 : 4.2}
              role="button"
              tabIndex={0}
              aria-label={name}
              aria-pressed={site === joint}
              data-snapped={(site === joint && drawn?.snapped) || undefined}
              onPointerDown={take(site)}
              onKeyDown={nudge(site)}
              onFocus={() => onJoint(site)}
            />
          );
        })}
        {taken && angle !== null ? (
          <text x={at(joint).x + 9} y={at(joint).y - 7} aria-hidden>
            {angle}°
          </text>
        ) : null}
      </svg>
      {drawn?.snapped ? <p className={classes.snapped}>lies on the {drawn.snapped}</p> : null}
    </div>
  );
}
