import { Button, Group, Text, TextInput } from '@mantine/core';
import type { Finding } from '@yonder/core/findings';
import { errorText } from '../../app/api.ts';
import { useAddJudgementMutation, useRemoveJudgementMutation } from '../athletes/saidEndpoints.ts';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Ridge.module.css';

/** Confirm a finding, set it aside with a reason, or take back what was said. `onSay` comes first: the finding stays the one shown, wherever it moves. */
export function SayOfFinding({ finding, onSay }: { finding: Finding; onSay: () => void }) {
  const { athlete } = useWorkspace();
  const [add, { isLoading, error }] = useAddJudgementMutation();
  const [remove, removing] = useRemoveJudgementMutation();
  const { restriction, side, judgement } = finding;
  const typed = useKeptState<string | null>(
    `aside/${athlete.id}/${restriction}/${side}`,
    'Why a finding is set aside',
    null,
  );
  const { value: reason, set: setReason } = typed;
  const stored = athlete.judgements.findLast((j) => j.restriction === restriction && j.side === side);
  const say = (verdict: 'confirmed' | 'dismissed') => {
    onSay();
    return add({
      athleteId: athlete.id,
      body: { restriction, side, verdict, reason: verdict === 'dismissed' ? (reason ?? '').trim() : '' },
    })
      .unwrap()
      .then(
        () => typed.discard(),
        () => undefined,
      );
  };
  const failed = error ?? removing.error;
  return (
    <div className={classes.say}>
      {judgement && stored ? (
        <Button
          size="compact-sm"
          variant="light"
          loading={removing.isLoading}
          onClick={() => {
            onSay();
            void remove({ athleteId: athlete.id, id: stored.id, version: stored.version });
          }}
        >
          Take back “
          {judgement.verdict === 'dismissed'
            ? 'set aside'
            : judgement.verdict === 'seen'
              ? 'seen by eye'
              : 'confirmed'}
          ”
        </Button>
      ) : reason === null ? (
        <Group gap={6}>
          <Button size="compact-sm" variant="light" loading={isLoading} onClick={() => void say('confirmed')}>
            Confirm
          </Button>
          <Button size="compact-sm" variant="light" onClick={() => setReason('')}>
            Set aside…
          </Button>
        </Group>
      ) : (
        <>
          <TextInput
            size="xs"
            label="Why is it set aside?"
            value={reason}
            maxLength={2000}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Group gap={6} mt={6}>
            <Button
              size="compact-sm"
              loading={isLoading}
              disabled={reason.trim() === ''}
              onClick={() => void say('dismissed')}
            >
              Set aside
            </Button>
            <Button size="compact-sm" variant="subtle" onClick={() => setReason(null)}>
              Cancel
            </Button>
          </Group>
        </>
      )}
      {failed ? (
        <Text size="xs" c="var(--danger)" role="alert">
          {errorText(failed)}
        </Text>
      ) : null}
    </div>
  );
}
