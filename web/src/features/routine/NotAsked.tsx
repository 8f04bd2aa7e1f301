import { Alert, Button } from '@mantine/core';
import type { RoutineItem } from '@yonder/core/domain';
import { topicsDueFor } from '@yonder/core/safety';
import { Link, useLocation } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

/** Stop-and-refer topics that the drills of a routine bring into play and nobody has answered yet. */
export function NotAsked({ items }: { items: readonly RoutineItem[] }) {
  const reference = useReference();
  const { athlete, case: input, on } = useWorkspace();
  const { search } = useLocation();
  const drills = items.map((item) => item.drill);
  const due = topicsDueFor(reference, input.athlete, drills, on);
  const regions = [...new Set([...due.ofDrill.values()])];
  if (due.general.length + regions.length === 0) return null;
  const query = new URLSearchParams(search);
  query.set('then', 'routine');
  query.set('for', regions.map((topic) => topic.id).join());
  return (
    <Alert color="copper" role="alert" p={8} title="Not asked yet">
      {[...due.general, ...regions].map((topic) => topic.title).join(', ')}: these stop-and-refer questions
      come before this can be issued.{' '}
      <Button
        component={Link}
        to={{ pathname: `/athletes/${athlete.id}/gate`, search: `?${query.toString()}` }}
        size="compact-xs"
        ml={6}
      >
        Ask now
      </Button>
    </Alert>
  );
}
