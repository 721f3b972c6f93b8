import { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { buildApp } from './app';
import { openContext, openSending } from './assembly';
import { Context } from './platform/context';
import { copyHandlers, giveUp, postHandlers, proofHandlers, shelfHandlers } from './handlers';
import { heavyInThreads } from './engines/heavy';
import { ownScratch } from './engines/scratch';
import { Jobs } from './platform/jobs';
import { Rescue, Worker } from './platform/worker';
import { openLog } from './platform/log';
import { LiveHub } from './platform/http/liveHub';
import { PictureDesk } from './pages/pagePictures';
import { sweepOldPictures } from './pages/sweeping';
import { Disks } from './platform/disks';
import { indexOlderPages } from './reading/reading';
import { Shelf } from './shelf/shelf';
import { ShelfChanges } from './shelf/shelfChanges';
import { ScanDesk } from './capture/scanning';
import { SourceShelf } from './capture/sources';
import { Uploads } from './capture/uploads';
import { Watcher } from './capture/watching';
import { sweepUnfinishedBlobs } from './platform/blobs';
import { DoorPlan, NetworkDoor } from './people/networkDoor';
import { namedOrigin } from './people/origins';
import { connect } from './platform/database';
import { theProgram } from './platform/history';

const RESCUE_EVERY_MS = 2000;
const SWEEP_PARCELS_EVERY_MS = 10 * 60_000;
const SWEEP_EVERY_MS = 24 * 3600 * 1000;

/** The server process; CROW_DATABASE, CROW_SHELF and CROW_WEB say where things are, CROW_PORT which port to take (0: any). */
async function main(): Promise<void> {
  const { CROW_DATABASE: url, CROW_SHELF: shelfFolder, CROW_WEB: webFolder, CROW_PORT: port } = process.env;
  if (!url || !shelfFolder || !webFolder) throw new Error('CROW_DATABASE, CROW_SHELF and CROW_WEB must be set');
  ownScratch();
  const home = process.env.CROW_HOME_FOLDER ?? dirname(shelfFolder);
  const log = openLog('server');
  const database = await connect(url);
  const jobs = await Jobs.open(url, { supervise: true });
  const disks = new Disks([
    { what: 'the shelf folder', path: shelfFolder },
    ...(process.env.CROW_DATABASE_FOLDER ? [{ what: 'the database', path: process.env.CROW_DATABASE_FOLDER }] : []),
  ]);
  const heavy = heavyInThreads(join(import.meta.dirname, 'heavyThread.mjs'));
  const context = openContext({ database, jobs, log, disks, heavy });
  const sources = new SourceShelf(database);
  const shelf = new Shelf(context, shelfFolder);
  const hub = new LiveHub(url);
  await hub.start();
  await sweepUnfinishedBlobs(database);
  const changes = new ShelfChanges(shelf, await theProgram(database.source.manager));
  await changes.start();

  const scans = new ScanDesk(context);
  const pictures = new PictureDesk(context, sources);
  const ownFolders = [home, shelfFolder, join(import.meta.dirname, '../../..')];
  const watcher = new Watcher(context, ownFolders);
  const named = namedOrigin(process.env.CROW_ORIGIN);
  const networkDoor = new NetworkDoor(context, doorPlan(home, named));
  const sending = openSending(context, { home, ownFolders, networkDoor });
  const uploads = new Uploads(context, join(home, 'uploads'), `/api${endpoints.sendFile.path}`);
  await uploads.start();
  const app = await buildApp(context, {
    pictures,
    sources,
    hub,
    scans,
    watcher,
    uploads,
    changes,
    networkDoor,
    ...sending,
    webFolder,
    named,
  });
  const workers = [
    new Worker(context, ['shelve'], shelfHandlers(shelf)),
    new Worker(context, ['post'], postHandlers(sending.parcels)),
    new Worker(context, ['prove'], proofHandlers(shelf)),
    new Worker(context, ['copy'], copyHandlers(sending.copyPlaces)),
  ];
  workers.forEach((worker) => worker.start());
  watcher.start();
  sending.copyPlaces.start();
  indexOlderPages(context).catch((error) => log.warn({ error }, 'indexing pages again'));
  const sweep = () => sweepOldPictures(context).catch((error) => log.warn({ error }, 'sweeping pictures'));
  void sweep();
  const sweeping = setInterval(() => void sweep(), SWEEP_EVERY_MS);
  const sweepParcels = () => sending.parcels.sweep().catch((error) => log.warn({ error }, 'sweeping what was sent'));
  void sweepParcels();
  const sweepingParcels = setInterval(() => void sweepParcels(), SWEEP_PARCELS_EVERY_MS);
  const rescue = new Rescue(context);
  const looking = setInterval(() => {
    lookAfter(context, rescue).catch((error) => log.warn({ error }, 'could not look after the queue'));
  }, RESCUE_EVERY_MS);

  await app.listen({ host: '127.0.0.1', port: Number(port ?? 0) });
  const address = app.server.address() as AddressInfo;
  await networkDoor.start(app);
  process.send?.({ listening: address.port });

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(0), 4000).unref();
    clearInterval(looking);
    clearInterval(sweeping);
    clearInterval(sweepingParcels);
    await watcher.close();
    sending.copyPlaces.close();
    changes.close();
    await scans.close();
    await hub.close();
    await networkDoor.close();
    await app.close();
    await Promise.all(workers.map((worker) => worker.stop()));
    await sources.close();
    await heavy.close();
    await jobs.close();
    await database.source.destroy();
    process.exit(0);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
  process.on('disconnect', () => void stop());
}

/** What CROW_CERTIFICATE, CROW_CERTIFICATE_KEY and CROW_DOOR_PORT say of the door for other devices. */
function doorPlan(home: string, named: URL | undefined): DoorPlan {
  const { CROW_CERTIFICATE: certificateFile, CROW_CERTIFICATE_KEY: keyFile, CROW_DOOR_PORT: port } = process.env;
  if (certificateFile && keyFile && !named)
    throw new Error('CROW_CERTIFICATE needs CROW_ORIGIN, the name that it is for.');
  const certificate = certificateFile && keyFile ? { certificateFile, keyFile } : undefined;
  return { folder: join(home, 'authority'), port: Number(port ?? 0), named, certificate };
}

async function lookAfter(context: Context, rescue: Rescue): Promise<void> {
  await rescue.look();
  for (let given = await context.jobs.fetchGivenUp(); given; given = await context.jobs.fetchGivenUp()) {
    await giveUp(context, given);
  }
}

main().catch((error) => {
  openLog('server').error({ error }, 'could not start');
  process.exit(1);
});
