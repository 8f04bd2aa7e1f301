import { Button, Group, PasswordInput, Table, Text, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { newPasswordSchema } from '@yonder/core/contracts';
import { useAppSelector } from '../../app/store.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { timeText } from '../../app/today.ts';
import classes from './People.module.css';
import {
  useChangePasswordMutation,
  useSignInsQuery,
  useSignOutEverywhereMutation,
} from './peopleEndpoints.ts';

/** The fault of a new password in words; null when it may be used. */
export const passwordFault = (password: string): string | null =>
  newPasswordSchema.safeParse(password).error?.issues[0]?.message ?? null;

function PasswordForm() {
  const [change, { isLoading, error, isSuccess }] = useChangePasswordMutation();
  // A password is the one thing that is never kept on the device.
  const form = useForm({
    initialValues: { current: '', next: '', again: '' },
    validate: {
      current: (value) => (value ? null : 'type the password you have now'),
      next: passwordFault,
      again: (value, { next }) => (value === next ? null : 'the two are not the same'),
    },
  });
  return (
    <form
      noValidate
      onSubmit={form.onSubmit(({ current, next }) =>
        change({ current, next })
          .unwrap()
          .then(form.reset, () => undefined),
      )}
    >
      <Group align="flex-start" gap="xs">
        <PasswordInput
          label="Password now"
          w={220}
          autoComplete="current-password"
          {...form.getInputProps('current')}
        />
        <PasswordInput
          label="New password"
          w={220}
          autoComplete="new-password"
          {...form.getInputProps('next')}
        />
        <PasswordInput
          label="New password again"
          w={220}
          autoComplete="new-password"
          {...form.getInputProps('again')}
        />
        <Button type="submit" loading={isLoading} mt={25}>
          Change password
        </Button>
      </Group>
      <Refusal error={error} mt={6} />
      {isSuccess ? (
        <Text size="sm" role="status" mt={4}>
          Changed. Every other session of yours has ended.
        </Text>
      ) : null}
    </form>
  );
}

/** One's own account: password, sessions, the last sign-ins. */
export function AccountPage() {
  const me = useAppSelector((state) => state.session.me);
  const { data: signIns, error: unread } = useSignInsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [signOut, { isLoading, error }] = useSignOutEverywhereMutation();
  return (
    <div className={classes.page}>
      <Group justify="space-between">
        <Title order={1} size={26}>
          Your account
        </Title>
        <Text c="var(--muted)">
          {me?.clinician.name}, {me?.clinician.email}, {me?.clinician.role.replace('-', ' ')}
        </Text>
      </Group>
      <section className={`card ${classes.panel}`}>
        <Title order={2} size={18} mb={6}>
          Password
        </Title>
        <PasswordForm />
      </section>
      <section className={`card ${classes.panel}`}>
        <Group justify="space-between">
          <Title order={2} size={18}>
            Last sign-ins
          </Title>
          <Button variant="light" color="red" size="xs" loading={isLoading} onClick={() => void signOut()}>
            Sign out everywhere
          </Button>
        </Group>
        <Refusal error={error ?? unread} mt={6} />
        <Table.ScrollContainer minWidth={560}>
          <Table fz="sm" verticalSpacing={4} aria-label="Last sign-ins">
            <Table.Thead>
              <Table.Tr>
                {['When', 'From', 'With', ''].map((heading) => (
                  <Table.Th key={heading}>
                    {heading || <span className="visually-hidden">Result</span>}
                  </Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {(signIns ?? []).map((row) => (
                <Table.Tr key={row.at}>
                  <Table.Td>{timeText(row.at)}</Table.Td>
                  <Table.Td>{row.address}</Table.Td>
                  <Table.Td>{row.browser}</Table.Td>
                  <Table.Td>{row.succeeded ? 'signed in' : <b>refused</b>}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
        <Text size="sm" c="var(--muted)">
          One you do not know? Change the password: every other session ends at once.
        </Text>
      </section>
    </div>
  );
}
