import { Alert, Button, Group, MultiSelect, Text, TextInput, Title } from '@mantine/core';
import type { AthleteRow } from '@yonder/core/contracts';
import { nameOf, SIDE_LABEL } from '@yonder/core/words';
import { Locked } from '../../app/Allowed.tsx';
import { errorText } from '../../app/api.ts';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { dayText, today } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { usePutProtocolMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Story.module.css';

type Gate = Pick<AthleteRow['protocols'][0], 'region' | 'side'>;

function ProtocolForm({ gate, known }: { gate: Gate; known: AthleteRow['protocols'][0] | undefined }) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [put, { isLoading, error, isSuccess }] = usePutProtocolMutation();
  const typed = useKeptState(`protocol/${athlete.id}/${gate.region}/${gate.side}`, 'A protocol', {
    by: known?.by ?? '',
    date: known?.date ?? today(),
    tests: known?.tests ?? [],
    drills: known?.drills ?? [],
  });
  const { by, date, tests, drills } = typed.value;
  const set = (part: Partial<typeof typed.value>) => typed.set({ ...typed.value, ...part });
  const touches = (regions: readonly string[]) => regions.includes(gate.region);
  const testData = reference.data.tests
    .filter((t) => t.region === gate.region || t.region === 'whole-body')
    .map((t) => ({ value: t.id, label: t.name }));
  const drillData = reference.data.drills
    .filter(
      (d) =>
        touches(d.regions.primary) ||
        touches(d.regions.secondary) ||
        touches(d.loadRegions.map((l) => l.region)),
    )
    .map((d) => ({ value: d.id, label: `${d.name} (level ${d.level})` }));
  return (
    <div className={classes.protocol}>
      <Group gap="xs">
        <SideMark side={gate.side} />
        <b>
          {nameOf(reference, gate.region)}, {SIDE_LABEL[gate.side]}
        </b>
        <span className="muted">
          {known
            ? `${known.tests.length} tests and ${known.drills.length} drills ticked by ${known.by}, ${dayText(known.date)}`
            : 'nothing ticked yet: nothing of this region and side is shown'}
        </span>
      </Group>
      {known && known.changed.length > 0 ? (
        <Alert color="copper" mt={4} p={6}>
          Changed since it was ticked, and closed until it is ticked again:{' '}
          {known.changed.map((id) => nameOf(reference, id)).join(', ')}.
        </Alert>
      ) : null}
      <Group align="flex-end" gap="xs" mt={4}>
        <TextInput
          size="xs"
          w={190}
          label="Ticked by (surgeon or treating clinician)"
          value={by}
          onChange={(e) => set({ by: e.currentTarget.value })}
        />
        <DayInput size="xs" label="On" value={date} onChange={(next) => set({ date: next })} />
        <MultiSelect
          size="xs"
          w={270}
          label="Tests allowed"
          searchable
          data={testData}
          value={tests}
          onChange={(next) => set({ tests: next })}
        />
        <MultiSelect
          size="xs"
          w={300}
          label="Drills allowed"
          searchable
          data={drillData}
          value={drills}
          onChange={(next) => set({ drills: next })}
        />
        <Button
          size="xs"
          variant="light"
          loading={isLoading}
          disabled={by.trim() === ''}
          onClick={() =>
            put({
              athleteId: athlete.id,
              ...gate,
              body: { by: by.trim(), date, tests, drills, version: known?.version ?? null },
            })
              .unwrap()
              .then(typed.done, () => undefined)
          }
        >
          Save protocol
        </Button>
      </Group>
      {error ? (
        <Alert color="copper" role="alert" mt={4} p={6}>
          {errorText(error)}
        </Alert>
      ) : isSuccess ? (
        <Text size="xs" c="var(--muted)" role="status">
          Saved.
        </Text>
      ) : null}
    </div>
  );
}

/** After an operation the surgeon's or treating clinician's protocol leads: what they tick is all that is shown. */
export function Protocols({ gates }: { gates: readonly Gate[] }) {
  const { athlete } = useWorkspace();
  if (gates.length === 0) return null;
  return (
    <section className={`card ${classes.panel}`} aria-labelledby="protocols">
      <Title order={2} size={17} id="protocols">
        Protocol after an operation
      </Title>
      <Text size="sm" c="var(--muted)">
        The surgeon’s or treating clinician’s protocol leads for 12 months. Enter what they ticked; nothing
        else of that region and side is tested or drilled.
      </Text>
      {gates.map((gate) => {
        const known = athlete.protocols.find((p) => p.region === gate.region && p.side === gate.side);
        return (
          <Locked least="clinician">
            <ProtocolForm key={`${gate.region}/${gate.side}`} gate={gate} known={known} />
          </Locked>
        );
      })}
    </section>
  );
}
