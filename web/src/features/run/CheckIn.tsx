import { ActionIcon, Button, Group, Text } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { CheckIn as Said } from '@yonder/core/domain';
import { nameOf, withSide } from '@yonder/core/words';
import { Allowed } from '../../app/Allowed.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useCheckInQuery, usePutCheckInMutation } from '../athletes/saidEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { PainPlace } from '../story/PainPlace.tsx';
import classes from './Run.module.css';

type Sore = Said['sore'][0];
/** One place that hurts, as it is being said. */
interface Typed {
  readonly region: string;
  readonly side: string;
  readonly aspect: string | null;
  readonly feel: string | null;
  readonly nrs: number | null;
}

/** What was typed as the server takes it, which refuses what is none. */
function soreOf({ region, side, aspect, feel }: Typed, nrs: number): Sore {
  return { region, side, nrs, ...(aspect ? { aspect } : {}), ...(feel ? { feel } : {}) } as Sore;
}

/** Before the session: anything that hurts today. It counts on this day alone, and what it forbids is left out. */
export function CheckIn() {
  const reference = useReference();
  const { athlete, on, region } = useWorkspace();
  const { data } = useCheckInQuery({ athleteId: athlete.id, date: on });
  const [put, { isLoading, error }] = usePutCheckInMutation();
  const typed = useKeptState<Typed | null>(`check-in/${athlete.id}/${on}`, 'What hurts today', null);
  if (!data) return null;
  const { sore, version } = data;
  const store = (next: readonly Sore[]) =>
    put({ athleteId: athlete.id, date: on, body: { sore: [...next], version } }).unwrap();
  const said = typed.value;
  const add = () => {
    if (!said || said.nrs === null) return;
    const { nrs } = said;
    const others = sore.filter((one) => one.region !== said.region || one.side !== said.side);
    store([...others, soreOf(said, nrs)]).then(typed.discard, () => undefined); // shown below
  };
  return (
    <section className={classes.checkIn} aria-label="Before the session">
      <Text size="sm" fw={650}>
        Anything that hurts today?
      </Text>
      {sore.map((one) => {
        const place = withSide(nameOf(reference, one.region), one.side);
        return (
          <div key={`${one.region}/${one.side}`} className={classes.sore}>
            <SideMark side={one.side} />
            <span>
              {place} {one.nrs}/10
              {one.aspect ? `, ${one.aspect}` : ''}
              {one.feel ? `, feels like ${one.feel.replace('-', ' ')}` : ''}
            </span>
            <Allowed least="assistant">
              <ActionIcon
                size="sm"
                variant="subtle"
                aria-label={`Take back: ${place} hurts`}
                onClick={() => void store(sore.filter((other) => other !== one)).catch(() => undefined)}
              >
                <IconX size={14} />
              </ActionIcon>
            </Allowed>
          </div>
        );
      })}
      {sore.length === 0 && !said ? (
        <Text size="sm" c="var(--muted)">
          Nothing said for {dayText(on)} beside what the story holds.
        </Text>
      ) : null}
      <Allowed least="assistant">
        {said ? (
          <Group align="flex-end" gap="xs">
            <PainPlace place={said} onChange={(change) => typed.set({ ...said, ...change })} />
            <UnitInput
              size="xs"
              w={84}
              label="How much"
              unit="/10"
              min={0}
              max={10}
              value={said.nrs}
              onChange={(nrs) => typed.set({ ...said, nrs })}
            />
            <Button size="xs" variant="light" loading={isLoading} disabled={said.nrs === null} onClick={add}>
              Say it
            </Button>
            <Button size="xs" variant="subtle" onClick={typed.discard}>
              Leave it
            </Button>
          </Group>
        ) : (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => typed.set({ region, side: 'left', aspect: null, feel: null, nrs: null })}
          >
            Something hurts
          </Button>
        )}
      </Allowed>
      <Refusal error={error} mt={4} />
    </section>
  );
}
