import { Button, Chip, Group, Popover, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useKeptState } from '../../app/kept/useKept.ts';

/** What practitioners say most when they leave something as it is. */
export const USUAL_REASONS = [
  'seen today',
  'agreed with the coach',
  'part of the plan',
  'used to it',
] as const;

interface Props {
  /** The note that is left as it is, in words. */
  note: string;
  /** Where what is typed is kept until it is said. */
  keptAs: string;
  /** It is left so, and why. */
  onLeave: (why: string) => void;
}

/** Leaves a note as it is; it is remembered with who said so and why. */
export function LeaveIt({ note, keptAs, onLeave }: Props) {
  const [open, setOpen] = useState(false);
  const { value: why, set: setWhy, done } = useKeptState(`leave/${keptAs}`, `Why it is left so: ${note}`, '');
  const short = why.trim().length < 3;
  return (
    <Popover opened={open} onChange={setOpen} width={300} position="bottom-start" withArrow trapFocus>
      <Popover.Target>
        <Button
          size="compact-xs"
          variant="subtle"
          aria-label={`Leave it so: ${note}`}
          onClick={() => setOpen((now) => !now)}
        >
          Leave it so
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (short) return;
            setOpen(false);
            onLeave(why.trim());
            done();
          }}
        >
          <TextInput
            size="xs"
            label="Left as it is, because"
            placeholder="Why all the same?"
            value={why}
            maxLength={500}
            onChange={({ currentTarget }) => setWhy(currentTarget.value)}
          />
          <Chip.Group value={why} onChange={(next) => setWhy(String(next))}>
            <Group gap={4} mt={6}>
              {USUAL_REASONS.map((reason) => (
                <Chip key={reason} value={reason} size="xs">
                  {reason}
                </Chip>
              ))}
            </Group>
          </Chip.Group>
          <Button type="submit" size="xs" mt={8} fullWidth disabled={short}>
            Leave it so
          </Button>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
