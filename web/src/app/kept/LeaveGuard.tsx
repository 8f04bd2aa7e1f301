import { Button, Group, Text } from '@mantine/core';
import { Dialog } from '../../components/Dialog.tsx';
import { useEffect } from 'react';
import { useBlocker } from 'react-router';
import { unsaved } from './unsaved.ts';

/** Asks before a page is left on which something typed is not saved: stay, leave and keep it, or throw it away. */
export function LeaveGuard() {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      unsaved.size > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  const open = [...unsaved.values()];
  // What was being saved while the page was left is saved by now: nothing is asked about nothing.
  const settled = blocker.state === 'blocked' && open.length === 0;
  useEffect(() => {
    if (settled) blocker.proceed();
  }, [settled, blocker]);
  if (blocker.state !== 'blocked' || settled) return null;
  return (
    <Dialog onClose={() => blocker.reset()} title="Not saved yet">
      <Text>
        {open.map(({ label }) => label).join(', ')}: typed and not saved. It is kept on this device and will
        be there when you come back.
      </Text>
      <Group mt="md" justify="flex-end">
        <Button
          variant="subtle"
          color="red"
          onClick={() => {
            for (const { discard } of open) discard();
            blocker.proceed();
          }}
        >
          Leave and throw it away
        </Button>
        <Button variant="default" onClick={() => blocker.proceed()}>
          Leave, keep it
        </Button>
        <Button data-autofocus onClick={() => blocker.reset()}>
          Stay
        </Button>
      </Group>
    </Dialog>
  );
}
