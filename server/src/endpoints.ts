import type { Deps } from './deps.ts';
import { athleteEndpoints } from './features/athletes/routes.ts';
import { storyEndpoints } from './features/athletes/storyRoutes.ts';
import { authEndpoints } from './features/auth/routes.ts';
import { figureEndpoints } from './features/figures/routes.ts';
import { libraryEndpoints } from './features/library/routes.ts';
import { methodEndpoints } from './features/methods/routes.ts';
import { peopleEndpoints } from './features/people/routes.ts';
import { practiceEndpoints } from './features/practice/routes.ts';
import { referenceEndpoints } from './features/reference/routes.ts';
import { routineEndpoints } from './features/routines/routes.ts';
import { screeningEndpoints } from './features/screenings/routes.ts';
import { sessionEndpoints } from './features/sessions/routes.ts';
import type { Endpoint } from './http/endpoint.ts';

/** Every endpoint of the API: what is mounted, documented and tested is this list. */
export function allEndpoints(deps: Deps): Endpoint[] {
  return [
    ...authEndpoints(),
    ...referenceEndpoints(deps),
    ...athleteEndpoints(deps),
    ...storyEndpoints(),
    ...figureEndpoints(),
    ...methodEndpoints(deps),
    ...libraryEndpoints(deps),
    ...screeningEndpoints(),
    ...routineEndpoints(deps),
    ...sessionEndpoints(deps),
    ...practiceEndpoints(),
    ...peopleEndpoints(deps),
  ];
}
