import {
  angleAt,
  bodyAt,
  drawnTo,
  handlesOf,
  jointsOf,
  layoutOf,
  PICTURE,
  pulled,
  reached,
} from '@yonder/core/figure';
import type { Kit, SolvedFigure } from '@yonder/core/figure';
import { useMemo, useRef, useState } from 'react';
import { Picture } from '../Picture.tsx';
import classes from './Editor.module.css';
import { followPointer } from './followPointer.ts';
import type { By } from './followPointer.ts';
import { kitDrawn, kitHandles } from './kitHandles.ts';
import type { KitHandle } from './kitHandles.ts';

/** Rounds of the solver while a joint is drawn, and when it is let go. */
const DRAWING = 3;
const LET_GO = 24;
/** How far an arrow key draws something, in hundredths of the body's height; less where it is seen close. */
const [NUDGE, NUDGE_CLOSE] = [2, 0.6];
const KEYS: Readonly<Record<string, By>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** How near the edge of the picture something is taken hold of at least. */
const EDGE = 7;

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
  /** Kit was put elsewhere. */
  onKit: (kit: Kit[]) => void;
}

/** How far a joint of the body is bent: a hinge as its number says, any other the angle between its bones; null for what has none. */
function angleOf(figure: SolvedFigure, pose: readonly number[], joint: string): number | null {
  if (figure.rig !== 'body') return null;
  const taken = jointsOf(figure).find(({ site }) => site === joint);
  const hinge = taken?.settings.length === 1 || taken?.name.endsWith('elbow') ? taken.settings[0] : undefined;
  if (hinge) return Math.round(pose[hinge.place] ?? 0);
  const { sites } = bodyAt(figure, pose);
  const bones = taken?.angle?.map((site) => sites[site]?.at ?? ([0, 0, 0] as const));
  return bones ? Math.round(angleAt(...(bones as [never, never, never]))) : null;
}

interface HandleProps {
  /** Where on the picture. */
  at: { readonly x: number; readonly y: number };
  /** What is taken hold of. */
  name: string;
  /** Kit, not a joint. */
  square?: boolean;
  /** It is the joint that is worked on; left out where there is no such thing. */
  taken?: boolean;
  /** What is drawn lies on something. */
  snapped?: boolean;
  /** How far an arrow key draws it. */
  nudge: number;
  /** The pointer took hold of it. */
  onTake: (event: React.PointerEvent<SVGElement>) => void;
  /** An arrow key drew it. */
  onNudge: (by: By) => void;
  /** It is reached. */
  onFocus?: () => void;
}

/** A ring or a square by which something in the picture is taken hold of. */
function Handle(props: HandleProps) {
  const { at, name, square = false, taken, snapped = false, nudge, onTake, onNudge, onFocus } = props;
  const shared = {
    role: 'button',
    tabIndex: 0,
    'aria-label': name,
    'aria-pressed': taken,
    'data-snapped': snapped || undefined,
    onPointerDown: onTake,
    onFocus,
    onKeyDown: (event: React.KeyboardEvent) => {
      const way = KEYS[event.key];
      if (!way) return;
      event.preventDefault();
      onNudge([way[0] * nudge, way[1] * nudge]);
    },
  };
  if (!square) return <circle cx={at.x} cy={at.y} r={taken ? 5.4 : 4.2} {...shared} />;
  return <rect x={at.x - 4.2} y={at.y - 4.2} width={8.4} height={8.4} rx={1.6} {...shared} />;
}

/** The figure with its joints and its kit to take hold of: drawn with the pointer or with the arrow keys. */
export function Canvas({ figure, position, joint, onJoint, onPose, onKit }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<{ pose: number[]; snapped: string | null } | null>(null);
  const [moved, setMoved] = useState<Kit[] | null>(null);
  const shown = moved ? { ...figure, kit: moved } : figure;
  const base = figure.poses[position] ?? [];
  const pose = drawn?.pose ?? base;
  // The frame stays as it is while a joint or kit is drawn.
  const layout = useMemo(() => layoutOf(figure), [figure]);
  const { sites } = bodyAt(figure, pose);
  // What is beyond the frame is taken hold of at its edge.
  const onPicture = (place: readonly [number, number, number]) => {
    const { x, y } = layout.put(place);
    const inside = (v: number) => Math.max(EDGE, Math.min(PICTURE - EDGE, v));
    return { x: inside(x), y: inside(y) };
  };
  const at = (site: string) => onPicture(sites[site]?.at ?? [0, 0, 0]);
  const angle = angleOf(figure, pose, joint);

  /** Draws a joint from where it is in this position by so many units of the room, across and up the picture; `from` is the pose so far. */
  const draw = (from: readonly number[], site: string, by: By, rounds: number) => {
    const start = bodyAt(figure, base).sites[site]?.at ?? [0, 0, 0];
    const to = drawnTo(figure, start, ...by);
    return figure.rig === 'body'
      ? pulled(from, figure.kit, site, to, rounds)
      : { pose: reached(figure, from, site, to), snapped: null };
  };
  const unitsPerPixel = () =>
    PICTURE / (svg.current?.getBoundingClientRect().width || PICTURE) / layout.scale;
  const take = (site: string, of: string) => (event: React.PointerEvent<SVGElement>) => {
    onJoint(of);
    let so: readonly number[] = base;
    followPointer(
      event,
      unitsPerPixel(),
      (by) => {
        const next = draw(so, site, by, DRAWING);
        so = next.pose;
        setDrawn(next);
      },
      (by) => {
        setDrawn(null);
        if (by) onPose(draw(so, site, by, LET_GO).pose);
      },
    );
  };
  const takeKit = (handle: KitHandle) => (event: React.PointerEvent<SVGElement>) =>
    followPointer(
      event,
      unitsPerPixel(),
      (by) => setMoved(kitDrawn(figure, handle, by)),
      (by) => {
        setMoved(null);
        if (by) onKit(kitDrawn(figure, handle, by));
      },
    );
  const nudge = figure.rig === 'body' ? NUDGE : NUDGE_CLOSE;
  return (
    <div className={classes.canvas}>
      <Picture figure={shown} pose={pose} framedAs={figure} />
      <svg
        ref={svg}
        viewBox={`0 0 ${PICTURE} ${PICTURE}`}
        role="group"
        aria-label="Joints of the figure and its kit"
      >
        {handlesOf(figure).map(({ site, name, joint: of }) => (
          <Handle
            key={site}
            at={at(site)}
            name={name}
            taken={site === joint}
            snapped={site === joint && Boolean(drawn?.snapped)}
            nudge={nudge}
            onTake={take(site, of)}
            onNudge={(by) => onPose(draw(base, site, by, LET_GO).pose)}
            onFocus={() => onJoint(of)}
          />
        ))}
        {kitHandles(shown).map((handle, i) => (
          <Handle
            key={i}
            square
            at={onPicture(handle.at)}
            name={handle.name}
            nudge={nudge}
            onTake={takeKit(handle)}
            onNudge={(by) => onKit(kitDrawn(figure, handle, by))}
          />
        ))}
        {angle !== null ? (
          <text x={at(joint).x + 9} y={at(joint).y - 7} aria-hidden>
            {angle}°
          </text>
        ) : null}
      </svg>
      {drawn?.snapped ? <p className={classes.snapped}>lies on the {drawn.snapped}</p> : null}
    </div>
  );
}
