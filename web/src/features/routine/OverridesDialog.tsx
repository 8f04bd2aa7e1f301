import { Button, Group, Text, TextInput } from '@mantine/core';
import { Dialog } from '../../components/Dialog.tsx';
import { useForm } from '@mantine/form';
import type { Check } from '@yonder/core/checks';
import type { Draft, OverrideInput } from '@yonder/core/contracts';
import { reasonText } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';

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

/** A version that goes against a rule asks why, rule by rule; the reasons stand wherever the version is shown. */
export function OverridesDialog({ checks, draft, number, onIssue, onClose }: Props) {
  const reference = useReference();
  const form = useForm({
    initialValues: { why: checks.map(() => '') },
  });
  const submit = form.onSubmit(({ why }) => {
    const missing = why.flatMap((text, i) => (text.trim().length < 3 ? [i] : []));
    for (const i of missing) form.setFieldError(`why.${i}`, 'Say why, in a few words.');
    if (missing.length > 0) return;
    onIssue(
      checks.map(({ reason, at }, i) => ({
        item: draft.items[at.at(-1) ?? -1]?.id ?? null,
        rule: reason.rule,
        why: why[i]?.trim() ?? '',
      })),
    );
  });
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
        {checks.map(({ reason, at }, i) => (
          <TextInput
            key={`${reason.rule}/${at.join()}`}
            mb="sm"
            label={reasonText(reference, reason)}
            placeholder="Why all the same?"
            data-autofocus={i === 0 || undefined}
            {...form.getInputProps(`why.${i}`)}
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
