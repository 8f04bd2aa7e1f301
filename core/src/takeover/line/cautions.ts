/** A line that warns or forbids: what it says is to be left out, and the pain it allows. */
export interface Caution {
  /** What is to be left out, in the words of the line; empty where it only says when to stop. */
  readonly avoid: string;
  /** Most pain that it allows, 0-10; null where it names none. */
  readonly painLimit: number | null;
}

const FORBIDS =
  /^\W*(?:(?:please|bitte|heute|today|this week|diese woche|for now|strictly|absolutely)[\s,:]+)?(no|not|never|avoid|avoiding|don'?t|do not|dont|leave out|omit|without|w\/o|kein(?:e[nmrs]?)?|nicht|nie|niemals|ohne|vermeide\w*|verboten|nix|nichts)\b\s*:?\s*(.*)$/i;
const WARNS =
  /^\W*(?:nb\b|n\.b\.?|caution|careful|be careful|warning|attention|watch(?: out)?\b|stop(?:p)?\b(?!\s*(?:watch|sign))|stoppen|abbruch|abbrechen|vorsicht|achtung|cave|important|wichtig|only if|nur wenn)/i;
const CONDITIONAL = /^\W*(?:if|wenn|falls|bei)\b/i;
const PAIN = /\b(?:pain|painful|schmerz\w*|hurts?|wehtut|weh|vas|nrs|sting\w*|numb\w*|taub\w*)\b/i;
const LIMIT =
  /(?:pain|schmerz\w*|vas|nrs)\D{0,24}?(?:[≤<>≥=]|max\.?|under|below|above|over|unter|über|ueber|bis|up to|more than|not more than|at|of|stays?|nicht über)*\s*(\d{1,2})(?:\s*\/\s*10)?/i;
const LIMIT_BEFORE = /(?:max\.?|≤|<|>|under|up to|bis)\s*(\d{1,2})\s*(?:\/\s*10)?\s*(?:pain|schmerz\w*)/i;
/** Names that begin like a warning and are none. */
const NAMES = /^\W*(?:no[ -]?money|no[ -]?hands?\b|not for time|watch the ball|stop and go|stop[ -]?start)/i;
const DOSED = /\d\s*x\s*\d|\d\s*(?:ea|each|reps?|wdh)\b/i;

/** Most pain, 0-10, that a text allows; null where it names none. */
function painLimitOf(text: string): number | null {
  const found = LIMIT.exec(text) ?? LIMIT_BEFORE.exec(text);
  const limit = found ? Number(found[1]) : null;
  return limit !== null && limit <= 10 ? limit : null;
}

/** Reads a line that warns or forbids; null where it does neither. A drill with a warning beside it is a drill. */
export function readCaution(text: string): Caution | null {
  if (NAMES.test(text)) return null;
  const painLimit = painLimitOf(text);
  const forbids = FORBIDS.exec(text);
  if (forbids) {
    const avoid = (forbids[2] ?? '').replace(/[!.\s]+$/, '');
    return { avoid: PAIN.test(avoid) ? '' : avoid, painLimit };
  }
  // "nb: no jumps", "careful: avoid twisting": a warning that forbids.
  if (WARNS.test(text)) {
    const rest = text.replace(/^\W*[\p{L}.]+\W*/iu, '');
    const inner = FORBIDS.exec(FORBIDS.test(rest) ? rest : withoutNegated(rest).negated);
    return { avoid: inner ? (inner[2] ?? '').replace(/[!.\s]+$/, '') : '', painLimit };
  }
  const conditional =
    CONDITIONAL.test(text) &&
    /(stop|abbrech|aufh(?:ö|oe)r|skip|leave|weglassen|easier|leichter|hälfte|half|reduce|pause)/i.test(text);
  if (conditional) return { avoid: '', painLimit };
  const limited =
    PAIN.test(text) &&
    (painLimit !== null || /\b(?:stop|abbrechen|ok|okay|free|frei|max|allowed|erlaubt)\b/i.test(text));
  return limited &&
    !DOSED.test(text) &&
    /^\W*(?:max\.?\s|pain|schmerz|vas|nrs|all |alles |keep|everything|immer|always|work|\d)/i.test(text)
    ? { avoid: '', painLimit }
    : null;
}

/** Words of a line and what they say is not to be: "lunge, no weight" is a lunge, and no weight. */
export function withoutNegated(words: string): { words: string; negated: string } {
  if (NAMES.test(words)) return { words, negated: '' };
  const found =
    /^(.*?)[\s,;(/-]*\b((?:no|not|never|without|w\/o|avoid|don'?t|kein(?:e[nmrs]?)?|nicht|ohne|nie)\b.*)$/i.exec(
      words,
    );
  const front = (found?.[1] ?? '').trim();
  // "only if no pain" is said beside the drill as one.
  if (!found || front === '' || /\b(?:only|if|unless|when|nur|wenn|falls)$/i.test(front))
    return { words, negated: '' };
  return { words: found[1] ?? '', negated: (found[2] ?? '').replace(/[)\s]+$/, '') };
}
