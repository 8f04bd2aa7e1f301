import { circlesOf, pathOf } from './circles.ts';
import type { Near } from './circles.ts';
import { spot } from './painting.ts';
import type { Drawing, Piece, Stroke } from './painting.ts';
import type { SolvedFigure } from './schema.ts';
import {
  ARM,
  FACE,
  FINGER_PARTS,
  FOOT,
  FOREARM,
  HAIR,
  HAND,
  HEAD,
  HIPS,
  LEG,
  SHIN,
  TOE_PARTS,
  TRUNK,
} from './shapes.ts';
import type { Part } from './shapes.ts';
import { PLACE } from './skeleton.ts';
import type { Pose } from './skeleton.ts';
import type { Tone } from './tones.ts';

/** Beyond this many degrees a hand is a fist, drawn as a silhouette of its own. */
const GRIPPED = 60;
/** Beyond this many degrees an elbow or a knee is folded: its two parts are drawn as two silhouettes. */
const FOLDED = 118;
/** Width of the light edge that lifts a part off what is behind it. */
const EDGE = 2.4;

/** What decides how a body is painted. */
type Painted = Pick<SolvedFigure, 'rig' | 'sides' | 'accent' | 'z'>;

const depthOf = (hulls: readonly (readonly Near[])[]) => {
  const all = hulls.flat();
  return all.reduce((sum, one) => sum + one.near, 0) / all.length;
};

interface Unit {
  readonly name: string;
  readonly parts: readonly Part[];
  readonly side: '' | 'L' | 'R';
  readonly tone: Tone;
}

/** The limbs in units that are drawn as one silhouette each. */
function limbs(pose: Pose, toneOf: (limb: 'arm' | 'leg', side: 'L' | 'R') => Tone): Unit[] {
  return (['L', 'R'] as const).flatMap((side) => {
    const bent = (name: string) => pose[PLACE.get(`${name}${side}`) ?? -1] ?? 0;
    const folded = (name: string) => bent(name) > FOLDED;
    const gripped = bent('grip') > GRIPPED;
    const hand = gripped ? [] : [ARM.hand];
    const unit = (name: string, limb: 'arm' | 'leg', ...parts: Part[]): Unit => ({
      name: `${name}${side}`,
      parts,
      side,
      tone: toneOf(limb, side),
    });
    return [
      ...(folded('elbow')
        ? [unit('arm', 'arm', ARM.upper), unit('fore', 'arm', ARM.fore, ...hand)]
        : [unit('arm', 'arm', ARM.upper, ARM.fore, ...hand)]),
      ...(gripped ? [unit('hand', 'arm', ARM.fist)] : []),
      ...(folded('knee')
        ? [unit('thigh', 'leg', LEG.thigh), unit('shank', 'leg', LEG.shank, LEG.foot)]
        : [unit('thigh', 'leg', LEG.thigh, LEG.shank, LEG.foot)]),
    ];
  });
}

/** Hands or feet seen close, every finger by itself. */
function closeUps({ rig, sides, accent }: Painted): Unit[] {
  const hands = rig === 'hands';
  return sides.flatMap((side) => {
    const works = accent.includes(hands ? (`arm${side}` as const) : (`leg${side}` as const));
    const tone: Tone = works ? (side === 'L' ? 'left' : 'right') : 'near';
    const unit = (name: string, ...parts: Part[]): Unit => ({ name: `${name}${side}`, parts, side, tone });
    const single = Object.entries(hands ? FINGER_PARTS : TOE_PARTS).map(([name, part]) => unit(name, part));
    return [hands ? unit('hand', HAND, FOREARM) : unit('foot', FOOT, SHIN), ...single];
  });
}

const edged = (d: string, fill: Tone): Stroke[] => [
  { d, line: 'paper', width: EDGE },
  { d, fill },
];

/** Head, with the face over the hair for who looks at us and the hair over the face for who turns away. */
function headPiece(drawing: Drawing, nudge: number): Piece {
  const [head, face, hair] = [HEAD, FACE, HAIR].map((part) => pathOf(circlesOf(drawing, part, ''))) as [
    string,
    string,
    string,
  ];
  const near = (name: string) => drawing.put(spot(drawing, name)).near;
  const looks = near('brow') > near('backOfHead') + 2;
  const [first, second]: [Stroke, Stroke] = [
    { d: hair, fill: 'hair' },
    { d: face, fill: 'face' },
  ];
  return {
    name: 'head',
    near: near('head') + nudge,
    strokes: [...edged(head, 'face'), ...(looks ? [first, second] : [second, first])],
  };
}

/** The body in pieces, each with how near it is. */
export function bodyPieces(drawing: Drawing, solved: Painted, pose: Pose): Piece[] {
  const nudge = (name: string) => solved.z[name] ?? 0;
  const pieceOf = ({ name, parts, side, tone }: Unit): Piece => {
    const hulls = parts.flatMap((part) => circlesOf(drawing, part, side));
    return { name, near: depthOf(hulls) + nudge(name), strokes: edged(pathOf(hulls), tone) };
  };
  if (solved.rig !== 'body') {
    const units = closeUps(solved);
    // The forearm and the shin run far out of the picture: how near they are is said by the hand and the foot.
    return units.map((unit) => {
      const piece = pieceOf(unit);
      const [own] = unit.parts;
      return own === HAND || own === FOOT
        ? { ...piece, near: depthOf(circlesOf(drawing, own, unit.side)) + nudge(unit.name) }
        : piece;
    });
  }
  const accents = new Set<string>(solved.accent);
  const near = (name: string) => drawing.put(spot(drawing, name)).near;
  // Which limb is the far one is seen from where it begins, so that it holds for who lies on a side as well.
  const apart = { leg: near('hipR') - near('hipL'), arm: near('shoulderR') - near('shoulderL') };
  const toneOf = (limb: 'arm' | 'leg', side: 'L' | 'R'): Tone => {
    const away = apart[limb] * (side === 'R' ? 1 : -1) < (limb === 'arm' ? -9 : -5.5);
    if (accents.has(`${limb}${side}`))
      return side === 'L' ? (away ? 'leftFar' : 'left') : away ? 'rightFar' : 'right';
    return away ? 'far' : 'near';
  };
  const trunk = circlesOf(drawing, TRUNK, '');
  const trunkPiece: Piece = {
    name: 'trunk',
    near: depthOf(trunk) + nudge('trunk'),
    strokes: [
      ...edged(pathOf(trunk), accents.has('trunk') ? 'trunk' : 'body'),
      { d: pathOf(circlesOf(drawing, HIPS, '')), fill: 'hips' },
    ],
  };
  return [trunkPiece, headPiece(drawing, nudge('head')), ...limbs(pose, toneOf).map(pieceOf)];
}

/** The silhouette of everything in one path. */
export function silhouette(drawing: Drawing, solved: Painted, pose: Pose): string {
  const units = solved.rig === 'body' ? limbs(pose, () => 'ghost') : closeUps(solved);
  const whole =
    solved.rig === 'body' ? [TRUNK, HEAD, FACE].flatMap((part) => circlesOf(drawing, part, '')) : [];
  return pathOf([
    ...whole,
    ...units.flatMap(({ parts, side }) => parts.flatMap((part) => circlesOf(drawing, part, side))),
  ]);
}
