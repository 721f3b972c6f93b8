import { Deed } from '@crow/contract/history';
import { shownDay } from '../../parts/days';
import { count } from '../../parts/words';

const text = (value: unknown): string | undefined => (typeof value === 'string' && value !== '' ? value : undefined);
const many = (value: unknown): number => (Array.isArray(value) ? value.length : Number(value) || 0);
const quoted = (name: string | null | undefined): string => (name ? `“${name}”` : '');

/** What a subject is called that is gone, or has no name. */
const A: Record<string, string> = { person: 'somebody' };

/** What each deed is, by its subject and action; `it` is what it was done to. What is gone for good is not told of in detail. */
export const WORDS: Record<string, (deed: Deed, it: string) => string> = {
  'session came in': ({ detail }) => `came in${by([text(detail.device), text(detail.browser)])}`,
  'session let in': () => 'came in',
  'session ended': ({ detail }) =>
    `ended the session of ${text(detail.name) ?? 'somebody'}${by([text(detail.device), text(detail.browser)])}`,
  'session made a code for': ({ detail }) => `made a code that lets ${quoted(text(detail.device)) || 'a device'} in`,
  'person added': ({ detail }) => `let ${text(detail.name) ?? 'somebody'} in as ${text(detail.role) ?? 'helper'}`,
  'person removed': ({ detail }, it) => `let ${text(detail.name) ?? it} in no more`,
  'person changed the folders of': (_, it) => `changed which folders ${it} sees`,
  'person gave another pass phrase': (_, it) => `gave ${it} another pass phrase`,
  'door opened': () => 'opened the door for other devices',
  'door shut': () => 'shut the door for other devices',
  'document filed': ({ detail, named }, it) => `filed ${quoted(named) || quoted(text(detail.name)) || it}`,
  'document shelved': ({ detail }, it) => `wrote ${quoted(text(detail.path)) || it} into the shelf folder`,
  'document moved': (_, it) => `renamed or moved ${it}`,
  'document set a fact': ({ detail }, it) =>
    detail.name ? `set ${text(detail.name)} to ${quoted(text(detail.value)) || 'nothing'}${on(it)}` : 'set a fact',
  'document took back a fact': ({ detail }, it) =>
    `took ${text(detail.name) ?? 'a fact'} back to what was read${on(it)}`,
  'document shredded the sheet of': (_, it) => `shredded the sheet of ${it}`,
  'document said of the sheet of': (_, it) => `said where the sheet of ${it} lies, or what becomes of it`,
  'place added': ({ detail }, it) => `added the box or binder ${quoted(text(detail.name)) || it}`,
  'place changed': ({ detail }, it) => `changed the box or binder ${quoted(text(detail.name)) || it}`,
  'sheet looked through': ({ detail }) =>
    `looked through ${quoted(text(detail.name)) || 'an archive'}: ${count(many(detail.papers), 'paper')} as on the shelf`,
  'document remarked on': (_, it) => `changed the tags or the note${on(it)}`,
  'document set the taxes': (_, it) => `set the tax by rate${on(it)}`,
  'document arranged the pages': (_, it) => `arranged the pages of ${it}`,
  'document marked': ({ detail }, it) =>
    many(detail.put) > 0 ? `put ${count(many(detail.put), 'mark')} on ${it}` : `took marks off ${it}`,
  'document copied': ({ detail }, it) => `made a copy of ${it}${detail.mail ? ' for a mail' : ''}`,
  'document signed': ({ detail }, it) =>
    `kept a signed copy of ${it}${detail.certified ? `, signed as ${text(detail.certified)}` : ''}`,
  'person kept a key to sign with': ({ detail }) =>
    `kept a key to sign with${detail.name ? `, of ${text(detail.name)}` : ''}`,
  'person forgot a key to sign with': () => 'let go of a key to sign with',
  'document sent by mail': ({ detail }, it) => `sent ${it} by mail${detail.to ? ` to ${text(detail.to)}` : ''}`,
  'document laid behind a link': (_, it) => `made a link to a copy of ${it}`,
  'copy place keeps copies in': ({ detail }, it) =>
    `began to keep copies in step in ${quoted(text(detail.path)) || it}`,
  'copy place copied into': ({ detail }, it) => `copied papers into ${quoted(text(detail.path)) || it}`,
  'copy place leaves copies in': ({ detail }, it) =>
    `left the copies in ${quoted(text(detail.path)) || it} to themselves`,
  'parcel sent again': () => 'had a mail sent once more',
  'parcel ended': () => 'stopped a mail, or ended a link',
  'parcel let somebody look at': ({ detail }) =>
    `let somebody look at a copy by its link${by([text(detail.browser), text(detail.place)])}`,
  'document hid parts in a copy of': ({ detail }, it) =>
    `made a copy of ${it} with ${count(many(detail.areas), 'part')} hidden`,
  'document answered to a mark': (_, it) => `answered to a mark${on(it)}`,
  'document took in marks': (_, it) => `took in what another program marked${on(it)}`,
  'document put to the back': (_, it) => `put ${it} to the back`,
  'document took back to Check': (_, it) => `took ${it} back to Check`,
  'document put into the bin': (_, it) => `put ${it} into the bin`,
  'document brought back': (_, it) => `brought ${it} back from the bin`,
  'document brought in': (_, it) => `brought ${it} in from an archive`,
  'document followed': ({ detail }, it) =>
    `noticed that ${it} was moved on disk${detail.to ? ` to ${quoted(text(detail.to))}` : ''}`,
  'document took over': (_, it) => `took ${it} over as it was on disk`,
  'document numbered': (_, it) => `gave ${it} a number, since another has its name`,
  'page corrected the text of': ({ detail }) => `corrected ${count(many(detail.changes), 'word')} on a page`,
  'file took in': ({ detail, named }, it) => `took in ${quoted(named) || quoted(text(detail.name)) || it}`,
  'file let go': (_, it) => `discarded ${it} that could not be taken in`,
  'file unlocked': (_, it) => `unlocked ${it} with its password`,
  'stack arranged': (_, it) => `arranged ${it}`,
  'stack undid': (_, it) => `undid a step${on(it)}`,
  'stack did again': (_, it) => `did a step again${on(it)}`,
  'stack sorted': ({ detail }, it) => `sent ${it} to Check as ${count(many(detail.documents), 'document')}`,
  'stack finished': (_, it) => `sent ${it} on as one document`,
  'stack moved pages into': ({ detail }, it) => `moved ${count(many(detail.pages), 'page')} into ${it}`,
  'stack made a page anew': (_, it) => `tidied a page of ${it}`,
  'stack cut at the gutter': (_, it) => `cut an open book in ${it} into its pages`,
  'stack took apart': (_, it) => `took papers on a page of ${it} apart`,
  'stack took back': ({ detail }, it) =>
    detail.pages
      ? `no longer accepted ${count(many(detail.pages), 'page')} of ${it} in spite of a warning`
      : `took documents of ${it} back to the light table`,
  'stack waved through': ({ detail }, it) =>
    `accepted ${count(many(detail.pages), 'page')} of ${it} in spite of a warning`,
  'stack put into the bin': (_, it) => `put ${it} into the bin`,
  'stack brought back': (_, it) => `brought ${it} back from the bin`,
  'stack brought in': ({ detail }) => `brought in ${count(many(detail.brought), 'document')} of an archive`,
  'stack started reading': (_, it) => `had ${it} read`,
  'stack stopped reading': (_, it) => `stopped the reading of ${it}`,
  'folder made': ({ detail }, it) => `made ${detail.path ? `the folder ${quoted(text(detail.path))}` : it}`,
  'folder changed': ({ detail }, it) =>
    `renamed or moved ${detail.from ? `the folder ${quoted(text(detail.from))}` : it}${detail.to ? ` to ${quoted(text(detail.to))}` : ''}`,
  'folder deleted': ({ detail }, it) => `deleted ${detail.path ? `the folder ${quoted(text(detail.path))}` : it}`,
  'folder left': ({ detail }) => `left ${count(many(detail.files), 'file')} in the shelf folder as they are`,
  'folder wrote anew': ({ detail }) =>
    `had the shelf folder written anew, ${count(many(detail.documents), 'document')}`,
  'settings changed': ({ detail }) => `changed the settings ${Object.keys(detail).join(', ')}`.trim(),
  'settings added a language': ({ detail }) => `added the language ${text(detail.code) ?? 'of some papers'}`,
  'bin emptied': ({ detail }) =>
    `emptied the bin: ${count(many(detail.documents), 'document')}, ${count(many(detail.stacks), 'stack')}`,
  'scanner made known': ({ detail }) => `made a scanner known${detail.address ? `, at ${text(detail.address)}` : ''}`,
  'scanner forgot': () => 'forgot a scanner',
  'preset kept': ({ detail }) => `kept scan settings${detail.name ? ` as ${quoted(text(detail.name))}` : ''}`,
  'preset deleted': () => 'deleted scan settings',
  'entry entered': (_, it) => `entered ${it}`,
  'entry changed': (_, it) => `changed ${it}`,
  'entry took out': (_, it) => `took ${it} out of the books`,
  'entry put back': (_, it) => `put ${it} back into the books`,
  'entry checked': (_, it) => `checked and locked ${it}`,
  'entry unlocked': (_, it) => `unlocked ${it}`,
  'entry attached a paper to': (_, it) => `attached a paper to ${it}`,
  'entry took a paper off': (_, it) => `took a paper off ${it}`,
  'statement took in': ({ detail }, it) =>
    `took in the statement ${quoted(text(detail.name)) || it}: ${count(many(detail.lines), 'line')}`,
  'statement took out': ({ detail }, it) => `took the statement ${quoted(text(detail.name)) || it} out of the books`,
  'books made': ({ detail }) =>
    `added ${detail.account ? 'an account' : 'a category'}${by([text(detail.account), text(detail.category)])}`,
  'books changed': ({ detail }) => {
    const one = text(detail.category) ?? text(detail.account) ?? text(detail.sender);
    if (one) return `changed ${quoted(one)} in the books`;
    if (detail.closedUntil === undefined) return 'changed how the books are kept';
    const until = text(detail.closedUntil);
    return until ? `closed the books until ${shownDay(until)}` : 'opened the books again';
  },
  'books brought in': ({ detail }) =>
    `brought ${count(many(detail.entries), 'entry', 'entries')} in${by([text(detail.name)])}`,
  'books forgot a rule': ({ detail }) => `let go of how lines of ${text(detail.who) ?? 'somebody'} are entered`,
  'books tied': ({ detail }) =>
    detail.ties === undefined ? 'tied lines of a statement to entries' : `made ${count(many(detail.ties), 'tie')}`,
  'books made payments of': ({ detail }) => `saved ${count(many(detail.entries), 'payment')} as a file for the bank`,
  'books untied': ({ detail }) => `took ${count(many(detail.ties), 'tie')} off`,
  'watched folder watched': ({ detail }, it) => `began to watch ${quoted(text(detail.path)) || it}`,
};

function by(names: (string | undefined)[]): string {
  const known = names.filter(Boolean);
  return known.length > 0 ? ` (${known.join(', ')})` : '';
}

const on = (it: string): string => ` in ${it}`;

/** What somebody did, without who: “filed “Rent, May””. */
export function deedWords(deed: Deed): string {
  const { subject, action, named } = deed;
  const it = quoted(named) || A[subject] || `a ${subject}`;
  return (
    WORDS[`${subject} ${action}`]?.(deed, it) ?? [action, `the ${subject}`, quoted(named)].filter(Boolean).join(' ')
  );
}
