import { QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { useCallback } from 'react';
import { Kind, KINDS, likeOf } from '@crow/core/reading/facts/kindList';
import { UnderstoodQuestion } from '@crow/contract/asking';
import { endpoints } from '@crow/contract/endpoints';
import { FindOrder } from '@crow/contract/finding';
import { isAllowed, Right } from '@crow/contract/roles';
import { LiveEvent } from '@crow/contract/settings';
import { ask } from './api';
import { listenLive } from './live';
import { useNotices } from './parts/notices';

/** What the application knows of the server; asked when needed, and again when the server says that it changed. */
/** Asked now and then as well: nobody tells of a disk that fills up. */
const OVERVIEW_EVERY_MS = 30_000;
export const useOverview = () =>
  useQuery({
    queryKey: ['overview'],
    queryFn: () => ask(endpoints.overview, {}),
    refetchInterval: OVERVIEW_EVERY_MS,
  });
export const useStrangers = () =>
  useQuery({ queryKey: ['strangers'], queryFn: () => ask(endpoints.listStrangers, {}) });
export const useSettings = () =>
  useQuery({ queryKey: ['settings'], queryFn: () => ask(endpoints.readSettings, {}), enabled: useMay('read') });
/** The kinds of papers that there are: those of the list, and those that were added. */
export const useKinds = (): string[] => [...KINDS, ...(useSettings().data?.ownKinds ?? []).map(({ name }) => name)];
/** The kind of the list that papers of a kind are like. */
export function useLike(): (kind: string) => Kind {
  const own = useSettings().data?.ownKinds;
  return useCallback((kind) => likeOf(kind, own ?? []), [own]);
}
export const useLanguages = () =>
  useQuery({ queryKey: ['languages'], queryFn: () => ask(endpoints.listLanguages, {}) });
export const useScanners = () => useQuery({ queryKey: ['scanners'], queryFn: () => ask(endpoints.listScanners, {}) });
export const useScans = () =>
  useQuery({ queryKey: ['scans'], queryFn: () => ask(endpoints.listScans, {}), enabled: useMay('work') });
export const usePresets = () =>
  useQuery({ queryKey: ['presets'], queryFn: () => ask(endpoints.listPresets, {}), enabled: useMay('work') });
export const useWatched = () => useQuery({ queryKey: ['watched'], queryFn: () => ask(endpoints.listWatched, {}) });
export const useCopyPlaces = () =>
  useQuery({ queryKey: ['copyPlaces'], queryFn: () => ask(endpoints.listCopyPlaces, {}) });
export const usePlaces = (beginning: string) =>
  useQuery({
    queryKey: ['places', beginning],
    queryFn: () => ask(endpoints.listPlaces, { query: { beginning } }),
    enabled: beginning.startsWith('/'),
    placeholderData: (before) => before,
  });
export const useStacks = () =>
  useQuery({ queryKey: ['stacks'], queryFn: () => ask(endpoints.listStacks, {}), enabled: useMay('capture') });
export const useStack = (id: string | undefined) =>
  useQuery({
    queryKey: ['stack', id],
    queryFn: () => ask(endpoints.readStack, { params: { id: id! } }),
    enabled: Boolean(id),
  });
export const useWeaving = (fronts: string, backs: string) =>
  useQuery({
    queryKey: ['weaving', fronts, backs],
    queryFn: () => ask(endpoints.showWeaving, { params: { id: fronts }, query: { backs } }),
  });
/** This window, among others of the same person. */
export const THIS_WINDOW = crypto.randomUUID();
/** Asked now and then as well: nobody tells of a window that was not closed but lost. */
const AT_WORK_EVERY_MS = 30_000;
/** Who else has which document before them. */
export const useAtWork = () =>
  useQuery({
    queryKey: ['at-work'],
    queryFn: () => ask(endpoints.listAtWork, { query: { window: THIS_WINDOW } }),
    refetchInterval: AT_WORK_EVERY_MS,
  });
export const useWaiting = () => useQuery({ queryKey: ['waiting'], queryFn: () => ask(endpoints.listWaiting, {}) });
export const useDocument = (id: string | undefined) =>
  useQuery({
    queryKey: ['document', id],
    queryFn: () => ask(endpoints.readDocument, { params: { id: id! } }),
    enabled: Boolean(id),
  });
export const useSizes = (id: string, enabled: boolean) =>
  useQuery({
    queryKey: ['sizes', id],
    queryFn: () => ask(endpoints.documentSizes, { params: { id } }),
    enabled,
  });
export const useFilingExamples = () =>
  useQuery({ queryKey: ['examples'], queryFn: () => ask(endpoints.filingExamples, {}) });
export const useProposedNames = (ids: string[]) =>
  useQuery({ queryKey: ['examples', ids], queryFn: () => ask(endpoints.proposedNames, { body: { ids } }) });
/** @param anew whether they are asked for in any case, however short ago they were */
export const useDoubtful = (id: string, { anew = false } = {}) =>
  useQuery({
    queryKey: ['doubtful', id],
    queryFn: () => ask(endpoints.doubtfulWords, { params: { id } }),
    refetchOnMount: anew ? 'always' : true,
  });
/** What a document says that its facts could be. @param enabled whether anybody wants to know yet */
export const useChoices = (id: string, enabled: boolean) =>
  useQuery({ queryKey: ['choices', id], queryFn: () => ask(endpoints.listChoices, { params: { id } }), enabled });
export const useMarksOf = (id: string) =>
  useQuery({ queryKey: ['marks', id], queryFn: () => ask(endpoints.listMarks, { params: { id } }) });
export const useSignatures = (enabled: boolean) =>
  useQuery({ queryKey: ['signatures'], queryFn: () => ask(endpoints.listSignatures, {}), enabled });
export const useVersions = (id: string, enabled: boolean) =>
  useQuery({ queryKey: ['versions', id], queryFn: () => ask(endpoints.listVersions, { params: { id } }), enabled });
export const useFolders = () => useQuery({ queryKey: ['folders'], queryFn: () => ask(endpoints.listFolders, {}) });
/** @param inside whether with those in the folders inside it */
export const useFolderDocuments = (id: string | undefined, inside = false) =>
  useQuery({
    queryKey: ['inFolder', id, inside],
    queryFn: () => ask(endpoints.listDocuments, { params: { id: id! }, query: inside ? { inside } : {} }),
    enabled: Boolean(id),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
/** What is due comes nearer by itself. */
const GLANCE_EVERY_MS = 3_600_000;
export const useGlance = () =>
  useQuery({ queryKey: ['glance'], queryFn: () => ask(endpoints.shelfGlance, {}), refetchInterval: GLANCE_EVERY_MS });
export const useChangedOnDisk = () =>
  useQuery({ queryKey: ['changedOnDisk'], queryFn: () => ask(endpoints.listChangedOnDisk, {}) });
export const useMe = () =>
  useQuery({ queryKey: ['me'], queryFn: () => ask(endpoints.whoAmI, {}), staleTime: Infinity });
/** Whether whoever is here may do something; as long as that is not known, yes: it is refused where it matters. */
export function useMay(right: Right): boolean {
  const role = useMe().data?.role;
  return !role || isAllowed(role, right);
}
export const useDoor = () => useQuery({ queryKey: ['door'], queryFn: () => ask(endpoints.readDoor, {}) });
export const useDocumentHistory = (id: string, enabled: boolean) =>
  useQuery({
    queryKey: ['history', 'of', id],
    queryFn: () => ask(endpoints.documentHistory, { params: { id } }),
    enabled,
  });
export const usePeople = () => useQuery({ queryKey: ['people'], queryFn: () => ask(endpoints.listPeople, {}) });
export const useBin = (enabled: boolean) =>
  useQuery({ queryKey: ['bin'], queryFn: () => ask(endpoints.listBin, {}), enabled });
export const useFound = (q: string, sort: FindOrder, most: number) =>
  useQuery({
    queryKey: ['found', q, sort, most],
    queryFn: () => ask(endpoints.find, { query: { q, sort, most } }),
    enabled: q.trim() !== '',
    placeholderData: (before) => before,
  });
/** What answers a question over the shelf; `understood` when somebody changed how it is meant. */
export const useShelfAnswer = (question: string, understood: UnderstoodQuestion | undefined) =>
  useQuery({
    queryKey: ['answer', question, understood],
    queryFn: () => ask(endpoints.askShelf, { body: { question, understood } }),
    enabled: question.trim() !== '',
    // The answer to another question is none to this one.
    placeholderData: (before, query) => (query?.queryKey[1] === question ? before : undefined),
  });
export const useSheets = () => useQuery({ queryKey: ['sheets'], queryFn: () => ask(endpoints.listSheets, {}) });
export const useSheet = (id: string, enabled: boolean) =>
  useQuery({
    queryKey: ['sheets', 'of', id],
    queryFn: () => ask(endpoints.readSheet, { params: { id } }),
    enabled,
  });
export const useTags = (enabled = true) =>
  useQuery({ queryKey: ['tags'], queryFn: () => ask(endpoints.listTags, {}), enabled });
export const useHits = (id: string | undefined, q: string) =>
  useQuery({
    queryKey: ['hits', id, q],
    queryFn: () => ask(endpoints.documentHits, { params: { id: id! }, query: { q } }),
    enabled: Boolean(id) && q.trim() !== '',
  });
export const usePageText = (id: string, turn: number, version: string, enabled = true) =>
  useQuery({
    queryKey: ['text', id, turn, version],
    queryFn: () => ask(endpoints.pageText, { params: { id } }),
    enabled,
    staleTime: Infinity,
  });

export const useSearches = (enabled: boolean) =>
  useQuery({ queryKey: ['searches'], queryFn: () => ask(endpoints.listSearches, {}), enabled });

export const useContents = (id: string) =>
  useQuery({
    queryKey: ['contents', id],
    queryFn: () => ask(endpoints.documentContents, { params: { id } }),
  });
export const useSigningKeys = () =>
  useQuery({ queryKey: ['signingKeys'], queryFn: () => ask(endpoints.listSigningKeys, {}) });
/** Copies that went out or are on their way. */
export const useParcels = (enabled: boolean) =>
  useQuery({ queryKey: ['parcels'], queryFn: () => ask(endpoints.listParcels, {}), enabled });
export const useParcel = (id: string | undefined) =>
  useQuery({
    queryKey: ['parcels', id],
    queryFn: () => ask(endpoints.readParcel, { params: { id: id! } }),
    enabled: Boolean(id),
  });
export const useMailWays = (enabled: boolean) =>
  useQuery({ queryKey: ['mailWays'], queryFn: () => ask(endpoints.mailWays, {}), enabled });
export const useMailAccount = () =>
  useQuery({ queryKey: ['mailAccount'], queryFn: () => ask(endpoints.readMailAccount, {}) });

/** Categories, accounts and the country of the books. */
export const useBooks = (enabled = true) =>
  useQuery({ queryKey: ['books'], queryFn: () => ask(endpoints.readBooks, {}), enabled });
export const useLedger = () => useQuery({ queryKey: ['ledger'], queryFn: () => ask(endpoints.readLedger, {}) });
/** What a paper would be in the books, or is. */
/** @param folder the path of the folder that it is going to */
export const usePaperBooks = (id: string, folder?: string) =>
  useQuery({
    queryKey: ['paperBooks', id, folder],
    queryFn: () => ask(endpoints.paperBooks, { params: { id }, query: { folder } }),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
export const useStatements = () =>
  useQuery({ queryKey: ['statements'], queryFn: () => ask(endpoints.listStatements, {}) });
export const useEntryVersions = (id: string | undefined) =>
  useQuery({
    queryKey: ['ledger', 'versions', id],
    queryFn: () => ask(endpoints.entryVersions, { params: { id: id! } }),
    enabled: Boolean(id),
  });

/** Which questions have other answers after a change. */
const TOUCHED: Record<LiveEvent['kind'], string[]> = {
  stack: ['stacks', 'stack', 'overview', 'bin'],
  text: ['text', 'doubtful', 'choices', 'document', 'found', 'hits'],
  document: [
    'waiting',
    'document',
    'inFolder',
    'glance',
    'folders',
    'overview',
    'bin',
    'found',
    'answer',
    'tags',
    'hits',
    'sizes',
    'examples',
    'versions',
    'contents',
    'marks',
    'doubtful',
    'choices',
    'changedOnDisk',
    'strangers',
    'history',
    'paperBooks',
    'ledger',
    'sheets',
  ],
  folder: ['folders', 'document', 'waiting', 'glance', 'inFolder', 'answer'],
  settings: ['settings', 'languages'],
  watch: ['watched', 'overview'],
  people: ['people', 'door', 'history'],
  'at-work': ['at-work'],
  signature: ['signatures', 'signingKeys'],
  search: ['searches'],
  'copy-place': ['copyPlaces', 'history'],
  parcel: ['parcels', 'mailWays', 'mailAccount', 'history'],
  ledger: ['ledger', 'books', 'paperBooks', 'statements', 'statementPapers', 'overview', 'history', 'sheets'],
  sheet: ['sheets', 'history'],
  scan: ['scans', 'scanners', 'presets', 'stacks'],
};
const GATHER_MS = 400;

/** Listens to the server's changes, and has what they touch asked again. Returns how to stop. */
export function listen(client: QueryClient): () => void {
  const touched = new Set<string>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  return listenLive((data) => {
    const { kind } = JSON.parse(data) as LiveEvent | { kind: 'hello' };
    // Said at the beginning and after an interruption: anything may have changed meanwhile.
    if (kind === 'hello') return void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'text' });
    TOUCHED[kind].forEach((key) => touched.add(key));
    timer ??= setTimeout(() => {
      timer = undefined;
      const keys = new Set(touched);
      touched.clear();
      void client.invalidateQueries({ predicate: ({ queryKey }) => keys.has(String(queryKey[0])) });
    }, GATHER_MS);
  });
}

/**
 * A change asked of the server; problems are told, and what the change touches is asked again at once. `done`, and what
 * a single call gives as `then`, are called before that, and even when the component has gone by then.
 */
export function useChange<E extends Endpoint>(
  endpoint: E,
  touches: LiveEvent['kind'][],
  done?: (output: Output<E>, input: Input<E>) => void,
) {
  type Asked = { input: Input<E>; then?: (output: Output<E>) => void };
  const client = useQueryClient();
  const { tell } = useNotices();
  const {
    mutate: start,
    mutateAsync: startAsync,
    isPending,
  } = useMutation({
    mutationFn: ({ input }: Asked) => ask(endpoint, input),
    onSuccess: (output, { input, then }) => {
      done?.(output, input);
      then?.(output);
    },
    onError: (error) => tell({ error }),
    onSettled: () => {
      const keys = new Set(touches.flatMap((kind) => TOUCHED[kind]));
      return client.invalidateQueries({ predicate: ({ queryKey }) => keys.has(String(queryKey[0])) });
    },
  });
  const mutate = useCallback((input: Input<E>, then?: Asked['then']) => start({ input, then }), [start]);
  const mutateAsync = useCallback((input: Input<E>) => startAsync({ input }), [startAsync]);
  return { mutate, mutateAsync, isPending };
}
