import { join } from 'node:path';
import { FastifyInstance } from 'fastify';
import { captureRoutes } from './capture/routes';
import { ScanDesk } from './capture/scanning';
import { SourceShelf } from './capture/sources';
import { Uploads } from './capture/uploads';
import { Watcher } from './capture/watching';
import { listenInChecking } from './checking/listening';
import { checkingRoutes } from './checking/routes';
import { heavyHere } from './engines/heavy';
import { findingRoutes } from './finding/routes';
import { generalRoutes } from './general';
import { listenInKeeping } from './keeping/listening';
import { keepingRoutes } from './keeping/routes';
import { listenInLedger } from './ledger/listening';
import { ledgerRoutes } from './ledger/routes';
import { listenInPages } from './pages/listening';
import { NetworkDoor } from './people/networkDoor';
import { peopleRoutes } from './people/routes';
import { PictureDesk } from './pages/pagePictures';
import { pageRoutes } from './pages/routes';
import { Context } from './platform/context';
import { Happenings } from './platform/happenings';
import { Seal } from './platform/seal';
import { LiveHub } from './platform/http/liveHub';
import { CopyPlaces } from './sending/copyPlaces';
import { Links } from './sending/links';
import { listenInSending } from './sending/listening';
import { MailAccount } from './sending/mailAccount';
import { Parcels } from './sending/parcels';
import { Sending, sendingRoutes } from './sending/routes';
import { listenOnShelf } from './shelf/listening';
import { shelfRoutes } from './shelf/routes';
import { ShelfChanges } from './shelf/shelfChanges';
import { listenInSorting } from './sorting/listening';
import { sortingRoutes } from './sorting/routes';

/** What services work with, heavy work done here unless said otherwise, each room listening to those before it in the order of the work. */
export function openContext(parts: Omit<Context, 'happenings' | 'heavy'> & Partial<Pick<Context, 'heavy'>>): Context {
  const context: Context = { heavy: heavyHere, ...parts, happenings: new Happenings() };
  for (const listen of [
    listenInPages,
    listenInSorting,
    listenInChecking,
    listenOnShelf,
    listenInLedger,
    listenInKeeping,
    listenInSending,
  ])
    listen(context);
  return context;
}

/**
 * What goes out: the account at a mail server, links, what is sent by them, and copies in folders.
 * @param home where the key lies that only this machine has
 * @param ownFolders where the program keeps its own files
 */
export function openSending(
  context: Context,
  { home, ownFolders, networkDoor }: { home: string; ownFolders: readonly string[]; networkDoor: NetworkDoor },
): Sending {
  const seal = new Seal(join(home, 'seal.key'));
  const account = new MailAccount(context.database.source.manager, seal);
  const links = new Links(seal, () => networkDoor.reach);
  const copyPlaces = new CopyPlaces(context, ownFolders);
  return { account, copyPlaces, links, parcels: new Parcels(context, account, links) };
}

/** What runs in the server beside the database. */
export interface Parts extends Sending {
  pictures: PictureDesk;
  sources: SourceShelf;
  hub: LiveHub;
  scans: ScanDesk;
  watcher: Watcher;
  uploads: Uploads;
  changes: ShelfChanges;
  networkDoor: NetworkDoor;
}

/** The routes of all rooms. */
export function allRoutes(app: FastifyInstance, context: Context, parts: Parts): void {
  generalRoutes(app, context, parts);
  captureRoutes(app, context, parts);
  pageRoutes(app, context, parts);
  sortingRoutes(app, context);
  checkingRoutes(app, context);
  shelfRoutes(app, context, parts);
  findingRoutes(app, context);
  ledgerRoutes(app, context);
  keepingRoutes(app, context);
  sendingRoutes(app, context, parts);
  peopleRoutes(app, context, parts);
}
