import { circuitText, duration, lineAmount, lineName, OCCASION_LABEL, sideText } from '@yonder/core/words';
import { numbersOf, timesText } from './input.ts';
import type { HandoutInput } from './input.ts';
import { INK, MUTED, pdfOf, TEAL } from './pdf.ts';
import { picturesOf } from './pictures.ts';

/** A card for the pocket, A6: the lines with their doses, and when to stop. */
export async function createCard(input: HandoutInput): Promise<Buffer> {
  const numbers = numbersOf(input.items);
  const pictures = picturesOf(input.drills, input.items);
  const lines = input.items.map((item, i) => {
    const drill = input.drills.get(item.drill);
    const begins = item.circuit && input.items[i - 1]?.circuit?.id !== item.circuit.id;
    const dose = [lineAmount(item), drill ? sideText(drill, item) : ''].filter(Boolean).join(' ');
    return {
      unbreakable: true,
      margin: [0, 0, 0, 3],
      stack: [
        ...(begins && item.circuit
          ? [{ text: circuitText(item.circuit), fontSize: 7.5, color: TEAL, bold: true }]
          : []),
        {
          columns: [
            { width: 14, text: String(numbers[i] ?? ''), bold: true, color: TEAL, margin: [0, 6, 0, 0] },
            { width: 28, ...pictures(item, 26) },
            { width: '*', text: lineName(input, item), margin: [4, 6, 0, 0] },
            {
              width: 'auto',
              text: dose.replaceAll(/(\d) s\b/g, '$1\u00a0s'),
              bold: true,
              alignment: 'right',
              margin: [6, 6, 0, 0],
            },
          ],
        },
      ],
    };
  });
  const limit =
    input.stopAbove > 0 ? `if it hurts more than ${input.stopAbove} out of 10` : 'if it hurts at all';
  const document = {
    pageSize: 'A6',
    pageMargins: [20, 18, 20, 34],
    info: { title: `Card ${input.number}`, creator: 'Yonder Ridge' },
    defaultStyle: { font: 'body', color: INK, fontSize: 9, lineHeight: 1.1 },
    content: [
      {
        text: `${OCCASION_LABEL[input.occasion]}, ${duration(input.totalSeconds)}`,
        font: 'heading',
        fontSize: 13,
      },
      {
        text: `${input.athlete} · ${timesText(input)} · version ${input.number}`,
        fontSize: 7.5,
        color: MUTED,
        margin: [0, 1, 0, 6],
      },
      ...lines,
      ...input.precautions.map((text) => ({ text, fontSize: 7.5, bold: true, margin: [0, 3, 0, 0] })),
    ],
    footer: () => ({
      margin: [20, 2, 20, 0],
      fontSize: 7,
      color: MUTED,
      text: `Stop a drill ${limit}, and say so. Questions: ${input.issuedBy}, ${input.practice}.`,
    }),
  };
  return pdfOf(document);
}
