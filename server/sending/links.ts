import { createHash, randomBytes } from 'node:crypto';
import { EntityManager, MoreThan } from 'typeorm';
import { NewParcel, Parcel as Shown } from '@crow/contract/sending';
import { squareCode } from '../engines/squareCode';
import { Parcel, ParcelLink, ParcelLook } from '../platform/entities';
import { record, theProgram } from '../platform/history';
import { announce } from '../platform/live';
import { hashPhrase, isPhrase } from '../platform/phrases';
import { Seal } from '../platform/seal';
import { countLinkTry, countLook, endedLinks } from './queries';

/** Where what is behind a link is looked at, without a session: /look/ and the link's secret. */
export const LOOK = '/look/';
const SECRET_BYTES = 24;
const DAY_MS = 24 * 3_600_000;
/** So many wrong passwords, and a link leads nowhere any more. */
const MOST_TRIES = 20;
/** Whoever was let look has so long to fetch the file. */
const TICKET_LASTS_MS = 15 * 60_000;

/** What somebody who follows a link is told of it before they look. */
export interface Behind {
  parcelId: string;
  title: string;
  bytes: number | null;
  ends: Date;
  locked: boolean;
  /** Whether it is still being packed. */
  packing: boolean;
}

/** Links that end by themselves: each leads to one copy, and to nothing else. */
export class Links {
  /** Who was let look, for the moments in which a browser fetches the file. */
  private readonly tickets = new Map<string, { parcelId: string; until: number }>();

  /** @param base where browsers reach this machine, and whether others than its own do */
  constructor(
    private readonly seal: Seal,
    private readonly base: () => { address: string; reached: boolean },
  ) {}

  async add(
    manager: EntityManager,
    parcelId: string,
    { days, looks, password }: NonNullable<NewParcel['link']>,
  ): Promise<void> {
    const secret = randomBytes(SECRET_BYTES).toString('base64url');
    await manager.insert(ParcelLink, {
      parcelId,
      secretHash: hashOf(secret),
      sealedSecret: this.seal.seal(secret),
      passwordHash: password ? await hashPhrase(password) : null,
      endsAt: new Date(Date.now() + days * DAY_MS),
      mostLooks: looks,
    });
  }

  /** @param coded whether as a square code, too */
  shown(
    { sealedSecret, endsAt, mostLooks, passwordHash }: ParcelLink,
    looks: readonly ParcelLook[],
    coded: boolean,
  ): Shown['link'] {
    const secret = this.seal.open(sealedSecret);
    const { address: base, reached } = this.base();
    const address = secret ? `${base}${LOOK}${secret}` : null;
    return {
      address,
      code: coded && address ? squareCode(address).map((row) => row.map((dark) => (dark ? '1' : '0')).join('')) : null,
      reached,
      ends: endsAt.toISOString(),
      mostLooks,
      locked: passwordHash !== null,
      looks: looks.map(({ at, place, browser }) => ({ at: at.toISOString(), from: place, browser })),
    };
  }

  isOver({ endsAt, mostLooks, looks, tries }: ParcelLink): boolean {
    return endsAt.getTime() <= Date.now() || (mostLooks !== null && looks >= mostLooks) || tries >= MOST_TRIES;
  }

  /** Those that are over and still lead to something. */
  async over(manager: EntityManager): Promise<string[]> {
    return (await endedLinks(manager)).map(({ id }) => id);
  }

  /** What is behind a link; undefined when it leads nowhere, or nowhere any more. */
  async behind(manager: EntityManager, secret: string): Promise<Behind | undefined> {
    const link = await manager.findOne(ParcelLink, {
      where: { secretHash: hashOf(secret), endsAt: MoreThan(new Date()) },
      relations: { parcel: true },
    });
    const { state, title, bytes } = link?.parcel ?? {};
    if (!link || this.isOver(link) || (state !== 'ready' && state !== 'packing')) return undefined;
    const { parcelId, endsAt, passwordHash } = link;
    return {
      ...{ parcelId, title: title!, bytes: bytes!, ends: endsAt },
      locked: passwordHash !== null,
      packing: state === 'packing',
    };
  }

  /** Lets somebody look. @returns a ticket to fetch the file with; undefined when the password is wrong, or nothing is there any more */
  async look(
    manager: EntityManager,
    secret: string,
    { password, place, browser }: { password: string; place: string; browser: string },
  ): Promise<string | undefined> {
    const found = await this.behind(manager, secret);
    if (!found || found.packing) return undefined;
    const { parcelId } = found;
    const { passwordHash } = await manager.findOneByOrFail(ParcelLink, { parcelId });
    if (passwordHash) {
      if (!(await countLinkTry(manager, parcelId, MOST_TRIES))) return undefined;
      if (!(await isPhrase(passwordHash, password))) {
        await announce(manager, 'parcel', parcelId);
        return undefined;
      }
    }
    const isCounted = await manager.transaction(async (inside) => {
      if (!(await countLook(inside, parcelId))) return false;
      await inside.insert(ParcelLook, { parcelId, place, browser });
      await record(inside, await theProgram(inside), 'let somebody look at', 'parcel', parcelId, { place, browser });
      await announce(inside, 'parcel', parcelId);
      return true;
    });
    if (!isCounted) return undefined;
    const ticket = randomBytes(SECRET_BYTES).toString('base64url');
    const now = Date.now();
    for (const [old, { until }] of this.tickets) if (until < now) this.tickets.delete(old);
    this.tickets.set(ticket, { parcelId, until: now + TICKET_LASTS_MS });
    return ticket;
  }

  /** What somebody fetches who was let look; undefined when that is too long ago, or the link has been ended. */
  async fetch(
    manager: EntityManager,
    ticket: string,
  ): Promise<{ blobId: string; fileName: string; mediaType: string } | undefined> {
    const { parcelId, until } = this.tickets.get(ticket) ?? {};
    if (!parcelId || until! < Date.now()) return undefined;
    const parcel = await manager.findOneBy(Parcel, { id: parcelId, state: 'ready' });
    return parcel?.blobId
      ? { blobId: parcel.blobId, fileName: parcel.fileName, mediaType: parcel.mediaType }
      : undefined;
  }
}

function hashOf(secret: string): Buffer {
  return createHash('sha256').update(secret).digest();
}
