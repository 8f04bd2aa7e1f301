import { afterAll, beforeAll, expect, it } from 'vitest';
import { z } from 'zod';
import { isoDaySchema, speakPlainly } from './index.ts';

const own = z.config().customError;
beforeAll(speakPlainly);
afterAll(() => void z.config({ customError: own }));

const fault = (schema: z.ZodType, value: unknown) => schema.safeParse(value).error?.issues[0]?.message;

it.each([
  [z.number(), undefined, 'this is needed'],
  [z.number(), null, 'this is needed'],
  [z.number(), 'seven', 'write a number'],
  [z.number().max(120), 121, '120 or less'],
  [z.number().min(0), -1, '0 or more'],
  [z.number().gt(0), 0, 'more than 0'],
  [z.string().min(1), '', 'this is needed'],
  [z.string().min(3), 'ab', 'at least 3 characters'],
  [z.string().max(2), 'abc', 'at most 2 characters'],
  [z.array(z.string()).min(1), [], 'at least one is needed'],
  [z.enum(['left', 'right']), 'up', 'choose one of left, right'],
  [z.int(), 1.5, 'this should be int'],
  [z.email(), 'nobody', 'write an e-mail address such as name@example.org'],
])('%#: a fault is said in words', (schema, value, words) => {
  expect(fault(schema, value)).toBe(words);
});

it('no fault of a day speaks of a library', () => {
  for (const value of ['', '2027-02-30', 'soon', '0001-01-01', '9999-12-31'])
    expect(fault(isoDaySchema, value)).not.toMatch(/invalid|expected|ISO/i);
});
