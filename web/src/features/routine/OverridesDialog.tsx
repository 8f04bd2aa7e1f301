import { Button, Group, Text, TextInput } from '@mantine/core';
import { Dialog } from '../../components/Dialog.tsx';
import type { Check } from '@yonder/core/checks';
import type { Draft, OverrideInput } from '@yonder/core/contracts';
import { reasonText } from '@yonder/core/words';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { USUAL_REASONS } from './LeaveIt.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { draftName } from './useDraft.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

interface Props {
  /** Rules that the routine goes against. */
  checks: readonly Check[];
  /** The routine as it would be issued. */
  draft: Draft;
  /** Number of the version it would become. */
  number: number;
  /** Each rule has its reason. */
  onIssue: (overrides: OverrideInput[]) => void;
  /** Changed one's mind. */
  onClose: () => void;
}

/** Where the reasons are kept on the device until the version is issued. */
export const reasonsKey = (draft: string): string => `overrides/${draft}`;

/** A version that goes against a rule asks why, rule by rule; the reasons stand wherever the version is shown. */
export function OverridesDialog({ checks, draft, number, onIssue, onClose }: Props) {
  const reference = useReference();
  const { athlete, occasion } = useWorkspace();
  const { value: whys, set } = useKeptState<Record<string, string>>(
    reasonsKey(draftName(athlete.id, occasion)),
    'Reasons for a version',
    {},
  );
  const [tried, setTried] = useState(false);
  const asked = checks.map(({ reason, at }) => {
    const item = draft.items[at.at(-1) ?? -1]?.id ?? null;
    return { reason, item, id: `${reason.rule}/${item}` };
  });
  const whyOf = (id: string) => (whys[id] ?? '').trim();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setTried(true);
    if (asked.every(({ id }) => whyOf(id).length >= 3))
      onIssue(asked.map(({ reason, item, id }) => ({ item, rule: reason.rule, why: whyOf(id) })));
  };
  return (
    <Dialog
      onClose={onClose}
      title={`Version ${number} goes against ${checks.length === 1 ? 'a rule' : `${checks.length} rules`}`}
      size="lg"
    >
      <form onSubmit={submit} noValidate>
        <Text size="sm" c="var(--muted)" mb="sm">
          Your reason is kept with your name and shown with the version, in the runner and on the handout.
        </Text>
        {asked.length > 1 ? (
          <Group gap={6} mb="sm" role="group" aria-label="The same for all of them">
            <Text size="sm">The same for all of them:</Text>
            {USUAL_REASONS.map((reason) => (
              <Button
                key={reason}
                size="compact-xs"
                variant="light"
                onClick={() =>
                  set(Object.fromEntries(asked.map(({ id }) => [id, whyOf(id) === '' ? reason : whyOf(id)])))
                }
              >
                {reason}
              </Button>
            ))}
          </Group>
        ) : null}
        {asked.map(({ reason, id }, i) => (
          <TextInput
            key={id}
            mb="sm"
            label={reasonText(reference, reason)}
            placeholder="Why all the same?"
            data-autofocus={i === 0 || undefined}
            value={whys[id] ?? ''}
            error={tried && whyOf(id).length < 3 ? 'Say why, in a few words.' : null}
            onChange={({ currentTarget: { value } }) => set({ ...whys, [id]: value })}
          />
        ))}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Back to the routine
          </Button>
          <Button type="submit">Issue version {number} with these reasons</Button>
        </Group>
      </form>
    </Dialog>
  );
}
