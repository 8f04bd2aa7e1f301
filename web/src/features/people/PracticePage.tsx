import {
  Alert,
  Button,
  CopyButton,
  Group,
  Loader,
  Select,
  Switch,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core';
import { newPersonSchema, practiceFieldsSchema, ROLES } from '@yonder/core/contracts';
import type { OneTimeLink, PersonRow, PracticeRow, Role } from '@yonder/core/contracts';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useState } from 'react';
import { Refusal } from '../../components/Refusal.tsx';
import { errorText } from '../../app/api.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { timeText } from '../../app/today.ts';
import classes from './People.module.css';
import {
  useChangePersonMutation,
  useChangePracticeMutation,
  useInviteMutation,
  useMakeLinkMutation,
  usePeopleQuery,
  usePracticeQuery,
} from './peopleEndpoints.ts';

/** What each role may do, in words. */
const ROLE_TEXT: Record<Role, string> = {
  owner: 'owner: everything, people and audit too',
  clinician: 'clinician: screens, builds, issues, clears',
  assistant: 'assistant: asks, types results, runs sessions',
  'read-only': 'read only: sees, changes nothing',
};
const ROLE_DATA = [...ROLES].reverse().map((value) => ({ value, label: ROLE_TEXT[value] }));

/** A one-time link, shown once, to be handed over by hand: nothing is sent from here. */
function LinkNote({ link, onClose }: { link: OneTimeLink; onClose: () => void }) {
  if (!link.token) return null;
  const url = `${window.location.origin}/link#${link.token}`;
  return (
    <Alert
      color="teal"
      role="status"
      title={`Link for ${link.person.name}`}
      withCloseButton
      onClose={onClose}
      mb="sm"
    >
      <Text size="sm">
        Hand it over yourself; it is shown once, works once and holds until{' '}
        {link.until ? timeText(link.until) : ''}.
      </Text>
      <Group gap="xs" mt={6}>
        <code className={classes.link}>{url}</code>
        <CopyButton value={url}>
          {({ copied, copy }) => (
            <Button size="compact-sm" variant="default" onClick={copy}>
              {copied ? 'Copied' : 'Copy'}
            </Button>
          )}
        </CopyButton>
      </Group>
    </Alert>
  );
}

function Invite({ onLink }: { onLink: (link: OneTimeLink) => void }) {
  const [invite, { isLoading, error }] = useInviteMutation();
  const { form, done, ...before } = useKeptForm('people/invite', 'An invitation', {
    initialValues: { name: '', email: '', role: 'clinician' as Role },
    validate: zod4Resolver(newPersonSchema.omit({ id: true })),
  });
  return (
    <form
      noValidate
      onSubmit={form.onSubmit((values) =>
        invite(values)
          .unwrap()
          .then(
            (link) => {
              done();
              form.reset();
              onLink(link);
            },
            () => undefined,
          ),
      )}
    >
      <RestoredNote {...before} />
      <Group align="flex-start" gap="xs">
        <TextInput label="Name" w={200} {...form.getInputProps('name')} />
        <TextInput label="E-mail" w={240} {...form.getInputProps('email')} />
        <Select label="Role" w={340} allowDeselect={false} data={ROLE_DATA} {...form.getInputProps('role')} />
        <Button type="submit" loading={isLoading} mt={25}>
          Invite
        </Button>
      </Group>
      <Refusal error={error} mt={6} />
    </form>
  );
}

interface PersonProps {
  /** The account. */
  person: PersonRow;
  /** A link was made for it. */
  onLink: (link: OneTimeLink) => void;
}

function Person({ person, onLink }: PersonProps) {
  const [change, { isLoading, error }] = useChangePersonMutation();
  const [makeLink, making] = useMakeLinkMutation();
  const { id, name, role, active, version } = person;
  const put = (part: Partial<Pick<PersonRow, 'role' | 'active'>>) =>
    void change({ id, body: { name, role, active, version, ...part } });
  const failed = error ?? making.error;
  return (
    <Table.Tr data-closed={!active || undefined}>
      <Table.Th scope="row" fw={650}>
        {name}
        <div className="muted">{person.email}</div>
        {failed ? (
          <Text size="sm" c="var(--danger)" role="alert">
            {errorText(failed)}
          </Text>
        ) : null}
      </Table.Th>
      <Table.Td>
        <Select
          size="xs"
          aria-label={`Role of ${name}`}
          allowDeselect={false}
          disabled={isLoading}
          w={130}
          title={ROLE_TEXT[role]}
          data={ROLE_DATA.map(({ value }) => ({ value, label: value.replace('-', ' ') }))}
          value={role}
          onChange={(next) => next && put({ role: next as Role })}
        />
      </Table.Td>
      <Table.Td>
        {person.lastSignIn
          ? timeText(person.lastSignIn)
          : person.joined
            ? 'not yet'
            : person.linkUntil
              ? `invited, link until ${timeText(person.linkUntil)}`
              : 'invited, link has run out'}
      </Table.Td>
      <Table.Td>
        <Switch
          label={active ? 'open' : 'closed'}
          aria-label={`Account of ${name} open`}
          checked={active}
          disabled={isLoading}
          onChange={(event) => put({ active: event.currentTarget.checked })}
        />
      </Table.Td>
      <Table.Td>
        <Button
          size="compact-sm"
          variant="light"
          disabled={!active}
          loading={making.isLoading}
          onClick={() =>
            void makeLink(id)
              .unwrap()
              .then(onLink, () => undefined)
          }
        >
          {person.joined ? 'Reset by link' : 'New link'}
        </Button>
      </Table.Td>
    </Table.Tr>
  );
}

function PracticeForm({ practice }: { practice: PracticeRow }) {
  const [save, { isLoading, error, isSuccess }] = useChangePracticeMutation();
  const { name, timeZone, seasonStarts } = practice;
  const { form, done, ...before } = useKeptForm('practice', 'The practice', {
    initialValues: { name, timeZone, seasonStarts },
    validate: zod4Resolver(practiceFieldsSchema),
  });
  return (
    <form
      noValidate
      onSubmit={form.onSubmit((values) =>
        save({ ...values, version: practice.version })
          .unwrap()
          .then(done, () => undefined),
      )}
    >
      <RestoredNote {...before} />
      <Group align="flex-start" gap="xs">
        <TextInput label="Name" w={320} {...form.getInputProps('name')} />
        <Select
          label="Time zone (decides what today is)"
          w={260}
          searchable
          allowDeselect={false}
          data={['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')]}
          {...form.getInputProps('timeZone')}
        />
        <TextInput
          label="Season starts (month-day)"
          w={200}
          placeholder="10-01"
          {...form.getInputProps('seasonStarts')}
        />
        <Button type="submit" variant="light" loading={isLoading} mt={25}>
          Save practice
        </Button>
      </Group>
      <Refusal error={error} mt={6} />
      {isSuccess ? (
        <Text size="sm" role="status">
          Saved.
        </Text>
      ) : null}
    </form>
  );
}

/** The practice and its people: name, time zone, season; accounts, roles, invitations by one-time link. */
export function PracticePage() {
  const { data: people, error } = usePeopleQuery();
  const { data: practice, error: unread } = usePracticeQuery();
  const [link, setLink] = useState<OneTimeLink | null>(null);
  return (
    <div className={classes.page}>
      <Title order={1} size={26}>
        Practice
      </Title>
      <section className={`card ${classes.panel}`}>
        {practice ? (
          <PracticeForm key={practice.version} practice={practice} />
        ) : unread ? (
          <Refusal error={unread} />
        ) : (
          <Loader />
        )}
      </section>
      <Title order={2} size={20}>
        People
      </Title>
      {link ? <LinkNote link={link} onClose={() => setLink(null)} /> : null}
      <section className={`card ${classes.panel}`}>
        <Invite onLink={setLink} />
      </section>
      <Refusal error={error} />
      <Table.ScrollContainer minWidth={820} className="card">
        <Table verticalSpacing={6} fz="sm" aria-label="People">
          <Table.Thead>
            <Table.Tr>
              {['Name', 'Role', 'Last sign-in', 'Account', 'Password'].map((heading) => (
                <Table.Th key={heading}>{heading}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {(people ?? []).map((person) => (
              <Person key={person.id} person={person} onLink={setLink} />
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      <Text size="sm" c="var(--muted)">
        A new role or a closed account ends its sessions at once. What a person did stays on record under
        their name.
      </Text>
    </div>
  );
}
