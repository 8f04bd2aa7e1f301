/** Reads a typed number; a comma counts as the decimal point. Null for empty or unreadable text. */
export function readNumber(text: string): number | null {
  const trimmed = text.trim().replace(',', '.').replace('−', '-');
  if (trimmed === '' || !/^-?\d*\.?\d+$|^-?\d+\.$/.test(trimmed)) return null;
  return Number(trimmed);
}
