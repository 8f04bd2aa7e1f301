import { ActionIcon, Button, Group, Select, Text } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { PAIN_ASPECTS, PAIN_FEELS, REGIONS } from '@yonder/core/domain';
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
import { SIDES } from '../story/sides.ts';
import classes from './Run.module.css';

type Sore = Said['sore'][0];
type Typed = Omit<Partial<Sore>, 'nrs'> & Pick<Sore, 'region' | 'side'> & { readonly nrs: number | null };

/** One place that hurts, as it is being said. */
function Saying({ typed, onTyped }: { typed: Typed; onTyped: (typed: Typed) => void }) {
  const reference = useReference();
  return (
    <>
      <Select
        size="xs"
        w={150}
        label="Where"
        data={REGIONS.map((r) => ({ value: r, label: nameOf(reference, r) }))}
        allowDeselect={false}
        value={typed.region}
        onChange={(region) => onTyped({ ...typed, region: region as Sore['region'] })}
      />
      <Select
        size="xs"
        w={92}
        label="Side"
        data={SIDES}
        allowDeselect={false}
        value={typed.side}
        onChange={(side) => onTyped({ ...typed, side: side as Sore['side'] })}
      />
      <Select
        size="xs"
        w={92}
        label="Aspect"
        clearable
        data={[...PAIN_ASPECTS]}
        value={typed.aspect ?? null}
        onChange={(aspect) => onTyped({ ...typed, aspect: (aspect ?? undefined) as Sore['aspect'] })}
      />
      <Select
        size="xs"
        w={116}
        label="Feels like"
        clearable
        data={PAIN_FEELS.map((f) => ({ value: f, label: f.replace('-', ' ') }))}
        value={typed.feel ?? null}
        onChange={(feel) => onTyped({ ...typed, feel: (feel ?? undefined) as Sore['feel'] })}
      />
      <UnitInput
        size="xs"
        w={84}
        label="How much"
        unit="/10"
        min={0}
        max={10}
        value={typed.nrs}
        onChange={(nrs) => onTyped({ ...typed, nrs })}
      />
    </>
  );
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
    const { nrs, ...rest } = said;
    const others = sore.filter((one) => one.region !== said.region || one.side !== said.side);
    store([...others, { ...rest, nrs }]).then(typed.discard, () => undefined); // shown below
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
            <Saying typed={said} onTyped={typed.set} />
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
            onClick={() => typed.set({ region, side: 'left', nrs: null })}
          >
            Something hurts
          </Button>
        )}
      </Allowed>
      <Refusal error={error} mt={4} />
    </section>
  );
}
