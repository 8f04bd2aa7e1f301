import { z } from 'zod';

type Issue = z.core.$ZodRawIssue;

const shown = (value: unknown) => (typeof value === 'bigint' ? String(value) : value);

/** A fault of a value in words that say what would be right; undefined where the library's own words will do. */
function wordsOf(issue: Issue): string | undefined {
  const raw = issue as Record<string, unknown>;
  switch (issue.code) {
    case 'invalid_type':
      if (raw.input === undefined || raw.input === null || raw.input === '') return 'this is needed';
      return raw.expected === 'number' ? 'write a number' : `this should be ${String(raw.expected)}`;
    case 'too_small': {
      const least = shown(raw.minimum);
      if (raw.origin === 'string')
        return Number(least) <= 1 ? 'this is needed' : `at least ${least} characters`;
      if (raw.origin === 'array')
        return Number(least) <= 1 ? 'at least one is needed' : `at least ${least} are needed`;
      return raw.inclusive === false ? `more than ${least}` : `${least} or more`;
    }
    case 'too_big': {
      const most = shown(raw.maximum);
      if (raw.origin === 'string') return `at most ${most} characters`;
      if (raw.origin === 'array') return `at most ${most}`;
      return raw.inclusive === false ? `less than ${most}` : `${most} or less`;
    }
    case 'invalid_format':
      if (raw.format === 'email') return 'write an e-mail address such as name@example.org';
      if (raw.format === 'date') return 'write a day such as 14 Mar 2027';
      return undefined;
    case 'invalid_value':
      return Array.isArray(raw.values) && raw.values.length <= 8
        ? `choose one of ${raw.values.join(', ')}`
        : 'choose one of the list';
    case 'not_multiple_of':
      return 'write a whole number';
    default:
      return undefined;
  }
}

/** Makes every schema say what is wrong in plain words; called once where a program starts. */
export function speakPlainly(): void {
  z.config({ customError: wordsOf });
}
