/** Text that is read piece by piece: what one rule has read is not read again, and a comma stands in its place. */
export class Reader {
  rest: string;
  constructor(text: string) {
    this.rest = text;
  }
  /** What a pattern finds first, taken out; null where it finds nothing. */
  take(pattern: RegExp): RegExpExecArray | null {
    const found = pattern.exec(this.rest);
    if (!found) return null;
    this.rest = `${this.rest.slice(0, found.index)} , ${this.rest.slice(found.index + found[0].length)}`;
    return found;
  }
}

/** A number within bounds, whole. */
export function clamp(value: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, Math.round(value)));
}

/** Words without the marks, empty brackets and fillers that reading left between them. */
export function tidy(text: string): string {
  return text
    .replace(/["*☐☑✓□]/g, ' ')
    .replace(/\([\s,;:]*\)|\[[\s,;:]*\]/g, ' ')
    .replace(/\(([\s,;:]+)/g, '(')
    .replace(/[\s,;:]+\)/g, ')')
    .replace(/\s+/g, ' ')
    .replace(/(?:^|\s)(?:[,;.:/+&@=-]+\s*)+(?=\s|$)/g, ' , ')
    .replace(/\s*,(?:\s*,)+/g, ' ,')
    .replace(/(?:^|,)\s*(?:with|w\/|mit|and|und|at|for|x|of|à|then|je)\s*(?=,|$)/gi, ',')
    .replace(/\s*,(?:\s*,)+/g, ' ,')
    .replace(/^[\s,;:.–/+&-]+|[\s,;:.–/+&-]+$/g, '')
    .replace(/\s+,/g, ',')
    .replace(/\s+/g, ' ')
    .trim();
}
