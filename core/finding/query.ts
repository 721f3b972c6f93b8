import { tokenise } from './tokens';

/** What somebody typed into Find: rows of tokens, one token each unless several stood in quotes. */
export interface Query {
  phrases: string[][];
  /** Whether the last token may be the beginning of a longer word, as it is while typing. */
  open: boolean;
}

const MOST_PHRASES = 12;

/** Takes a typed query apart; words in double quotes (any country's) belong together, all parts must be on a page. */
export function parseQuery(typed: string): Query {
  const phrases: string[][] = [];
  for (const [, quoted, plain] of typed.matchAll(/["“„«]([^"“”„«»]*)["”“»]|([^"“„«]+)/g)) {
    const tokens = tokenise(quoted ?? plain).map((token) => token.text);
    if (quoted !== undefined) {
      if (tokens.length) phrases.push(tokens);
    } else phrases.push(...tokens.map((token) => [token]));
  }
  return { phrases: phrases.slice(0, MOST_PHRASES), open: /[\p{L}\p{N}]$/u.test(typed) };
}
