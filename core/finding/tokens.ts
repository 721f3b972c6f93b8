/** A token of a text and where it stands in it (UTF-16 offsets). */
export interface Token {
  text: string;
  start: number;
  end: number;
}

const LETTERS: Record<string, string> = { ß: 'ss', œ: 'oe', æ: 'ae', ø: 'o', ł: 'l', đ: 'd', ﬁ: 'fi', ﬂ: 'fl' };
/** What needs nothing but small letters. */
const PLAIN = /^[a-z0-9]+$/i;
/** No word is longer; more of what pretends to be one is not searched. */
const LONGEST_TOKEN = 120;
const TOKEN = /\d+(?:[.,'’]\d+)*|[\p{L}\p{M}\p{N}]+/gu;

/**
 * The words and numbers of a text as they are searched: lower case, without accents, ß as ss; a number without its
 * thousands separators and with a point before its decimals, so that 1.234,50 and 1,234.50 are found by either.
 */
export function tokenise(text: string): Token[] {
  return [...text.matchAll(TOKEN)].flatMap((match) => {
    const folded = foldToken(match[0]).slice(0, LONGEST_TOKEN);
    // A mark that stands by itself, as an accent without its letter, is nothing.
    return folded ? { text: folded, start: match.index, end: match.index + match[0].length } : [];
  });
}

function foldToken(text: string): string {
  if (PLAIN.test(text)) return text.toLowerCase();
  if (/^\d/.test(text) && /[.,'’]/.test(text)) return foldNumber(text);
  return (
    text
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[ßœæøłđﬁﬂ]/g, (letter) => LETTERS[letter])
      // Some letters have marks only once they are small, and some turn into signs.
      .replace(/[^\p{L}\p{N}]/gu, '')
  );
}

function foldNumber(text: string): string {
  const decimals = /[.,](\d{1,2})$/.exec(text);
  const whole = decimals ? text.slice(0, decimals.index) : text;
  return whole.replace(/\D/g, '') + (decimals ? `.${decimals[1]}` : '');
}

/** What may be a group of a longer number: figures, or a few letters and figures. */
const GROUP = /^(?=[a-z]{0,4}\d)[a-z\d]{1,8}$/;
/** Numbers of more groups, or longer ones, are none. */
const [MOST_GROUPS, LONGEST_NUMBER, SHORTEST_NUMBER] = [9, 34, 5];
/** Groups of a number stand no further apart than so many heights of a word. */
const NEAR = 1;

/** Whether a token may be a group of a longer number. */
export function isGroup(token: string): boolean {
  return GROUP.test(token);
}

/** What stands behind a word that is divided at a line's end, and before it. */
const DIVIDED = /^\P{L}*(\p{L}+)[-\u00ad\u2010]$/u;
const ITS_REST = /^(\p{Ll}+)/u;

/** The word that is divided between two that follow each other, the second one in another line; undefined where none is. */
function undivided(
  first: { text: string; line?: number },
  second: { text: string; line?: number },
): string | undefined {
  if (first.line !== undefined && first.line === second.line) return undefined;
  const [begin, end] = [DIVIDED.exec(first.text), ITS_REST.exec(second.text)];
  return begin && end ? begin[1] + end[1] : undefined;
}

/**
 * All tokens under which a page's words are found, each once: those of the words, those divided at a line's end whole as well, and
 * numbers written in groups as one as well, so that 77 120 is found as 77120.
 */
export function pageTokens(
  words: readonly { text: string; box: readonly [number, number, number, number]; line: number }[],
): string[] {
  const found = new Set<string>();
  let run: string[] = [];
  words.forEach(({ text, box: [x, , , height], line }, at) => {
    const before = words[at - 1];
    const whole = before && undivided(before, words[at]);
    if (whole) found.add(foldToken(whole));
    const follows = before && before.line === line && x - before.box[0] - before.box[2] <= NEAR * height;
    if (!follows) run = [];
    for (const { text: token } of tokenise(text)) {
      found.add(token);
      run = isGroup(token) ? [...run, token].slice(-MOST_GROUPS) : [];
      for (let from = 0; from < run.length - 1; from++) {
        const number = run.slice(from).join('');
        if (number.length >= SHORTEST_NUMBER && number.length <= LONGEST_NUMBER) found.add(number);
      }
    }
  });
  return [...found];
}

/** One thing looked for: any of its forms matches a token; `prefix` lets longer words match that begin with the first form. */
export interface Term {
  forms: string[];
  prefix: boolean;
}

/** Whether a token of a text is one that a term looks for. */
export function matches(term: Term, token: string): boolean {
  return term.forms.includes(token) || (term.prefix && token.startsWith(term.forms[0]));
}

/** The tokens of words in a row, each with the number of its word. */
export function wordTokens(words: { text: string }[]): { token: string; word: number }[] {
  const tokens: { token: string; word: number }[] = [];
  words.forEach(({ text }, word) => {
    if (text.length <= LONGEST_TOKEN && PLAIN.test(text)) tokens.push({ token: text.toLowerCase(), word });
    else for (const token of tokenise(text)) tokens.push({ token: token.text, word });
  });
  return tokens;
}

/**
 * The numbers of the words that hold a match, in order. Each term counts for itself; words follow each other only when the
 * query put them in quotes, which `phrases` says: each phrase is a row of terms.
 */
export function findHits(words: { text: string; line?: number }[], phrases: Term[][]): number[][] {
  const tokens = wordTokens(words);
  /** Whether a word divided at a line's end begins with this token that fits a term. */
  const isDivided = ([term]: Term[], at: number): boolean => {
    const [{ word }, next] = [tokens[at], tokens[at + 1]];
    if (next?.word !== word + 1) return false;
    const whole = undivided(words[word], words[word + 1]);
    return whole !== undefined && matches(term, foldToken(whole));
  };
  const hits: number[][] = [];
  /** How many tokens from here on are the groups of a number that is looked for as one; 0 when they aren't. */
  const groupsOf = ([{ forms }]: Term[], at: number): number => {
    const [number] = forms;
    let joined = '';
    for (let next = at; joined.length < number.length && next < tokens.length; next++) {
      if (!isGroup(tokens[next].token)) return 0;
      joined += tokens[next].token;
      if (joined === number) return next - at + 1;
    }
    return 0;
  };
  for (let at = 0; at < tokens.length; at++) {
    for (const phrase of phrases) {
      const fits = phrase.every((term, step) => at + step < tokens.length && matches(term, tokens[at + step].token));
      const single = phrase.length === 1;
      const length = fits ? phrase.length : single && isDivided(phrase, at) ? 2 : single ? groupsOf(phrase, at) : 0;
      if (length === 0) continue;
      const found = [...new Set(tokens.slice(at, at + length).map(({ word }) => word))];
      const previous = hits[hits.length - 1];
      if (!previous || previous[previous.length - 1] < found[0]) hits.push(found);
      break;
    }
  }
  return hits;
}
