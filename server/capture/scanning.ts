import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Scan, Scanner, ScanPreset as ShownPreset, ScanSettings, ScanSourceName } from '@crow/contract/scanning';
import { Landing } from '@crow/core/sorting/arrangement';
import { Context } from '../platform/context';
import { EsclScanner } from '../devices/escl';
import { findScanners } from '../devices/findScanners';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { takeInBytes } from './intake';
import { KeptScanner, ScanPreset } from '../platform/entities';

export interface ScanPlace {
  stackId: string;
  stackName: string;
  position: number;
  landing: Landing;
  documentId?: string;
}

const PREVIEW_DPI = 75;
/** How long the end of a scan is told, once it is over. */
const MOST_TOLD = 20;

export async function listScanners(manager: EntityManager): Promise<Scanner[]> {
  const kept = await manager.find(KeptScanner, {
    order: { lastUsed: { direction: 'DESC', nulls: 'LAST' }, addedAt: 'ASC' },
  });
  return kept.map(shown);
}

function shown({ id, name, address, capabilities, lastSettings }: KeptScanner): Scanner {
  return { id, name, address, capabilities, last: lastSettings };
}

/** Makes a scanner known by its address, or asks a known one anew what it can do. @throws Problem 'not-valid', 'scanner-gone', 'scanner-strange' */
export async function addScanner({ database }: Context, actor: ActingAs, typed: string): Promise<Scanner> {
  const address = fullAddress(typed);
  const capabilities = await new EsclScanner(address).capabilities();
  return database.source.transaction(async (manager) => {
    await manager.upsert(KeptScanner, { name: capabilities.model, address, capabilities }, ['address']);
    const kept = await manager.findOneByOrFail(KeptScanner, { address });
    await record(manager, actor, 'made known', 'scanner', kept.id, { address });
    await announce(manager, 'scan', null);
    return shown(kept);
  });
}

/** What somebody types of an address, in full: `192.168.1.20` is http://192.168.1.20/eSCL. */
function fullAddress(typed: string): string {
  const full = /^https?:\/\//.test(typed) ? typed : `http://${typed}`;
  if (!URL.canParse(full)) throw new Problem('not-valid', { detail: 'an address looks like 192.168.1.20' });
  const url = new URL(full);
  const path = url.pathname.replace(/\/+$/, '');
  return `${url.origin}${path === '' ? '/eSCL' : path}`;
}

/** Looks for scanners on the network and makes those that answer known. */
export async function lookForScanners(context: Context, actor: ActingAs): Promise<Scanner[]> {
  const found = await findScanners();
  // One that announces itself and then doesn't answer is left out.
  await Promise.all(found.map(({ address }) => addScanner(context, actor, address).catch(() => undefined)));
  return listScanners(context.database.source.manager);
}

export async function forgetScanner({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.delete(KeptScanner, { id });
    await record(manager, actor, 'forgot', 'scanner', id);
    await announce(manager, 'scan', null);
  });
}

export async function listPresets(manager: EntityManager): Promise<ShownPreset[]> {
  const kept = await manager.find(ScanPreset, { order: { addedAt: 'ASC' } });
  return kept.map(({ id, name, scannerId, settings }) => ({ id, name, scannerId, settings }));
}

export async function savePreset(
  { database }: Context,
  actor: ActingAs,
  { name, scannerId, settings }: Omit<ShownPreset, 'id'>,
): Promise<ShownPreset> {
  return database.source.transaction(async (manager) => {
    await scannerById(manager, scannerId);
    await manager.upsert(ScanPreset, { name, scannerId, settings }, ['name']);
    const { id } = await manager.findOneByOrFail(ScanPreset, { name });
    await record(manager, actor, 'kept', 'preset', id, { name });
    await announce(manager, 'scan', null);
    return { id, name, scannerId, settings };
  });
}

export async function deletePreset({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.delete(ScanPreset, { id });
    await record(manager, actor, 'deleted', 'preset', id);
    await announce(manager, 'scan', null);
  });
}

async function scannerById(manager: EntityManager, id: string): Promise<KeptScanner> {
  const scanner = await manager.findOneBy(KeptScanner, { id });
  if (!scanner) throw new Problem('not-found', { what: 'The scanner' });
  return scanner;
}

/** The scans that run, one for each scanner, and how the last ones ended. */
export class ScanDesk {
  private readonly scans: (Scan & { stopping: AbortController; over: Promise<void> })[] = [];

  constructor(private readonly context: Context) {}

  list(): Scan[] {
    return this.scans.map(({ id, scannerId, stackId, state, pages, problem }) => ({
      id,
      scannerId,
      stackId,
      state,
      pages,
      problem,
    }));
  }

  /** Begins a scan; its pages go to a stack as they come. @throws Problem 'not-found', 'scanner-busy', 'scanner-gone' */
  async start(actor: ActingAs, scannerId: string, settings: ScanSettings, place: ScanPlace): Promise<Scan> {
    const { manager } = this.context.database.source;
    const scanner = await scannerById(manager, scannerId);
    if (this.scans.some((scan) => scan.scannerId === scannerId && scan.state === 'running'))
      throw new Problem('scanner-busy');
    const device = new EsclScanner(scanner.address);
    const source = await sourceOf(device, settings, scanner);
    await manager.update(KeptScanner, { id: scannerId }, { lastSettings: settings, lastUsed: new Date() });
    const scan = {
      id: randomUUID(),
      scannerId,
      stackId: place.stackId,
      state: 'running' as Scan['state'],
      pages: 0,
      problem: null as Scan['problem'],
      stopping: new AbortController(),
      over: Promise.resolve(),
    };
    this.scans.unshift(scan);
    this.scans.length = Math.min(this.scans.length, MOST_TOLD);
    scan.over = this.run(actor, device, scan, settings, source, place);
    await announce(manager, 'scan', scan.id);
    return this.list()[0];
  }

  stop(id: string): void {
    const scan = this.scans.find((each) => each.id === id);
    if (!scan) throw new Problem('not-found', { what: 'The scan' });
    scan.stopping.abort();
  }

  /** Stops everything and waits until it has. */
  async close(): Promise<void> {
    for (const { stopping } of this.scans) stopping.abort();
    await Promise.all(this.scans.map(({ over }) => over));
  }

  private async run(
    actor: ActingAs,
    device: EsclScanner,
    scan: (typeof this.scans)[number],
    settings: ScanSettings,
    source: ScanSourceName,
    place: ScanPlace,
  ): Promise<void> {
    const { database } = this.context;
    try {
      for await (const bytes of device.scan(settings, source, scan.stopping.signal)) {
        await takeInBytes(
          this.context,
          actor,
          {
            ...place,
            fileId: randomUUID(),
            fileName: `Scan ${place.position + scan.pages + 1}.jpg`,
            position: place.position + scan.pages,
            back: source === 'feeder' && settings.bothSides ? scan.pages % 2 === 1 : undefined,
            whole: settings.whole,
          },
          oneChunk(bytes),
        );
        scan.pages++;
        await announce(database.source.manager, 'scan', scan.id);
      }
      scan.state = scan.stopping.signal.aborted ? 'stopped' : 'done';
    } catch (error) {
      const stopped = scan.stopping.signal.aborted;
      scan.state = stopped ? 'stopped' : 'failed';
      if (!stopped) {
        scan.problem = (error instanceof Problem ? error : new Problem('unexpected')).report;
        if (!(error instanceof Problem)) this.context.log.error({ error }, 'scanning');
      }
    }
    await announce(database.source.manager, 'scan', scan.id).catch(() => undefined);
  }

  /** A small picture of all that lies on the glass. @throws Problem as `EsclScanner.scan` */
  async preview(scannerId: string): Promise<Uint8Array> {
    const scanner = await scannerById(this.context.database.source.manager, scannerId);
    const { resolutions, colours } = scanner.capabilities;
    const settings: ScanSettings = {
      source: 'glass',
      bothSides: false,
      colour: colours.includes('colour') ? 'colour' : colours[0],
      resolution: resolutions.find((dpi) => dpi >= PREVIEW_DPI) ?? resolutions[0],
      area: null,
      whole: false,
    };
    for await (const bytes of new EsclScanner(scanner.address).scan(settings, 'glass', new AbortController().signal))
      return bytes;
    throw new Problem('scanner-refused');
  }
}

/** Which of the two is meant, where that is left to whichever has paper in it. */
async function sourceOf(device: EsclScanner, { source }: ScanSettings, scanner: KeptScanner): Promise<ScanSourceName> {
  const { glass, feeder } = scanner.capabilities;
  if (source !== 'whichever') return source;
  if (!glass) return 'feeder';
  if (!feeder) return 'glass';
  // A jam in the feeder is told rather than the glass scanned.
  return (await device.feeder()) === 'empty' ? 'glass' : 'feeder';
}

async function* oneChunk(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
