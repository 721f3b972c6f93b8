import { fold } from '../../reading/facts/rows';
import { plainQuestion, Text } from './text';
import { isTopic } from './topics';
import { NAMED } from './wordings';
import { isEmpty, kindNouns, nameWords } from './words';

/** Takes a folder that is named as one. */
export function takeFolder(text: Text, folders: readonly string[]): string | null {
  // “In the Markets folder” is “in the folder Markets”.
  const behind =
    /(?<![\p{L}\p{N}])(?:in|im|inside|of|from|aus|dans) ((?:\S+ ){1,5})(?:folder|ordner|mappe|dossier)(?![\p{L}\p{N}])/u;
  text.rest = text.rest.replace(behind, (whole: string, words: string) => {
    const name = words.trim().replace(/^(?:the|our|my|dem|den|der|le|la) /, '');
    return folders.some((path) => plainQuestion(path.split('/').at(-1)!) === name) ? `in folder ${name}` : whole;
  });
  const found =
    /(?:in|im|inside|of|from|aus dem|dans)? ?(?:the |dem |den |der |le )?(?:folder|ordner|mappe|dossier) (.+)$/u.exec(
      text.rest,
    );
  if (!found) return takePath(text, folders);
  const named = folders
    .map((path) => ({
      path,
      plain: plainQuestion(path.replaceAll('/', ' ')),
      last: plainQuestion(path.split('/').at(-1)!),
    }))
    .flatMap(({ path, plain, last }) => [
      { path, name: plain },
      { path, name: last },
    ])
    .filter(({ name }) => name && `${found[1]} `.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length || a.path.length - b.path.length)[0];
  if (!named) return null;
  text.rest = `${text.rest.slice(0, found.index)} ${found[1].slice(named.name.length)}`.replace(/ {2,}/g, ' ').trim();
  return named.path;
}

/** Takes a folder that is written as a path: “in House/Legal”. */
function takePath(text: Text, folders: readonly string[]): string | null {
  const paths = folders.map((path) => ({ path, plain: plainQuestion(path).replace(/ ?\/ ?/g, '/') }));
  const said = paths
    .filter(({ plain }) => plain.includes('/') && ` ${text.rest} `.includes(` ${plain} `))
    .sort((a, b) => b.plain.length - a.plain.length)[0];
  if (!said) return null;
  text.rest = ` ${text.rest} `.replace(` ${said.plain} `, ' ').trim();
  return said.path;
}

/** Words after which a sender is named. */
const BEFORE_SENDER = /^(from|to|at|by|with|pay|paid|von|vom|bei|beim|an|mit|chez|a|de|du|par|avec)$/;

/** The words of a question that are written with a capital. */
export function capitalsIn(question: string): ReadonlySet<string> {
  return new Set([...question.matchAll(/\p{Lu}[\p{L}\p{N}]*/gu)].map(([word]) => fold(word)));
}

/** Takes the name of a sender, or as much of its beginning as tells it from others; a sign stands in its place. */
export function takeSenders(text: Text, senders: readonly string[], capitals: ReadonlySet<string>): string[] {
  const known = senders.map((sender) => ({ sender, words: nameWords(plainQuestion(sender)) }));
  const words = [...text.rest.matchAll(/[\p{L}\p{N}]+/gu)].map((match) => ({ word: match[0], at: match.index }));
  const places = nameWordPlaces(words);
  // A single word may be a thing as well as a name: “the loom”, “from Loom”.
  const isName = (place: number) => {
    const { word, at } = places[place];
    const before = words[words.findIndex((each) => each.at === at) - 1];
    return capitals.has(word) || !before || BEFORE_SENDER.test(before.word);
  };
  let best: { senders: string[]; from: number; to: number; length: number } | undefined;
  for (let start = 0; start < places.length; start++)
    for (const { sender, words: name } of known) {
      let length = 0;
      while (length < name.length && places[start + length] && isSameName(places[start + length].word, name[length]))
        length++;
      if (length === 0) continue;
      const begin = name.slice(0, length);
      const whole = length === name.length;
      const others = known.filter((each) => begin.every((word, at) => each.words[at] === word));
      const alike = others.every((each) => each.words.join(' ') === others[0].words.join(' '));
      // One word of a name is enough where only this sender begins so, and the word means nothing else.
      const tells =
        whole ||
        (alike && (length > 1 || (isName(start) && !isTopic(begin[0]) && !isEmpty(begin[0]) && begin[0].length > 2)));
      if (!tells || (whole && length === 1 && isTopic(begin[0]) && name.length === 1)) continue;
      const last = places[start + length - 1];
      if (best && best.length > length) continue;
      if (best && best.length === length && best.from === places[start].at) best.senders.push(sender);
      else if (!best || best.length < length)
        best = { senders: [sender], from: places[start].at, to: last.at + last.word.length, length };
    }
  if (!best)
    best = surname(
      places.filter((_, place) => isName(place)),
      known,
    );
  if (!best) return [];
  text.rest = `${text.rest.slice(0, best.from)} ${NAMED} ${text.rest.slice(best.to)}`.replace(/ {2,}/g, ' ').trim();
  return [...new Set(best.senders)];
}

/** A word from the middle of one sender's name that no other has, and that means nothing else. */
function surname(
  places: readonly { word: string; at: number }[],
  known: readonly { sender: string; words: string[] }[],
): { senders: string[]; from: number; to: number; length: number } | undefined {
  for (const { word, at } of places) {
    if (word.length < 4 || isTopic(word) || isEmpty(word) || kindNouns(word, []).length > 0) continue;
    const having = known.filter(({ words }) => words.slice(1).includes(word));
    const isOne = new Set(having.map(({ words }) => words.join(' '))).size === 1;
    const elsewhere = known.some(({ words }) => words.includes(word) && !having.some((each) => each.words === words));
    if (isOne && !elsewhere && having[0].words.length <= 3)
      return { senders: having.map(({ sender }) => sender), from: at, to: at + word.length, length: 1 };
  }
  return undefined;
}

/** The words of a question that may belong to a name. */
function nameWordPlaces(words: readonly { word: string; at: number }[]): { word: string; at: number }[] {
  return words.filter(({ word }) => nameWords(`${word} x`).includes(word));
}

/** Whether a word of a question is one of a name: the same, or its genitive. */
function isSameName(word: string, name: string): boolean {
  return word === name || (name.length > 3 && word === `${name}s`);
}
