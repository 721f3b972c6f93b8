import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { addressOf, asker, PIECE, uploadHeaders } from '@crow/contract/client';
import { Endpoint } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { Sheet } from '@crow/contract/keeping';
import { Books, Ledger } from '@crow/contract/ledger';
import { dayOf } from '@crow/core/reading/dayForms';
import { addDays } from '@crow/core/shelf/days';
import { bankStatement, SAVINGS, savingsStatement, typedEntries } from './books';
import { comeIn, Session } from './comeIn';
import { encodePhoto, photographPaper, scanPaper } from './capture';
import { BATCH, FILED, Paper, WAITING, WAITING_TOO } from './papers';
import { pagesAsPdf } from './pagesAsPdf';
import { recentPapers } from './recentPapers';
import { makeScene } from './scenes';
import { demoStock } from './stock';
import { renderView } from './view';

/**
 * Fills an empty shelf with the demo papers, through the same doors that a person uses: files are taken in, sorted, read by
 * the recogniser, and filed. What the demo shows is what the program computed.
 * @param entrance an address that lets one browser in
 */
export async function fillDemo(entrance: string, say: (line: string) => void): Promise<void> {
  const crow = new Client(await comeIn(entrance));
  const documents = new Map<Paper, string>();
  const filed = [...FILED, ...recentPapers(dayOf(new Date()))];
  for (const paper of filed) documents.set(paper, await crow.takeIn(paper));
  let read = 0;
  for (const paper of filed) {
    const id = documents.get(paper)!;
    await crow.waitFor(async () => {
      const { pages, read: done } = await crow.ask(endpoints.readDocument, { params: { id } });
      return pages === done;
    });
    const { facts } = await crow.ask(endpoints.readDocument, { params: { id } });
    // As the person would who checks it: what was read wrongly is put right.
    for (const [name, value] of [
      ['kind', paper.kind],
      ['vendor', paper.who],
      ['date', paper.date],
    ] as const) {
      if (facts.find((fact) => fact.name === name)?.value === value) continue;
      await crow.ask(endpoints.changeFact, { params: { id, name }, body: { value } });
    }
    const { proposedName } = await crow.ask(endpoints.readDocument, { params: { id } });
    await crow.ask(endpoints.fileDocument, { params: { id }, body: { name: proposedName, folderPath: paper.folder } });
    if (++read % 10 === 0) say(`  ${read} of ${filed.length} papers filed`);
  }
  await crow.keepBooks(dayOf(new Date()));
  for (const paper of [...WAITING, ...WAITING_TOO]) await crow.takeIn(paper);
  // These are read while the person looks round.
  await crow.takeInBatch(BATCH);
  await crow.takeInPhotos();
  await crow.waitFor(async () => {
    const { filing } = await crow.ask(endpoints.overview, {});
    return filing === 0;
  });
  await crow.keepSheets(dayOf(new Date()));
  await crow.ask(endpoints.leave, {});
}

/** Makes the stand-in scanner known, once it answers. */
export async function knowScanner(entrance: string, scanner: string): Promise<void> {
  const crow = new Client(await comeIn(entrance));
  for (const { id, address: known, name } of await crow.ask(endpoints.listScanners, {}))
    if (name.includes('Stand-in') && known !== scanner) await crow.ask(endpoints.forgetScanner, { params: { id } });
  const add = () =>
    crow.ask(endpoints.addScanner, { body: { address: scanner } }).then(
      () => true,
      () => false,
    );
  await crow.waitFor(add);
  await crow.ask(endpoints.leave, {});
}

/** Sets the account at the stand-in mail server up, unless somebody has set up another one. */
export async function knowMailServer(
  entrance: string,
  { port, user, password }: { port: number; user: string; password: string },
): Promise<void> {
  const crow = new Client(await comeIn(entrance));
  const { account } = await crow.ask(endpoints.readMailAccount, {});
  if (!account || (account.user === user && account.port !== port))
    await crow.ask(endpoints.changeMailAccount, {
      body: {
        ...{ host: '127.0.0.1', port, security: 'none', user, password },
        ...{ from: user, name: 'Imre Castellane' },
      },
    });
  await crow.ask(endpoints.leave, {});
}

const PATIENCE_MS = 180_000;
const MONTHS_IN_BOOKS = 23;
const DAYS_NOT_TIED = 60;
const SHREDDED = 9;
/** Whose lines have no bill, by how these begin. */
const WITHOUT_BILL = [
  ['CORNER GROCER', 'Corner Grocer', 'Groceries'],
  ['SEAWALL CAFE', 'Seawall Café', 'Coffee'],
] as const;
const PHOTO_DPI = 150;
const PHOTO_SIDE = 2000;
const PHOTO_SCENES = [9, 14, 1, 17];
const HURRIED = { blur: 2.6, noise: 7 };

class Client {
  constructor(private readonly session: Session) {}

  readonly ask = asker((address, call) => this.call(address, call));

  async waitFor(condition: () => Promise<boolean>): Promise<void> {
    for (const until = Date.now() + PATIENCE_MS; Date.now() < until; await sleep(100)) if (await condition()) return;
    throw new Error('The demo papers took too long to be read.');
  }

  /** Takes a paper in as a stack of its own and sends it to Check. */
  async takeIn(paper: Paper): Promise<string> {
    const pdf = await paper.draw();
    const seed = [...paper.id].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) >>> 0, 7);
    const files =
      paper.came === 'pdf'
        ? [{ name: `${paper.id}.pdf`, bytes: pdf }]
        : paper.came === 'photo'
          ? [{ name: `IMG_${1000 + (seed % 9000)}.jpg`, bytes: await photographPaper(pdf, seed) }]
          : (await scanPaper(pdf, paper.pages, seed)).map((bytes, index) => ({
              name: `scan-${paper.id}-${index + 1}.jpg`,
              bytes,
            }));
    const stack = await this.send(files[0].name, files);
    const { documents } = await this.ask(endpoints.sortStack, { params: { id: stack } });
    return documents[0];
  }

  /** Takes papers in as one scanned PDF that is still to be sorted. */
  async takeInBatch(papers: Paper[]): Promise<void> {
    const pages: Buffer[] = [];
    for (const [index, paper] of papers.entries())
      pages.push(...(await scanPaper(await paper.draw(), paper.pages, 100 + index)));
    await this.send('Post of 16 November.pdf', [{ name: 'Post of 16 November.pdf', bytes: await pagesAsPdf(pages) }]);
  }

  /** Takes in a stack of photos as they come from a phone: a letter in a shadow, receipts side by side, a sheet on another one. */
  async takeInPhotos(): Promise<void> {
    const stock = await demoStock(PHOTO_DPI);
    const files = [];
    for (const [index, number] of PHOTO_SCENES.entries()) {
      const { view } = makeScene(number, stock, PHOTO_SIDE);
      files.push({ name: `IMG_${4101 + index}.jpg`, bytes: await encodePhoto(renderView(view)) });
    }
    // The first one was taken in a hurry, and is taken again.
    const { view } = makeScene(PHOTO_SCENES[0], stock, PHOTO_SIDE);
    const hurried = { ...view, ...HURRIED, camera: { ...view.camera, shows: view.camera.shows * 1.4 } };
    const [first] = files.splice(0, 1, { name: 'IMG_4100.jpg', bytes: await encodePhoto(renderView(hurried)) });
    const stack = await this.send('Kitchen table', files);
    const { pageList } = await this.ask(endpoints.readStack, { params: { id: stack } });
    await this.sendFile(stack, first, { position: String(files.length), again: pageList[0].id });
  }

  /**
   * What two years left in the books beside the bills that were entered as they were filed: entries without a paper, the bank's statement, ties
   * that were made and, of the last months, ties that are only proposed.
   */
  async keepBooks(today: string): Promise<void> {
    const books = await this.ask(endpoints.readBooks, {});
    for (const body of typedEntries(today, MONTHS_IN_BOOKS, books)) await this.ask(endpoints.makeEntry, { body });
    const { entries } = await this.ask(endpoints.readLedger, {});
    const yesterday = addDays(today, -1);
    await this.sendBytes(endpoints.sendStatement, 'Orrin Harbour Bank.csv', bankStatement(entries, yesterday));
    const { name, number } = SAVINGS;
    const savings = await this.ask(endpoints.makeAccount, { body: { name, number, kind: 'bank', currency: 'GBP' } });
    const [first] = (await this.ask(endpoints.readLedger, {})).lines;
    await this.sendBytes(endpoints.sendStatement, 'Savings.csv', savingsStatement(first.day, yesterday), {
      accountId: savings.id,
    });
    await this.waitFor(async () =>
      (await this.ask(endpoints.readLedger, {})).ties.some(({ why }) => why === 'transfer'),
    );
    await this.waitFor(async () => (await this.ask(endpoints.readLedger, {})).ties.length > 0);
    const ledger = await this.ask(endpoints.readLedger, {});
    const { ties, lines } = ledger;
    const early = addDays(today, -DAYS_NOT_TIED);
    const dayOfLine = new Map(lines.map(({ id, day }) => [id, day]));
    const done = ties.filter((tie) => tie.lines.every((id) => dayOfLine.get(id)! < early));
    await this.ask(endpoints.takeTies, { body: { ids: done.map(({ id }) => id) } });
    const checked = new Set(done.flatMap((tie) => tie.entries));
    const year = today.slice(0, 4);
    const ids = entries.filter(({ id, day }) => checked.has(id) && day < year).map(({ id }) => id);
    await this.ask(endpoints.checkEntries, { body: { ids, checked: true } });
    await this.enterWithoutBill(ledger.lines, books, early);
    await this.ask(endpoints.changeBooks, { body: { closedUntil: `${Number(year) - 1}-12-31` } });
  }

  /** Enters the lines of the grocer and the café of this year up to a day; the later ones are proposed as those were. */
  private async enterWithoutBill(lines: Ledger['lines'], books: Books, until: string): Promise<void> {
    const categoryId = books.categories.find(({ name }) => name === 'Other costs')?.id ?? null;
    for (const [words, who, what] of WITHOUT_BILL) {
      const those = lines.filter(
        ({ text, day }) => text.startsWith(words) && day < until && day >= `${until.slice(0, 4)}-01-01`,
      );
      if (those.length === 0) continue;
      const as = those.map(({ id }) => ({ lineId: id, who, what, categoryId, taxCode: 'GB-N', rate: null }));
      await this.ask(endpoints.enterLines, { body: { lines: as, remember: true } });
    }
  }

  /**
   * Lays the sheets of papers into binders by year and a deed box, has their files proven, and writes the oldest that may go down as shredded.
   */
  async keepSheets(today: string): Promise<void> {
    const { sheets } = await this.ask(endpoints.listSheets, {});
    const year = Number(today.slice(0, 4));
    const lay = async (name: string, those: Sheet[], takes = false) => {
      const { id } = await this.ask(endpoints.makePlace, { body: { name } });
      if (takes) await this.ask(endpoints.changePlace, { params: { id }, body: { takes } });
      const ids = those.map(({ documentId }) => documentId);
      if (ids.length > 0) await this.ask(endpoints.changeSheets, { body: { ids, placeId: id } });
      return ids;
    };
    // What the rules keep, and what is insured, whether it came as paper or not.
    const deeds = sheets.filter(({ mayGoFrom, folderPath }) => mayGoFrom === null || folderPath?.includes('Insurance'));
    const others = sheets.filter((sheet) => sheet.state !== 'none' && !deeds.includes(sheet));
    await lay('Deed box', deeds);
    const oldest = await lay(
      `Binder ${year - 1}`,
      others.filter(({ day }) => day < `${year}`),
    );
    await lay(
      `Binder ${year}`,
      others.filter(({ day }) => day >= `${year}`),
      true,
    );
    await this.ask(endpoints.compareFiles, {});
    await this.waitFor(async () => !(await this.ask(endpoints.listSheets, {})).comparing);
    const archive = await this.call(addressOf(endpoints.shelfArchive, { query: {} }), { method: 'GET' });
    await this.sendBytes(
      endpoints.lookThroughArchive,
      `Crow Shelf ${today}.zip`,
      Buffer.from(await archive.arrayBuffer()),
    );
    const proven = (await this.ask(endpoints.listSheets, {})).sheets.filter(({ state }) => state === 'may go');
    const gone = proven.map(({ documentId }) => documentId).filter((id) => oldest.includes(id));
    if (gone.length > 0) await this.ask(endpoints.changeSheets, { body: { ids: gone.slice(0, SHREDDED), gone: true } });
  }

  /** Sends the bytes of a file to an endpoint that takes them. */
  private async sendBytes(
    endpoint: Endpoint,
    name: string,
    bytes: Uint8Array | string,
    more: object = {},
  ): Promise<void> {
    await this.call(addressOf(endpoint, { query: { name, ...more } }), {
      method: endpoint.method,
      headers: { 'content-type': 'application/octet-stream' },
      body: bytes as BodyInit,
    });
  }

  private async call(address: string, call: RequestInit): Promise<Response> {
    const headers = { ...(call.headers as Record<string, string>), cookie: this.session.cookie };
    const response = await fetch(this.session.address + address, { ...call, headers });
    if (!response.ok) throw new Error(`${call.method} ${address}: ${await response.text()}`);
    return response;
  }

  private async send(stackName: string, files: { name: string; bytes: Uint8Array }[]): Promise<string> {
    const stack = randomUUID();
    for (const [position, file] of files.entries())
      await this.sendFile(stack, file, { stackName, position: String(position) });
    await this.waitFor(async () => {
      const { files: arrived } = await this.ask(endpoints.readStack, { params: { id: stack } });
      return arrived.length === files.length && arrived.every(({ state }) => state !== 'waiting');
    });
    return stack;
  }

  /** @param where the file's number, and where its pages go */
  private async sendFile(
    stack: string,
    { name, bytes }: { name: string; bytes: Uint8Array },
    where: Record<string, string>,
  ): Promise<void> {
    const told = { stack, file: randomUUID(), stackName: name, name, ...where };
    await this.call(addressOf(endpoints.sendFile, {}), {
      method: endpoints.sendFile.method,
      headers: { ...uploadHeaders(told, bytes.length), 'content-type': PIECE },
      body: bytes as BodyInit,
    });
  }
}
