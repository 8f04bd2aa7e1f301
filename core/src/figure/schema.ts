import { z } from 'zod';

/** Hundredths of the body's height, or degrees; what is further than this is nowhere near the body. */
const measure = z.number().min(-500).max(500);
const word = z.string().max(40);
/** A slope that falls has a length below nothing. */
const length = z.number().min(-100).max(300);
const point = z.tuple([measure, measure, measure]);
const loosePoint = z.tuple([z.number().nullable(), z.number().nullable(), z.number().nullable()]);
const numbers = z.record(z.string(), z.number());
const places = z.union([z.string(), z.array(z.string())]);

/** One name or several, as a list. */
export const listOf = (names: string | readonly string[] | undefined): readonly string[] =>
  names === undefined ? [] : typeof names === 'string' ? [names] : names;

/** What touches what in a pose. Names of places are those of the skeleton; without `L` or `R` both sides are meant. */
const contactFields = {
  set: numbers.optional().describe('degrees and places that are otherwise than before'),
  on: z.record(z.string(), places).optional().describe('surface: places that lie on it'),
  at: z.record(z.string(), loosePoint).optional().describe('place: where it is; null is free'),
  touch: z
    .array(z.union([z.tuple([z.string(), z.string()]), z.tuple([z.string(), z.string(), z.number()])]))
    .optional()
    .describe('two places that touch, or are so far apart'),
  aim: z
    .array(z.tuple([z.string(), z.string(), point]))
    .optional()
    .describe('from one place to another, in a direction'),
  line: z
    .array(z.tuple([z.string(), z.string(), z.string()]))
    .optional()
    .describe('three places in a line'),
  off: places.optional().describe('places that touch nothing any more'),
};

/** Kinds of kit that are drawn. */
export const KIT_KINDS = [
  'wall',
  'box',
  'step',
  'bench',
  'chair',
  'table',
  'mat',
  'roller',
  'ball',
  'bar',
  'rings',
  'edge',
  'dumbbell',
  'kettlebell',
  'bottle',
  'racket',
  'gear',
  'dowel',
  'cone',
  'hurdle',
  'ladder',
  'line',
  'towel',
  'slider',
  'rope',
  'strap',
  'band',
  'loop',
  'bike',
  'helper',
  'slope',
  'sensor',
  'tape',
  'couch',
] as const;

const kitSchema = z.strictObject({
  type: z.enum(KIT_KINDS),
  name: word.optional().describe('by which contacts call it; its kind where it is left out'),
  at: z.union([point, word]).optional().describe('where it stands, or the place that holds it'),
  size: z.tuple([length, length, length]).optional().describe('along x, up, along z'),
  face: z
    .enum(['front', 'back', 'left', 'right'])
    .optional()
    .describe('on which side of the body a wall stands'),
  radius: z.number().min(0.1).max(60).optional(),
  through: z
    .array(z.union([word, point]))
    .max(12)
    .optional()
    .describe('what a band, rope or strap runs through'),
  side: z.enum(['L', 'R', 'both']).optional().describe('which hand holds it'),
  lean: measure.optional().describe('how far what is held is turned from upright, in degrees'),
  keys: z
    .array(z.int().min(0).max(3))
    .max(4)
    .optional()
    .describe('in which keys it is there; all where left out'),
});
/** One piece of kit of a figure. */
export type Kit = z.infer<typeof kitSchema>;

const STRUNG: readonly Kit['type'][] = ['band', 'loop', 'rope', 'strap', 'tape', 'dowel'];
const HELD: readonly Kit['type'][] = ['dumbbell', 'kettlebell', 'bottle', 'racket', 'gear'];
/** Is it held in a hand, strung from place to place, or does it stand or lie in the room? */
export function kitWay({ type, side }: Pick<Kit, 'type' | 'side'>): 'held' | 'strung' | 'standing' {
  if (side || HELD.includes(type)) return 'held';
  return STRUNG.includes(type) ? 'strung' : 'standing';
}

const off = z.tuple([measure, measure]).optional().describe('how far beside its place, across and down');
const stop = z.boolean().optional().describe('it ends short, at a bar');
const markSchema = z.union([
  z.strictObject({ move: word, off, stop }),
  z.strictObject({
    push: word,
    to: point,
    off,
    stop,
    both: z.boolean().optional(),
  }),
  z.strictObject({
    spin: word,
    back: z.boolean().optional(),
    radius: z.number().min(0.1).max(60).optional(),
  }),
  z.strictObject({ hold: word, off }),
  z.strictObject({ breath: word, off }),
  z.strictObject({ gaze: word }),
  z.strictObject({ shut: word, off }),
  z.strictObject({ tint: word, radius: z.number().min(0.1).max(60).optional() }),
  z.strictObject({ path: z.array(point).max(12) }),
  z.strictObject({
    say: z.string().max(3),
    at: word,
    off,
  }),
]);
/** Something that says how it moves or where it works. */
export type Mark = z.infer<typeof markSchema>;

const viewSchema = z.strictObject({ az: z.number().min(-360).max(360), el: z.number().min(-90).max(90) });
/** From where it is looked at, in degrees: 0 the front, 90 the left side, −90 the right, 180 the back; up by `el`. */
export type View = z.infer<typeof viewSchema>;

/** Limbs and parts that can be marked as working. */
export const PARTS = ['armL', 'armR', 'legL', 'legR', 'trunk', 'head'] as const;

const directionSchema = z.enum(['ahead', 'behind', 'above', 'below', 'left', 'right']);
/** What a figure is meant to show, whatever else is changed in it. */
const intentSchema = z.union([
  z
    .tuple([z.string(), z.string(), z.string(), z.number(), z.number()])
    .describe('angle at the second place, from and to, in degrees, in the key shown'),
  z
    .tuple([z.string(), z.literal('goes'), directionSchema, z.number()])
    .describe('from the first key to the one shown a place goes that far in a direction'),
  z
    .tuple([z.string(), directionSchema, z.string(), z.number()])
    .describe('a place is that far ahead of, above or beside another, in the key shown'),
  z
    .tuple([z.enum(['faces', 'head']), z.enum(['left', 'right', 'up', 'down', 'us', 'away'])])
    .describe('in the picture, the chest looks there, or the head is there from the pelvis'),
  z.tuple([z.literal('works'), z.enum(PARTS)]).describe('what is marked as working'),
]);
/** A figure as it is written: a base, what is otherwise, what touches what, one or more keys. */
export const figureSchema = z.strictObject({
  base: z.string().default('stand'),
  rig: z
    .enum(['body', 'hands', 'feet'])
    .default('body')
    .describe('the whole body, or hands or feet seen close'),
  sides: z
    .array(z.enum(['L', 'R']))
    .default(['L'])
    .describe('which of them a close-up shows'),
  ...contactFields,
  balance: z.boolean().optional(),
  w: numbers.optional().describe('numbers that must give way less, or more'),
  keys: z
    .array(z.strictObject({ ...contactFields, balance: z.boolean().optional() }))
    .min(1)
    .max(4)
    .default([{}]),
  shown: z.int().optional().describe('the key that stands for it; the last where left out'),
  ghost: z.boolean().optional().describe('the first key is shown behind; so where left out'),
  slide: z.array(z.string()).optional().describe('places that may travel on their surface'),
  view: z.union([z.string(), viewSchema]).optional(),
  frame: z
    .union([z.string(), z.array(z.string())])
    .optional()
    .describe('what is in the picture: full, upper, lower, or places'),
  accent: z.array(z.enum(PARTS)).optional(),
  kit: z.array(kitSchema).optional(),
  marks: z.array(markSchema).optional(),
  assert: z.array(intentSchema).optional(),
  z: numbers.optional().describe('parts drawn nearer or further than they are'),
});
/** A figure as it is written. */
export type FigureSource = z.infer<typeof figureSchema>;

const poseSchema = z.array(measure).max(64);
/** A figure with solved numbers: what ships, and what a practice draws for a drill of its own. */
export const solvedFigureSchema = z.strictObject({
  rig: z.enum(['body', 'hands', 'feet']),
  sides: z
    .array(z.enum(['L', 'R']))
    .min(1)
    .max(2),
  poses: z.array(poseSchema).min(1).max(4),
  between: z
    .array(z.array(poseSchema).max(3))
    .max(3)
    .describe('poses on the way to each next key, where going straight would drift'),
  shown: z.int().min(0).max(3),
  ghost: z.boolean(),
  view: viewSchema,
  frame: z.array(word).min(1).max(12),
  accent: z.array(z.enum(PARTS)).max(6),
  kit: z.array(kitSchema).max(8),
  marks: z.array(markSchema).max(8),
  z: z.record(word, measure),
});
/** A figure with solved numbers. */
export type SolvedFigure = z.infer<typeof solvedFigureSchema>;
