import { Button, Table, Text } from '@mantine/core';
import type { SideBySide } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { routineSeconds } from '@yonder/core/dose';
import { duration, lineName, nameOf, number, reasonText, SIDE_LABEL, withSide } from '@yonder/core/words';
import { useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { Dialog } from '../../components/Dialog.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import classes from './Compose.module.css';
import { useEdit } from './useEdit.ts';

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** The record and what was asked for. */
  asked: Asked;
  /** Something was done that is worth saying. */
  onNote: (note: string) => void;
}

/** Seconds from which the time that is left is worth filling. */
const WORTH_FILLING = 30;

/** Lets the engine fill the minutes that are left around what stands, and says what came in. */
export function CompleteIt({
  draft,
  asked,
  minutes,
  onNote,
}: Props & { /** Minutes there are. */ minutes: number }) {
  const reference = useReference();
  const edit = useEdit();
  const [busy, setBusy] = useState(false);
  const left = minutes * 60 - routineSeconds(reference, draft.items);
  const { subject, request } = asked;
  const complete = () => {
    setBusy(true);
    compute
      .call('complete', subject, { request, items: draft.items })
      .then(({ items, added }) => {
        if (added.length === 0) {
          onNote('Nothing that is allowed fits into the time that is left.');
          return;
        }
        edit.change(items);
        const names = added.map(({ drill, side, seconds }) => {
          const where = side === 'left' || side === 'right' ? ` ${SIDE_LABEL[side]}` : '';
          return `${nameOf(reference, drill)}${where} (${duration(seconds)})`;
        });
        onNote(`Added: ${names.join('; ')}. What stood there is as it was.`);
      })
      .catch(() => onNote('It could not be completed. Press again.'))
      .finally(() => setBusy(false));
  };
  return (
    <Button
      variant="light"
      size="xs"
      h={34}
      loading={busy}
      disabled={left < WORTH_FILLING}
      title={left < WORTH_FILLING ? 'The time is used' : 'Fills the time that is left; what stands stays'}
      onClick={complete}
    >
      Complete it{left >= WORTH_FILLING ? ` ${duration(left)}` : ''}
    </Button>
  );
}

function Places({ places }: { places: readonly number[] }) {
  return places.length === 0 ? (
    <span className="muted">not answered</span>
  ) : (
    <>by {places.map((place) => place + 1).join(', ')}</>
  );
}

/** This list beside what would have been built for the same minutes, kit and limits. */
function Beside({ answer, draft }: { answer: SideBySide; draft: Draft }) {
  const reference = useReference();
  const { own, built, findings } = answer;
  const share = built && built.benefit > 0 ? own.benefit / built.benefit : null;
  const name = (one: { restriction: string; side: 'left' | 'right' | 'central' }) =>
    withSide(nameOf(reference, one.restriction), one.side);
  return (
    <>
      <Text size="sm" mb="sm">
        {built === null
          ? 'Nothing can be built for this request; only your own list is shown.'
          : share === null
            ? 'Nothing is weighted today: neither list has a benefit to compare.'
            : share >= 0.995
              ? `Your list does as much for what is short as what would be built, in ${duration(own.seconds)}.`
              : `Your list does ${number(share * 100, 0)} % of what would be built for what is short, in ${duration(own.seconds)} against ${duration(built.seconds)}. The benefit counts what is measured and told, by the drills’ own matches; what a coach’s part or own words do, it cannot know.`}
      </Text>
      <div className={classes.beside}>
        <Table aria-label="Findings side by side" verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Finding</Table.Th>
              <Table.Th>Your list</Table.Th>
              <Table.Th>Would be built</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {findings.map((one) => (
              <Table.Tr key={`${one.restriction}/${one.side}`}>
                <Table.Td>{name(one)}</Table.Td>
                <Table.Td>
                  <Places places={one.own} />
                </Table.Td>
                <Table.Td>
                  <Places places={one.built} />
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
      {own.unserved.length > 0 ? (
        <>
          <Text fw={650} size="sm" mt="sm">
            Not answered by your list
          </Text>
          <ul className={classes.plainList}>
            {own.unserved.map((one) => (
              <li key={`${one.restriction}/${one.side}`}>
                {name(one)}: {reasonText(reference, one.because)}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <div className={classes.two}>
        {[
          { title: `Your list, ${duration(own.seconds)}`, items: draft.items },
          { title: built ? `Would be built, ${duration(built.seconds)}` : '', items: built?.items ?? [] },
        ].map(({ title, items }) => (
          <div key={title}>
            <Text fw={650} size="sm">
              {title}
            </Text>
            <ol className={classes.plainList}>
              {items.map((item, i) => (
                <li key={`${item.drill}/${i}`}>{lineName(reference, item)}</li>
              ))}
            </ol>
          </div>
        ))}
      </div>
    </>
  );
}

/** Lays the list beside what the engine would have built: findings answered and not, and the difference in benefit. */
export function CheckIt({ draft, asked, onNote }: Props) {
  const [answer, setAnswer] = useState<SideBySide | null>(null);
  const [busy, setBusy] = useState(false);
  const { subject, request } = asked;
  const check = () => {
    setBusy(true);
    compute
      .call('sideBySide', subject, { request, items: draft.items })
      .then(setAnswer)
      .catch(() => onNote('It could not be checked. Press again.'))
      .finally(() => setBusy(false));
  };
  return (
    <>
      <Button
        variant="default"
        size="xs"
        h={34}
        loading={busy}
        disabled={draft.items.length === 0}
        onClick={check}
      >
        Check it
      </Button>
      {answer ? (
        <Dialog onClose={() => setAnswer(null)} title="Beside what would be built" size="xl">
          <Beside answer={answer} draft={draft} />
        </Dialog>
      ) : null}
    </>
  );
}
