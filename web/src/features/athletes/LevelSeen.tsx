import { Button, Group, Text } from '@mantine/core';
import type { Placement } from '@yonder/core/domain';
import type { Drill } from '@yonder/core/reference';
import { shortDay } from '../../app/today.ts';
import { useMay } from '../../app/may.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { usePutPlacementMutation, useRemovePlacementMutation } from './saidEndpoints.ts';
import { useWorkspace } from './WorkspaceContext.tsx';

const SEEN = { fine: 'Seen, fine', 'too-hard': 'Too hard' } as const;

interface Props {
  /** The drill whose level it is. */
  drill: Drill;
  /** The side it is given to. */
  side: Placement['side'];
  /** Which words can be said here. */
  offers: readonly Placement['verdict'][];
  /** The level was said to be too hard. */
  onTooHard?: () => void;
}

/** One press says that a level was seen fine, or too hard; what was said stands there with its name, and can be taken back. */
export function LevelSeen({ drill, side, offers, onTooHard }: Props) {
  const { athlete } = useWorkspace();
  const may = useMay();
  const [put, putting] = usePutPlacementMutation();
  const [remove, removing] = useRemovePlacementMutation();
  const place = { athleteId: athlete.id, drill: drill.id, side: drill.unilateral ? side : ('both' as const) };
  const said = athlete.placements.find((row) => row.drill === place.drill && row.side === place.side);
  const say = (verdict: Placement['verdict']) => {
    put({ ...place, body: { verdict, version: said?.version ?? null } })
      .unwrap()
      .then(
        () => verdict === 'too-hard' && onTooHard?.(),
        () => undefined, // shown below
      );
  };
  if (!may('clinician')) return null;
  return (
    <>
      <Group gap={6}>
        {said ? (
          <Text size="sm">
            {SEEN[said.verdict]}: {said.by}
            {said.date ? `, ${shortDay(said.date)}` : ''}.
          </Text>
        ) : null}
        {offers
          .filter((verdict) => verdict !== said?.verdict)
          .map((verdict) => (
            <Button
              key={verdict}
              size="compact-xs"
              variant="light"
              aria-label={`${SEEN[verdict]}: ${drill.name}`}
              loading={putting.isLoading}
              onClick={() => say(verdict)}
            >
              {SEEN[verdict]}
            </Button>
          ))}
        {said ? (
          <Button
            size="compact-xs"
            variant="subtle"
            loading={removing.isLoading}
            aria-label={`Take back what was said of ${drill.name}`}
            onClick={() => void remove({ ...place, version: said.version })}
          >
            Take back
          </Button>
        ) : null}
      </Group>
      <Refusal error={putting.error ?? removing.error} />
    </>
  );
}
