import { Textarea, TextInput } from '@mantine/core';
import type { TextInputProps } from '@mantine/core';
import { useState } from 'react';
import type { ChangeEvent } from 'react';

interface Props extends Pick<TextInputProps, 'w' | 'style' | 'variant' | 'className' | 'placeholder'> {
  /** What is said here, for those who do not see it. */
  label: string;
  /** The words as they stand; undefined where none are said. */
  value: string | undefined;
  /** Most characters. */
  most: number;
  /** Something has to be said: an emptied field says nothing until something is typed, and is as before when it is left. */
  needed?: boolean;
  /** Grows with its lines. */
  grows?: boolean;
  /** Other words; undefined when they are taken away. */
  onSay: (words: string | undefined) => void;
}

/** A few words, said with every key. */
export function WordsInput({ label, value, most, needed = false, grows = false, onSay, ...rest }: Props) {
  const [emptied, setEmptied] = useState(false);
  const type = ({ currentTarget }: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
    const said = currentTarget.value.trim() === '' ? undefined : currentTarget.value;
    setEmptied(needed && said === undefined);
    if (said !== undefined || !needed) onSay(said);
  };
  const field = {
    size: 'xs' as const,
    'aria-label': label,
    maxLength: most,
    value: emptied ? '' : (value ?? ''),
    onChange: type,
    onBlur: () => setEmptied(false),
    ...rest,
  };
  return grows ? <Textarea autosize minRows={1} {...field} /> : <TextInput {...field} />;
}
