import { z } from 'zod';

const point = z.tuple([z.number(), z.number(), z.number()]);
const loosePoint = z.tuple([z.number().nullable(), z.number().nullable(), z.number().nullable()]);
const numbers = z.record(z.string(), z.number());
const places = z.union([z.string(), z.array(z.string())]);

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
const KIT_KINDS = [
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
  name: z.string().optional().describe('by which contacts call it; its kind where it is left out'),
  at: z.union([point, z.string()]).optional().describe('where it stands, or the place that holds it'),
  size: point.optional().describe('along x, up, along z'),
  face: z
    .enum(['front', 'back', 'left', 'right'])
    .optional()
    .describe('on which side of the body a wall stands'),
  radius: z.number().optional(),
  through: z
    .array(z.union([z.string(), point]))
    .optional()
    .describe('what a band, rope or strap runs through'),
  side: z.enum(['L', 'R', 'both']).optional().describe('which hand holds it'),
  lean: z.number().optional().describe('how far what is held is turned from upright, in degrees'),
  keys: z.array(z.int()).optional().describe('in which keys it is there; all where left out'),
});
/** One piece of kit of a figure. */
export type Kit = z.infer<typeof kitSchema>;

const markSchema = z.union([
  z.strictObject({ move: z.string(), off: z.tuple([z.number(), z.number()]).optional() }),
  z.strictObject({
    push: z.string(),
    to: point,
    off: z.tuple([z.number(), z.number()]).optional(),
    both: z.boolean().optional(),
  }),
  z.strictObject({ spin: z.string(), back: z.boolean().optional(), radius: z.number().optional() }),
  z.strictObject({ hold: z.string(), off: z.tuple([z.number(), z.number()]).optional() }),
  z.strictObject({ breath: z.string() }),
  z.strictObject({ tint: z.string(), radius: z.number().optional() }),
  z.strictObject({ path: z.array(point) }),
  z.strictObject({
    say: z.string().max(3),
    at: z.string(),
    off: z.tuple([z.number(), z.number()]).optional(),
  }),
]);
/** Something that says how it moves or where it works. */
export type Mark = z.infer<typeof markSchema>;

/** Limbs and parts that can be marked as working. */
const PARTS = ['armL', 'armR', 'legL', 'legR', 'trunk', 'head'] as const;

const viewSchema = z.strictObject({ az: z.number(), el: z.number() });
/** From where it is looked at, in degrees: 0 the front, 90 the left side, −90 the right, 180 the back; up by `el`. */
export type View = z.infer<typeof viewSchema>;

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
  assert: z
    .array(z.tuple([z.string(), z.string(), z.string(), z.number(), z.number()]))
    .optional()
    .describe('angle at the second place, from and to, in degrees, in the key shown'),
  z: numbers.optional().describe('parts drawn nearer or further than they are'),
});
/** A figure as it is written. */
export type FigureSource = z.infer<typeof figureSchema>;

/** A figure with solved numbers: what ships. */
export const solvedFigureSchema = z.strictObject({
  rig: z.enum(['body', 'hands', 'feet']),
  sides: z.array(z.enum(['L', 'R'])),
  poses: z.array(z.array(z.number())).min(1),
  between: z
    .array(z.array(z.array(z.number())))
    .describe('poses on the way to each next key, where going straight would drift'),
  shown: z.int(),
  ghost: z.boolean(),
  view: viewSchema,
  frame: z.array(z.string()),
  accent: z.array(z.enum(PARTS)),
  kit: z.array(kitSchema),
  marks: z.array(markSchema),
  z: numbers,
});
/** A figure with solved numbers: what ships. */
export type SolvedFigure = z.infer<typeof solvedFigureSchema>;
