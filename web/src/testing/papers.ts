import { Document, DocumentSummary } from '@crow/contract/documents';
import { Fact } from '@crow/contract/facts';
import { Folder } from '@crow/contract/folders';
import { Doubtful, Page } from '@crow/contract/pages';
import { Parcel } from '@crow/contract/sending';
import { Settings } from '@crow/contract/settings';
import { USUAL_MAIL } from '@crow/core/filing/pattern';

/** Made-up papers for tests of the screens, as the server tells of them. */

let last = 0;
export const newId = () => `00000000-0000-4000-8000-${(++last).toString(16).padStart(12, '0')}`;

export function page(part: Partial<Page> = {}): Page {
  return {
    id: newId(),
    fileId: newId(),
    fileName: 'post.pdf',
    fileNumber: 1,
    width: 1654,
    height: 2339,
    pointWidth: 595,
    pointHeight: 842,
    turn: 0,
    dropped: false,
    dropDecided: false,
    cutBefore: false,
    cutDecided: false,
    proposal: null,
    blank: false,
    divider: null,
    glance: null,
    version: '',
    recipe: null,
    confidence: null,
    legibility: null,
    damaged: false,
    waved: false,
    againOf: null,
    pictured: true,
    reading: 'read',
    problem: null,
    ...part,
  };
}

export function fact(name: Fact['name'], value: string, part: Partial<Fact> = {}): Fact {
  return {
    name,
    value,
    pageId: null,
    box: null,
    confidence: 0.98,
    confirmed: false,
    by: null,
    why: null,
    repaired: false,
    other: null,
    ...part,
  };
}

export function summary(part: Partial<DocumentSummary> = {}): DocumentSummary {
  return {
    id: newId(),
    state: 'check',
    name: '',
    folderId: null,
    folderPath: null,
    pages: 1,
    read: 1,
    stackId: newId(),
    firstPageId: newId(),
    firstPageTurn: 0,
    firstPageVersion: '',
    kind: 'invoice',
    vendor: 'Halden & Firth Yarns Ltd',
    number: null,
    reference: null,
    dueDate: null,
    ends: null,
    total: null,
    date: '2026-11-12',
    bytes: null,
    tags: [],
    filedAt: null,
    forEntry: false,
    createdAt: '2026-11-20T09:00:00.000Z',
    binnedAt: null,
    problem: null,
    ...part,
  };
}

/** An invoice that waits in Check. */
export function document(part: Partial<Document> = {}): Document {
  const pageList = part.pageList ?? [page()];
  return {
    ...summary(part),
    pages: pageList.length,
    read: pageList.length,
    firstPageId: pageList[0].id,
    stackName: 'Post of Thursday',
    size: 'balanced',
    beside: [],
    proposedName: '',
    suggestion: null,
    pageList,
    emptied: [],
    bookings: [],
    likely: [],
    facts: [
      fact('kind', 'invoice'),
      fact('vendor', 'Halden & Firth Yarns Ltd'),
      fact('date', '2026-11-12'),
      fact('total', '184.20'),
    ],
    note: '',
    summary: 'An invoice from Halden & Firth Yarns Ltd over 184.20.',
    lines: [],
    taxes: [],
    checks: [],
    duplicates: [],
    archival: null,
    shelfPath: null,
    ...part,
  };
}

export function folder(path: string, part: Partial<Folder> = {}): Folder {
  return {
    id: newId(),
    parentId: null,
    name: path.split('/').at(-1)!,
    path,
    documents: 0,
    inside: part.documents ?? 0,
    ...part,
  };
}

export function settings(part: Partial<Settings> = {}): Settings {
  const usual = {
    name: 'Usual',
    pattern: '{date} {who} {kind}',
    folder: null,
    kinds: [],
    within: null,
    size: 'balanced' as const,
    beside: [],
  };
  return { languages: ['eng', 'deu'], filing: [usual], days: 'iso', ownKinds: [], mailForm: USUAL_MAIL, ...part };
}

export function doubtful(text: string, index: number, part: Partial<Doubtful> = {}): Doubtful {
  return {
    pageId: newId(),
    index,
    text,
    box: [0.4, 0.3, 0.1, 0.02],
    before: 'twelve skeins of',
    after: 'and six of weld',
    lineBox: [0.1, 0.3, 0.8, 0.02],
    ...part,
  };
}

/** Copies that went out by mail. */
export function parcel(part: Partial<Parcel> = {}): Parcel {
  return {
    id: newId(),
    way: 'mail',
    state: 'sent',
    title: 'The lease',
    to: 'ada@books.example',
    fileName: 'mail.eml',
    bytes: 120_000,
    papers: [{ id: newId(), name: 'Lease' }],
    by: 'Imre',
    made: '2026-03-14T09:00:00.000Z',
    done: '2026-03-14T09:01:00.000Z',
    problem: null,
    nextTry: null,
    link: null,
    ...part,
  };
}
