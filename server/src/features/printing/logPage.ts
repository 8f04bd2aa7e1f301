import { PAUSE } from '@yonder/core/reference';
import { lineAmount, lineName, OCCASION_LABEL } from '@yonder/core/words';
import { numbersOf } from './input.ts';
import type { HandoutInput } from './input.ts';
import { MUTED } from './pdf.ts';

/** Sessions that fit across the log page. */
const LOG_COLUMNS = 10;
const LOG_HINT =
  'Tick what you did, or write how many. Pain and effort from 0 to 10; the morning after: better, same or worse.';

/** A page with a grid for the pen: a row a drill, a column a session, pain, effort and the morning after below. */
export function logPage(input: HandoutInput): object[] {
  const blank = Array.from({ length: LOG_COLUMNS }, () => ({ text: ' ' }));
  const row = (label: string, note: string) => [
    {
      stack: [
        { text: label, bold: true, fontSize: 9.5 },
        { text: note, fontSize: 8, color: MUTED },
      ],
    },
    ...blank,
  ];
  const numbers = numbersOf(input.items);
  const drills = input.items.flatMap((item, i) =>
    item.drill === PAUSE || item.amount === 0
      ? []
      : [row(`${numbers[i]}. ${lineName(input, item)}`, lineAmount(item))],
  );
  const body = [
    row('Date', ''),
    ...drills,
    row('Pain, most', '0 to 10'),
    row('Effort', '0 to 10'),
    row('The morning after', 'better, same, worse'),
  ];
  const line = () => '#9aa4a8';
  const thin = () => 0.6;
  return [
    {
      text: `Log: ${input.athlete}, ${OCCASION_LABEL[input.occasion].toLowerCase()}, version ${input.number}`,
      font: 'heading',
      fontSize: 17,
      pageBreak: 'before',
      pageOrientation: 'landscape',
      margin: [0, 0, 0, 4],
    },
    { text: LOG_HINT, fontSize: 10.5, color: MUTED, margin: [0, 0, 0, 8] },
    {
      table: {
        widths: [190, ...Array.from({ length: LOG_COLUMNS }, () => '*')],
        heights: Math.max(20, Math.min(34, Math.floor(330 / body.length))),
        body,
      },
      layout: { hLineColor: line, vLineColor: line, hLineWidth: thin, vLineWidth: thin },
    },
  ];
}
