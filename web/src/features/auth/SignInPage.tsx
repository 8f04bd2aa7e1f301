import { Alert, Button, Paper, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { Navigate, useLocation } from 'react-router';
import { Refusal } from '../../components/Refusal.tsx';
import { useAppSelector } from '../../app/store.ts';
import { useSignInMutation } from './authEndpoints.ts';
import classes from './SignInPage.module.css';

/** The door. What was typed stays when it was wrong. */
export function SignInPage() {
  const { me, ended } = useAppSelector((state) => state.session);
  const location = useLocation();
  const [signIn, { isLoading, error }] = useSignInMutation();
  const form = useForm({
    initialValues: { email: '', password: '' },
    // No schema here: it would be most of what the door loads. The server checks the same.
    validate: {
      email: (value) =>
        /^\S+@\S+\.\S+$/.test(value.trim()) ? null : 'write an e-mail address such as name@example.org',
      password: (value) => (value === '' ? 'write the password' : null),
    },
  });
  const wanted = (location.state as { from?: string } | null)?.from ?? '/today';
  if (me) return <Navigate to={wanted} replace />;
  return (
    <main className={classes.page}>
      <svg className={classes.hills} viewBox="0 0 1200 260" preserveAspectRatio="none" aria-hidden="true">
        <path
          d="M0 260 L0 170 L180 70 L300 150 L470 40 L640 170 L820 90 L1010 190 L1200 110 L1200 260Z"
          className={classes.far}
        />
        <path
          d="M0 260 L0 220 L150 160 L330 225 L520 130 L700 215 L900 160 L1200 230 L1200 260Z"
          className={classes.near}
        />
      </svg>
      <Paper className={classes.card} p="xl" shadow="sm" withBorder>
        <Title order={1} size={30}>
          Yonder Ridge
        </Title>
        <Text c="var(--muted)" mb="md">
          Prehab routines from what the joint has and what the sport asks.
        </Text>
        {ended ? (
          <Alert color="teal" role="status" mb="sm">
            Your session has ended. What you typed is kept on this device: sign in and go on where you were.
          </Alert>
        ) : null}
        <form onSubmit={form.onSubmit((values) => void signIn(values))} noValidate>
          <Stack gap="sm">
            <TextInput
              label="E-mail"
              type="email"
              autoComplete="username"
              autoFocus
              {...form.getInputProps('email')}
            />
            <PasswordInput
              label="Password"
              autoComplete="current-password"
              visibilityToggleButtonProps={{ 'aria-label': 'Show password' }}
              {...form.getInputProps('password')}
            />
            <Refusal error={error} />
            <Button type="submit" loading={isLoading} size="md">
              Sign in
            </Button>
          </Stack>
        </form>
        <Text size="xs" c="var(--muted)" mt="md">
          Supports licensed practice; it does not diagnose or clear anyone. Local rules come first.
        </Text>
      </Paper>
    </main>
  );
}
