import { Button, Group, Text } from '@mantine/core';
import type { Restored } from './useKept.ts';

/** Says that what is shown was typed earlier and not saved, with the way to throw it away. */
export function RestoredNote({ restored, discard }: Restored) {
  if (!restored) return null;
  return (
    <Group gap="xs" role="status" my={4}>
      <Text size="sm">Typed earlier and not saved: it is back.</Text>
      <Button size="compact-xs" variant="light" color="gray" onClick={discard}>
        Throw it away
      </Button>
    </Group>
  );
}
