import type { Region } from '../domain/index.ts';
import type { Soreness } from './soreness.ts';

/** Where and how it hurts, and the precautions that hold that day. Judgement, low confidence (rulings, "Pain steers"). */
interface PatternPrecaution {
  readonly region: Region;
  /** Null = anywhere there. */
  readonly aspects: readonly NonNullable<Soreness['aspect']>[] | null;
  readonly feels: readonly NonNullable<Soreness['feel']>[] | null;
  readonly precautions: readonly string[];
  /** Only above the stop limit. */
  readonly aboveOnly?: boolean;
}

export const PATTERN_PRECAUTIONS: readonly PatternPrecaution[] = [
  { region: 'wrist-hand', aspects: ['back'], feels: null, precautions: ['no-loaded-wrist-extension'] },
  { region: 'hip-groin', aspects: ['inner'], feels: null, precautions: ['pubic-overload-irritable'] },
  {
    region: 'hip-groin',
    aspects: ['inner'],
    feels: null,
    precautions: ['acute-adductor-strain'],
    aboveOnly: true,
  },
  {
    region: 'hip-groin',
    aspects: ['front', 'deep'],
    feels: ['pinch', 'sharp'],
    precautions: ['no-end-range-hip-flexion-ir'],
  },
  {
    region: 'hip-groin',
    aspects: ['back'],
    feels: ['ache', 'sharp'],
    precautions: ['proximal-hamstring-irritable'],
  },
  { region: 'knee', aspects: ['front'], feels: null, precautions: ['patellar-tendon-irritable'] },
  { region: 'knee', aspects: ['front'], feels: ['pinch'], precautions: ['no-deep-knee-flexion'] },
  {
    region: 'knee',
    aspects: ['front'],
    feels: null,
    precautions: ['no-deep-knee-flexion', 'no-kneeling-pressure'],
    aboveOnly: true,
  },
  { region: 'knee', aspects: ['inner'], feels: null, precautions: ['knee-inner-side-irritable'] },
  {
    region: 'ankle-foot',
    aspects: ['back'],
    feels: ['ache', 'sharp'],
    precautions: ['achilles-insertional-irritation'],
  },
  { region: 'ankle-foot', aspects: ['back'], feels: ['pinch'], precautions: ['posterior-ankle-impingement'] },
  {
    region: 'lumbopelvic',
    aspects: ['back', 'deep'],
    feels: ['pinch', 'ache', 'sharp'],
    precautions: ['no-loaded-spinal-extension'],
  },
  {
    region: 'shoulder',
    aspects: ['front', 'outer', 'deep'],
    feels: ['pinch', 'sharp'],
    precautions: ['no-overhead'],
  },
  {
    region: 'shoulder',
    aspects: ['front', 'outer', 'deep'],
    feels: null,
    precautions: ['no-overhead'],
    aboveOnly: true,
  },
  { region: 'shoulder', aspects: ['inner'], feels: null, precautions: ['acromioclavicular-irritation'] },
  {
    region: 'elbow',
    aspects: ['inner'],
    feels: ['ache', 'sharp'],
    precautions: ['medial-elbow-ligament-irritable'],
  },
  {
    region: 'elbow',
    aspects: ['outer'],
    feels: null,
    precautions: ['no-heavy-grip', 'lateral-elbow-irritable'],
  },
  { region: 'thoracic', aspects: null, feels: ['sharp'], precautions: ['rib-or-chest-wall-irritable'] },
];
