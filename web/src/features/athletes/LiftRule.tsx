import { Button, Popover, Text, TextInput } from '@mantine/core';
import type { DayRule } from '@yonder/core/safety';
import { nameOf, withSide } from '@yonder/core/words';
import { useState } from 'react';
import { useMay } from '../../app/may.ts';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useLiftRuleMutation, useRemoveLiftMutation } from './saidEndpoints.ts';
import { useWorkspace } from './WorkspaceContext.tsx';

/**
 * Lifts an amber rule of the day with a reason, or takes that back. Above the stop limit only less pain does; what a diary
 * asked to refer is ended here, once somebody has looked at it.
 */
export function LiftRule({ rule }: { rule: DayRule }) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const { region, side, lifted } = rule;
  const place = withSide(nameOf(reference, region), side);
  const typed = useKeptState(`lift/${athlete.id}/${region}/${side}`, `Why the rule is lifted: ${place}`, '');
  const [open, setOpen] = useState(false);
  const [lift, lifting] = useLiftRuleMutation();
  const [remove, removing] = useRemoveLiftMutation();
  const may = useMay();
  const referral = rule.referred.length > 0;
  if ((rule.band !== 'amber' && !referral) || !may('clinician')) return null;
  if (lifted) {
    const own = athlete.lifts.findLast((row) => !row.referral && row.region === region && row.side === side);
    return own ? (
      <>
        <Button
          size="compact-xs"
          variant="subtle"
          loading={removing.isLoading}
          aria-label={`Take back what was lifted: ${place}`}
          onClick={() => void remove({ athleteId: athlete.id, id: own.id, version: own.version })}
        >
          Take back
        </Button>
        <Refusal error={removing.error} />
      </>
    ) : null;
  }
  const say = () =>
    void lift({ athleteId: athlete.id, body: { region, side, reason: typed.value, referral } })
      .unwrap()
      .then(
        () => {
          typed.discard();
          setOpen(false);
        },
        () => undefined, // shown below
      );
  return (
    <Popover opened={open} onChange={setOpen} width={340} withArrow trapFocus>
      <Popover.Target>
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`${referral ? 'End the referral' : 'Lift the rule'}: ${place}`}
          onClick={() => setOpen(!open)}
        >
          {referral ? 'End the referral…' : 'Lift with a reason…'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Text size="sm" mb={6}>
          {referral
            ? 'Only once a qualified person has looked at it. What was done before no longer counts; what hurts from now on does.'
            : `It then holds nothing back for seven days, unless it hurts more than ${rule.nrs}/10 or elsewhere. Its drills are watched and asked about.`}
        </Text>
        <TextInput
          size="xs"
          label={referral ? 'Who looked at it, and what was found' : 'Why it is lifted'}
          value={typed.value}
          onChange={(e) => typed.set(e.currentTarget.value)}
        />
        <Button
          size="xs"
          mt={8}
          loading={lifting.isLoading}
          disabled={typed.value.trim().length < 3}
          onClick={say}
        >
          {referral ? 'End it' : 'Lift it'}
        </Button>
        <Refusal error={lifting.error} mt={4} />
      </Popover.Dropdown>
    </Popover>
  );
}
