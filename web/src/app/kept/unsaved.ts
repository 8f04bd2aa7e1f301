/** Something typed on the page that is not with the server yet. */
interface Unsaved {
  /** What it is, in words: "About Mira Oldtown". */
  readonly label: string;
  /** Throws it away. */
  readonly discard: () => void;
}

/** Everything typed on the pages shown that is not stored, by its key; the guard asks about it before a page is left. */
export const unsaved = new Map<string, Unsaved>();
