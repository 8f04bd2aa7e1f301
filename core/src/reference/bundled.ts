import demands from './data/demands.json' with { type: 'json' };
import doseModes from './data/dose-modes.json' with { type: 'json' };
import drills from './data/drills.json' with { type: 'json' };
import gate from './data/gate.json' with { type: 'json' };
import ladders from './data/ladders.json' with { type: 'json' };
import injuredParts from './data/injured-parts.json' with { type: 'json' };
import painPatterns from './data/pain-patterns.json' with { type: 'json' };
import patterns from './data/patterns.json' with { type: 'json' };
import precautions from './data/precautions.json' with { type: 'json' };
import readiness from './data/readiness.json' with { type: 'json' };
import redFlags from './data/red-flags.json' with { type: 'json' };
import regions from './data/regions.json' with { type: 'json' };
import renamed from './data/renamed.json' with { type: 'json' };
import restrictions from './data/restrictions.json' with { type: 'json' };
import schools from './data/schools.json' with { type: 'json' };
import sessionChecks from './data/session-checks.json' with { type: 'json' };
import structures from './data/structures.json' with { type: 'json' };
import sayings from './data/sayings.json' with { type: 'json' };
import synonyms from './data/synonyms.json' with { type: 'json' };
import tests from './data/tests.json' with { type: 'json' };
import { createReference } from './createReference.ts';
import { withMirrors } from './mirrors.ts';
import type { StoredReference } from './mirrors.ts';

/**
 * The reference data that ships with the product. Kept out of the main entry of this folder, because it is 2 MB:
 * the server and the command line import it, the browser fetches it once from the server.
 */
export const bundledData = withMirrors({
  regions,
  restrictions,
  tests,
  demands,
  drills,
  ladders,
  injuredParts,
  readiness,
  painPatterns,
  patterns,
  precautions,
  redFlags,
  gate,
  sessionChecks,
  structures,
  schools,
  renamed,
  synonyms,
  sayings,
  doseModes,
} as unknown as StoredReference); // JSON imports are untyped on purpose; a test parses every entry

/** The reference that ships, indexed. */
export const bundledReference = createReference(bundledData);
