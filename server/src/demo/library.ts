import { ownDrillOf } from '@yonder/core/formats';
import { dosedByDefault } from '@yonder/core/dose';
import type { Reference } from '@yonder/core/reference';
import { requestSchema } from '@yonder/core/schemas';
import { addDrill } from '../features/library/drills.ts';
import { templateInputSchema } from '@yonder/core/contracts';
import { addTemplate } from '../features/library/templates.ts';
import { newId } from '../work/newId.ts';
import type { Unit } from '../work/unit.ts';

/** Routines the academy starts others from, by the drills they hold. */
const TEMPLATES = [
  {
    name: 'Before a descent day',
    sport: 'fell running',
    role: 'senior',
    minutes: 12,
    drills: [
      'easy-jog-with-arm-patterns',
      'knee-to-wall-rock',
      'walking-lunge-with-turn',
      'double-leg-heel-raise',
      'single-leg-balance',
      'snap-down',
    ],
  },
  {
    name: 'Before the wall',
    sport: 'lead climbing',
    role: 'all',
    minutes: 12,
    drills: [
      'small-fast-arm-circles',
      'hand-pump-and-shake',
      'shoulder-controlled-circles',
      'quadruped-wide-knee-rock',
      'finger-open-hold',
      'foot-supported-hang',
      'slow-sport-movement-rehearsal',
    ],
  },
] as const;

/** What the academy’s protocols have in common. */
const ABOUT = {
  purpose: 'What everybody of the sport does before they start; what is short comes on top.',
  notFor:
    'Anybody in pain above the limit, or after an operation without a protocol of the treating clinician.',
  occasion: 'before-training',
} as const;

function templateOf(reference: Reference, template: (typeof TEMPLATES)[number]) {
  const { name, sport, role, minutes, drills } = template;
  const items = drills.flatMap((id) => {
    const drill = reference.drills.get(id);
    return drill ? [dosedByDefault(drill)] : [];
  });
  const structure = 'two-block-general-to-specific';
  const fields = { name, sport, role, structure, request: requestSchema.parse({ minutes }), items };
  return templateInputSchema.parse({ id: newId(), ...fields, ...ABOUT });
}

/** The academy's own drill and templates. */
export async function addLibrary(unit: Unit): Promise<void> {
  const source = unit.reference.drills.get('seated-trunk-turn');
  if (source) {
    const copy = ownDrillOf(source, 'own-new', 'Boat-seat trunk turn with paddle');
    await addDrill(unit, {
      id: newId(),
      drill: {
        ...copy,
        ladder: 'own-boat-seat',
        ladderName: 'Boat-seat trunk turns',
        level: 1,
        cues: [
          'Sit tall as in the boat, knees braced',
          'Turn from the ribs, both hands on the paddle',
          'Breathe out into the turn',
        ],
        athleteText:
          'Sit as in your boat, hold the paddle and turn your chest as far as it goes, then the other way.',
        patterns: { paddle: 0.9 },
      },
    });
  }
  for (const template of TEMPLATES) await addTemplate(unit, templateOf(unit.reference, template));
}
