import { FindOptionsWhere, In, IsNull, LessThan, Not } from 'typeorm';
import { toldProblem, Problem } from '@crow/contract/problems';
import { NewParcel, Parcel as Shown } from '@crow/contract/sending';
import { addressesIn, bareAddress } from '@crow/core/sending/addresses';
import { documentsById } from '../checking/documents';
import { withScratch } from '../engines/scratch';
import { blobBytes, storeBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { Parcel, ParcelLook, ParcelPaper } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { CopyDesks, copiesOf, inOneFile, mailOf } from './copies';
import { Links } from './links';
import { MailAccount, MailFailure, senderOf } from './mailAccount';
import { takeForPosting } from './queries';

/** What is shown of those that went before. */
const MOST_SHOWN = 200;
const MOST_LOOKS = 5000;
/** Before a mail is tried again, in minutes; after the last it is tried no more. */
const PAUSES = [1, 3, 10, 30, 60, 120, 240, 240, 480, 480, 720];
const MINUTE_MS = 60_000;
/** What was packed to be saved is kept so long. */
const SAVED_LASTS_MS = 24 * 60 * MINUTE_MS;

/** Copies that go out: packed in the background, then saved, sent by mail, or fetched by a link. */
export class Parcels {
  constructor(
    private readonly context: Context,
    private readonly account: MailAccount,
    private readonly links: Links,
  ) {}

  private get manager() {
    return this.context.database.source.manager;
  }

  /** Mails and links, the latest first. */
  list(): Promise<Shown[]> {
    return this.find({ way: Not('save') });
  }

  /** @throws Problem 'not-found' */
  async read(id: string): Promise<Shown> {
    const [found] = await this.find({ id }, true);
    if (!found) throw new Problem('not-found', { what: 'What was sent' });
    return found;
  }

  private async find(where: FindOptionsWhere<Parcel>, coded = false): Promise<Shown[]> {
    const found = await this.manager.find(Parcel, {
      where,
      relations: { actor: true, papers: true, link: true },
      order: { madeAt: 'desc', papers: { number: 'asc' } },
      take: MOST_SHOWN,
    });
    // By themselves: joined, each look would come with each paper.
    const looks = await this.manager.find(ParcelLook, {
      where: { parcelId: In(found.map(({ id }) => id)) },
      order: { id: 'desc' },
      take: MOST_LOOKS,
    });
    return found.map((each) =>
      this.shown(
        each,
        looks.filter(({ parcelId }) => parcelId === each.id),
        coded,
      ),
    );
  }

  /** Has copies packed. @throws Problem 'not-found', 'mail-not-set-up' */
  async make(actor: ActingAs, { copies, mail, link }: NewParcel): Promise<Shown> {
    const { jobs, database } = this.context;
    if (mail && !(await this.account.from())) throw new Problem('mail-not-set-up');
    const names = new Map((await documentsById(this.manager, copies.ids)).map(({ id, name }) => [id, name]));
    if (copies.ids.some((id) => !names.has(id))) throw new Problem('not-found', { what: 'One of the papers' });
    const id = await database.source.transaction(async (manager) => {
      const way = mail ? 'mail' : link ? 'link' : 'save';
      const { id } = await manager.save(
        Parcel,
        manager.create(Parcel, {
          ...{ way, state: 'packing', actorId: actor.id, wish: copies, title: mail?.subject ?? link?.name ?? '' },
          ...{ recipients: mail?.to ?? '', body: mail?.text ?? '' },
        }),
      );
      await manager.insert(
        ParcelPaper,
        copies.ids.map((documentId, at) => ({
          parcelId: id,
          number: at + 1,
          documentId,
          // What is hidden in it may stand in its name.
          name: copies.hidden ? 'A paper, parts hidden' : names.get(documentId)!,
        })),
      );
      if (link) await this.links.add(manager, id, link);
      for (const documentId of copies.ids) {
        const detail = { to: mail?.to, name: link?.name, hidden: copies.hidden?.length };
        await record(manager, actor, ACTIONS[way], 'document', documentId, detail);
      }
      await jobs.ask(manager, 'pack', { parcelId: id });
      await announce(manager, 'parcel', id);
      return id;
    });
    return this.read(id);
  }

  /** What is packed. @throws Problem 'not-found' */
  async fileOf(id: string): Promise<{ blobId: string; fileName: string; mediaType: string }> {
    const { blobId, fileName, mediaType } = await this.insist(id);
    if (!blobId) throw new Problem('not-found', { what: 'The file' });
    return { blobId, fileName, mediaType };
  }

  /** Tries a mail again that waits or was refused. @throws Problem 'not-found', 'parcel-elsewhere' */
  async again(actor: ActingAs, id: string): Promise<Shown> {
    const { database, jobs } = this.context;
    const { state } = await this.insist(id);
    await database.source.transaction(async (manager) => {
      const { affected } = await manager.update(
        Parcel,
        [
          { id, way: 'mail', state: 'refused' },
          { id, way: 'mail', state: 'waiting', nextTry: Not(IsNull()) },
        ],
        { state: 'waiting', nextTry: new Date(), tries: 0 },
      );
      if (affected === 0) throw elsewhere(state);
      await record(manager, actor, 'sent again', 'parcel', id);
      // One whose copies could not be made is packed first.
      const { blobId } = await manager.findOneByOrFail(Parcel, { id });
      if (!blobId) await manager.update(Parcel, { id }, { state: 'packing', problem: null });
      await jobs.ask(manager, blobId ? 'post' : 'pack', { parcelId: id });
      await announce(manager, 'parcel', id);
    });
    return this.read(id);
  }

  /** Stops a mail that was not sent yet, ends a link, lets go of what was packed to be saved. @throws Problem 'not-found', 'parcel-elsewhere' */
  async end(actor: ActingAs, id: string): Promise<Shown> {
    const { state } = await this.insist(id);
    await this.context.database.source.transaction(async (manager) => {
      const { affected } = await manager.update(
        Parcel,
        [
          { id, state: In(['packing', 'ready', 'refused']) },
          // One that is being handed to the mail server waits for nothing.
          { id, state: 'waiting', nextTry: Not(IsNull()) },
        ],
        { state: 'ended', doneAt: new Date(), blobId: null, wish: null, nextTry: null },
      );
      if (affected === 0) throw elsewhere(state);
      await record(manager, actor, 'ended', 'parcel', id);
      await announce(manager, 'parcel', id);
    });
    return this.read(id);
  }

  /** Those that mails went to, the latest first. */
  async addresses(): Promise<string[]> {
    const found = await this.manager.find(Parcel, {
      where: { way: 'mail' },
      select: { recipients: true },
      order: { madeAt: 'desc' },
      take: MOST_SHOWN,
    });
    return [...new Set(found.flatMap(({ recipients }) => addressesIn(recipients)))];
  }

  /** Sends a mail whose time has come. One that the server can't take now is tried again, for two days; what it refuses is kept. */
  async post(parcelId: string): Promise<void> {
    const parcel = await takeForPosting(this.manager, parcelId);
    if (!parcel) return;
    const recipients = addressesIn(parcel.recipients).map(bareAddress);
    try {
      const refused = await this.account.send(await blobBytes(this.context.database, parcel.blobId), recipients);
      const problem = refused.length > 0 ? new Problem('mail-in-part', { addresses: refused.join(', ') }).report : null;
      await this.settle(parcelId, { state: 'sent', doneAt: new Date(), blobId: null, nextTry: null, problem });
    } catch (error) {
      if (error instanceof Problem)
        return this.settle(parcelId, { state: 'refused', problem: error.report, nextTry: null });
      if (!(error instanceof MailFailure)) throw error;
      const pause = error.forGood ? undefined : PAUSES[parcel.tries];
      const problem = new Problem(pause ? 'mail-waits' : 'mail-refused', { detail: error.message }).report;
      if (!pause) return this.settle(parcelId, { state: 'refused', problem, nextTry: null });
      const nextTry = new Date(Date.now() + pause * MINUTE_MS);
      // Together: a mail that waits without anybody being asked would wait for ever.
      await this.context.database.source.transaction(async (manager) => {
        await manager.update(Parcel, { id: parcelId }, { problem, nextTry, tries: parcel.tries + 1 });
        await this.context.jobs.askLater(manager, 'post', { parcelId }, nextTry);
        await announce(manager, 'parcel', parcelId);
      });
    }
  }

  /** Lets go of what was packed to be saved, and of what is behind links that have ended. */
  async sweep(): Promise<void> {
    await this.manager.delete(Parcel, { way: 'save', madeAt: LessThan(new Date(Date.now() - SAVED_LASTS_MS)) });
    for (const id of await this.links.over(this.manager))
      await this.settle(id, { state: 'ended', doneAt: new Date(), blobId: null });
  }

  private settle(id: string, change: Parameters<typeof settleParcel>[2]): Promise<void> {
    return settleParcel(this.context, id, change);
  }

  private async insist(id: string): Promise<Parcel> {
    const found = await this.manager.findOneBy(Parcel, { id });
    if (!found) throw new Problem('not-found', { what: 'What was sent' });
    return found;
  }

  private shown({ actor, papers, link, ...parcel }: Parcel, looks: readonly ParcelLook[], coded: boolean): Shown {
    const { id, way, state, title, recipients, fileName, bytes, problem, madeAt, doneAt, nextTry } = parcel;
    const isOver = link && state !== 'ended' && this.links.isOver(link);
    return {
      ...{ id, way, title, fileName, bytes },
      state: isOver ? 'ended' : state,
      to: recipients,
      papers: papers!.map(({ documentId, name }) => ({ id: documentId, name })),
      by: actor!.name,
      made: madeAt.toISOString(),
      done: (doneAt ?? (isOver ? link.endsAt : null))?.toISOString() ?? null,
      nextTry: nextTry?.toISOString() ?? null,
      problem: problem && toldProblem(problem),
      link: link ? this.links.shown(link, looks, coded) : null,
    };
  }
}

/** @param state what it was a moment ago */
function elsewhere(state: Parcel['state']): Problem {
  return new Problem('parcel-elsewhere', { state: state === 'waiting' ? 'being sent' : state });
}

const ACTIONS = { mail: 'sent by mail', link: 'laid behind a link', save: 'copied' } as const;

/** Packs what a parcel is to hold, unless it was ended meanwhile: copies, and the mail around them. */
export async function packParcel(context: Context, desks: CopyDesks, parcelId: string): Promise<void> {
  const { database, jobs } = context;
  const { manager } = database.source;
  const parcel = await manager.findOneBy(Parcel, { id: parcelId, state: 'packing' });
  if (!parcel?.wish) return;
  const { wish, way, title, recipients, body } = parcel;
  try {
    const made = await withScratch(async (folder) => {
      const copies = await copiesOf(context, desks, wish, folder);
      if (way !== 'mail') return inOneFile(copies);
      const head = { from: await senderOf(manager), to: recipients, subject: title, text: body, date: new Date() };
      return { bytes: await mailOf(copies, head), name: 'mail.eml', mediaType: 'message/rfc822' };
    });
    const { id: blobId, size } = await storeBytes(database, made.bytes);
    await manager.transaction(async (inside) => {
      const packed = { blobId, bytes: size, fileName: made.name, mediaType: made.mediaType, wish: null };
      const state = way === 'mail' ? 'waiting' : 'ready';
      const { affected } = await inside.update(
        Parcel,
        { id: parcelId, state: 'packing' },
        { ...packed, state, nextTry: way === 'mail' ? new Date() : null },
      );
      if (affected === 0) return;
      if (way === 'mail') await jobs.ask(inside, 'post', { parcelId });
      await announce(inside, 'parcel', parcelId);
    });
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    await settleParcel(context, parcelId, { state: 'refused', problem: error.report });
  }
}

/** Writes down what became of a parcel, and tells it. */
export async function settleParcel(
  { database }: Context,
  id: string,
  change: Partial<Pick<Parcel, 'state' | 'problem' | 'nextTry' | 'tries' | 'doneAt' | 'blobId'>>,
): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.update(Parcel, { id, state: Not('ended') }, change);
    await announce(manager, 'parcel', id);
  });
}
