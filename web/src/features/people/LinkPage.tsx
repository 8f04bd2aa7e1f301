import { Alert, Button, Loader, Paper, PasswordInput, Stack, Text, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { Link, useLocation } from 'react-router';
import { Refusal } from '../../components/Refusal.tsx';
import { errorText } from '../../app/api.ts';
import { passwordFault } from './AccountPage.tsx';
import classes from './People.module.css';
import { useLookAtLinkQuery, useUseLinkMutation } from './peopleEndpoints.ts';

/** The door a one-time link opens: choosing a password, once. The link stands behind # and is sent to nobody else. */
export function LinkPage() {
  const token = useLocation().hash.slice(1);
  const { data, error } = useLookAtLinkQuery(token, { skip: token.length < 20 });
  const [put, { isLoading, isSuccess, error: refused }] = useUseLinkMutation();
  const form = useForm({
    initialValues: { password: '', again: '' },
    validate: {
      password: passwordFault,
      again: (value, { password }) => (value === password ? null : 'the two are not the same'),
    },
  });
  const wrong = token.length < 20 ? 'This address is no whole link. Open it as it was given to you.' : null;
  return (
    <main className={classes.door}>
      <Paper p="xl" withBorder className={classes.doorCard}>
        <Title order={1} size={26}>
          Yonder Ridge
        </Title>
        {wrong || (error && !isSuccess) ? (
          <Alert color="copper" role="alert" mt="sm">
            {wrong ?? errorText(error)}
          </Alert>
        ) : isSuccess ? (
          <Alert color="teal" role="status" mt="sm">
            Your password is set. <Link to="/sign-in">Sign in</Link>
          </Alert>
        ) : !data ? (
          <Loader mt="sm" aria-label="Loading" />
        ) : (
          <form noValidate onSubmit={form.onSubmit(({ password }) => void put({ token, password }))}>
            <Stack gap="sm">
              <Text>
                {data.kind === 'invite' ? `${data.practice} has invited you` : 'Choose a new password'}:{' '}
                {data.name}, {data.email}.
              </Text>
              <PasswordInput
                label="New password (at least 10 characters)"
                autoComplete="new-password"
                {...form.getInputProps('password')}
              />
              <PasswordInput label="Again" autoComplete="new-password" {...form.getInputProps('again')} />
              <Refusal error={refused} />
              <Button type="submit" loading={isLoading}>
                Set password
              </Button>
            </Stack>
          </form>
        )}
      </Paper>
    </main>
  );
}
