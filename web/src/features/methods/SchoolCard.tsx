import { Badge, Button, Group, Radio, TextInput, Title } from '@mantine/core';
import type { ChoiceRow, Methods } from '@yonder/core/contracts';
import type { School } from '@yonder/core/reference';
import { Locked } from '../../app/Allowed.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useLook } from '../../app/useLook.ts';
import { dayText } from '../../app/today.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { Effect } from './Effect.tsx';
import {
  useChooseMethodMutation,
  useEndMethodMutation,
  usePreviewMethodMutation,
} from './methodEndpoints.ts';
import type { MethodOwner } from './methodEndpoints.ts';
import { standingOf } from './standing.ts';
import type { SchoolStanding } from './standing.ts';
import classes from './Methods.module.css';

const LEVEL_WORD = {
  default: 'default',
  practice: 'the practice’s choice',
  athlete: 'for this athlete',
} as const;

/** "Chosen by R. Halloran on 3 March 2027: match days need it". */
function saidText({ by, date, reason }: ChoiceRow): string {
  return `Chosen by ${by} on ${dayText(date)}: ${reason}`;
}

function labelOf(school: School, option: string): string {
  return school.options.find(({ id }) => id === option)?.label ?? option;
}

function History({ school, rows }: { school: School; rows: readonly ChoiceRow[] }) {
  if (rows.length === 0) return null;
  return (
    <details className={classes.history}>
      <summary>Earlier choices ({rows.length})</summary>
      <ul>
        {rows.map((row) => (
          <li key={row.id}>
            {labelOf(school, row.option)}. {saidText(row)};{' '}
            {row.ended
              ? `${row.ended.reason === null ? 'replaced' : 'taken back'} on ${dayText(row.ended.date)} by ${row.ended.by}${row.ended.reason === null ? '' : `: ${row.ended.reason}`}`
              : ''}
          </li>
        ))}
      </ul>
    </details>
  );
}

interface Props {
  /** The question. */
  school: School;
  /** Everything chosen. */
  methods: Methods;
  /** The athlete it is chosen for, or the practice (null). */
  owner: MethodOwner;
}

interface Typed {
  /** The option picked; null while it is the one in force. */
  readonly option: string | null;
  readonly reason: string;
}
const NOTHING: Typed = { option: null, reason: '' };

/** What follows from a picked option: whose routine would change, why it is chosen, and saving it. */
function Choosing({
  school,
  owner,
  typed,
  onTyped,
  onDone,
  own,
  above,
}: {
  school: School;
  owner: MethodOwner;
  typed: Typed & { option: string };
  onTyped: (typed: Typed) => void;
  onDone: () => void;
  /** The choice of this level in force. */
  own: ChoiceRow | null;
  /** What holds without a choice of this level. */
  above: SchoolStanding;
}) {
  const [ask] = usePreviewMethodMutation();
  const { look, start, stop } = useLook((option: string | null, from) =>
    ask({ school: school.id, option, athleteId: owner, from }).unwrap(),
  );
  const [choose, choosing] = useChooseMethodMutation();
  const [end, ending] = useEndMethodMutation();
  // Back to what holds anyway: the own choice is taken back, instead of saying the same once more.
  const back = own !== null && typed.option === above.option;
  const save = () => {
    const said = back
      ? end({ owner, id: own.id, body: { reason: typed.reason, version: own.version } })
      : choose({
          owner,
          body: { school: school.id, option: typed.option, reason: typed.reason, replaces: own?.id ?? null },
        });
    void said.unwrap().then(onDone, () => undefined); // shown below
  };
  const of = owner === null ? 'for the practice' : 'for this athlete';
  return (
    <div className={classes.choosing}>
      <Group align="flex-end" gap="xs">
        <TextInput
          size="xs"
          label={back ? `Why it goes back to ${LEVEL_WORD[above.level]}` : 'Why this one'}
          className={classes.reason}
          value={typed.reason}
          onChange={(e) => onTyped({ ...typed, reason: e.currentTarget.value })}
        />
        <Button
          size="xs"
          variant="default"
          disabled={look.kind === 'looking'}
          onClick={() => void start(back ? null : typed.option)}
        >
          Which routines would change?
        </Button>
        <Button
          size="xs"
          loading={choosing.isLoading || ending.isLoading}
          disabled={typed.reason.trim().length < 3}
          onClick={save}
        >
          {back ? `Take back ${of}` : `Choose ${of}`}
        </Button>
        <Button size="xs" variant="subtle" onClick={onDone}>
          Leave it
        </Button>
      </Group>
      <Refusal error={choosing.error ?? ending.error} mt={6} />
      <Effect look={look} onStop={stop} />
    </div>
  );
}

/** One question on which practitioners differ: its options side by side, what each does, what holds, and who chose it. */
export function SchoolCard({ school, methods, owner }: Props) {
  const {
    value: typed,
    set,
    restored,
    discard,
  } = useKeptState<Typed>(`method/${owner ?? 'practice'}/${school.id}`, school.question, NOTHING);
  const { now, ofPractice, own } = standingOf(school, methods);
  const level = owner === null ? methods.practice : methods.athlete;
  const inForce = owner === null ? (now.level === 'practice' ? now.choice : null) : own;
  const defaults: SchoolStanding = { option: school.default, level: 'default', choice: null };
  const ended = level.filter((row) => row.school === school.id && row.ended !== null);
  const picked = typed.option ?? now.option;
  return (
    <section className={`card ${classes.school}`} aria-labelledby={`school-${school.id}`}>
      <div className={classes.head}>
        <Title order={2} size={17} id={`school-${school.id}`}>
          {school.question}
        </Title>
        <Badge variant={now.level === 'default' ? 'default' : 'light'} tt="none" fw={600}>
          {LEVEL_WORD[now.level]}
        </Badge>
      </div>
      <RestoredNote restored={restored} discard={discard} />
      <Locked least={owner === null ? 'owner' : 'clinician'}>
        <Radio.Group
          aria-labelledby={`school-${school.id}`}
          value={picked}
          onChange={(option) => set({ ...typed, option: option === now.option ? null : option })}
        >
          <div className={classes.options}>
            {school.options.map((option) => (
              <Radio.Card
                key={option.id}
                value={option.id}
                className={classes.option}
                data-holds={option.id === now.option || undefined}
                aria-label={option.label}
              >
                <span className={classes.label}>
                  <Radio.Indicator size="xs" />
                  <b>{option.label}</b>
                </span>
                <span className={classes.because}>{option.reasoning}</span>
                <span className={classes.does}>
                  <i>In routines:</i> {option.plannerConsequence}
                </span>
              </Radio.Card>
            ))}
          </div>
        </Radio.Group>
        {typed.option !== null && typed.option !== now.option ? (
          <Choosing
            key={typed.option}
            school={school}
            owner={owner}
            typed={{ ...typed, option: typed.option }}
            onTyped={set}
            onDone={discard}
            own={inForce}
            above={owner === null ? defaults : ofPractice}
          />
        ) : null}
      </Locked>
      <p className={classes.said}>
        {now.choice ? `${saidText(now.choice)}. ` : ''}
        {now.level === 'athlete' ? `The practice: ${labelOf(school, ofPractice.option)}. ` : ''}
        {now.option === school.default ? '' : `Default: ${labelOf(school, school.default)}. `}
        Confidence of the default: {school.confidence}.
      </p>
      <History school={school} rows={ended} />
    </section>
  );
}
