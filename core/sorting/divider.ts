import { Kind, KINDS } from '../reading/facts/fact';

/** What a divider sheet says of the document behind it. */
export interface Divider {
  /** Path of the folder that it goes to, names joined by slashes; null where the sheet names none. */
  folder: string | null;
  kind: Kind | null;
  /** The box or binder whose label it is: the sheets of what follows lie there. */
  place?: LabelledPlace;
}

/** A box or a binder, as its label says. */
export interface LabelledPlace {
  id: string;
  name: string;
}

const SCHEME = 'crow-shelf:divider';
/** The longest path that is printed; longer codes have squares too small for a feeder scan. */
export const LONGEST_FOLDER = 200;
const LONGEST_PLACE = 60;
const AN_ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
/** A sheet that calls itself a divider says little else. */
export const MOST_WORDS = 60;
const CALLS_ITSELF =
  /\b(divider|separator) (sheet|page)\b|\btrenn(blatt|seite)\b|\b(feuille|page) (de séparation|intercalaire)\b/i;

/** The text in the code of a divider sheet. */
export function dividerCode({ folder, kind, place }: Divider): string {
  const said = new URLSearchParams();
  if (place) {
    said.set('place', place.id);
    said.set('name', place.name);
  }
  if (folder) said.set('folder', folder);
  if (kind) said.set('kind', kind);
  const query = said.toString();
  return query ? `${SCHEME}?${query}` : SCHEME;
}

/** What a code or a line of text says, if it is that of a divider sheet. What it names wrongly is left out. */
export function readDividerCode(text: string): Divider | undefined {
  const found = new RegExp(`${SCHEME}(?:\\?(\\S*))?`).exec(text);
  if (!found) return undefined;
  const said = new URLSearchParams(found[1] ?? '');
  const folder = said.get('folder')?.trim();
  const kind = KINDS.find((each) => each === said.get('kind'));
  const [id, name] = [said.get('place') ?? '', said.get('name')?.trim() ?? ''];
  const isPlace = AN_ID.test(id) && name !== '' && name.length <= LONGEST_PLACE;
  return {
    folder: folder && folder.length <= LONGEST_FOLDER ? folder : null,
    kind: kind ?? null,
    ...(isPlace && { place: { id, name } }),
  };
}

/** Whether a page says of itself that it is a divider sheet, and hardly anything else. */
export function callsItselfDivider(words: readonly string[]): boolean {
  return words.length <= MOST_WORDS && CALLS_ITSELF.test(words.join(' '));
}
