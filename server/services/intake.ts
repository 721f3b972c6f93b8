import { randomUUID } from 'node:crypto';
import { Problem } from '@crow/contract/problems';
import { Context } from '../context';
import { inspectFile, SourceInfo } from '../engines/sourceFile';
import { withScratch } from '../engines/scratch';
import { storeBlob } from '../store/blobs';
import { rows } from '../store/database';
import { SourceFile } from '../store/entities';
import { ActingAs, record } from '../store/history';
import { announce } from '../store/live';
import { materialise } from './sources';

export const MOST_FILE_BYTES = 1024 ** 3;

export interface Arrival {
  /** Chosen by the sender, so that several files can go to one stack and a repeated transfer adds nothing twice. */
  stackId: string;
  fileId: string;
  stackName: string;
  fileName: string;
  /** The file's place among those of its stack. */
  position: number;
}

/**
 * Takes in the bytes of a file. Only when all of them are in the database does the file exist, and with it the stack.
 * @throws Problem 'upload-interrupted', 'file-empty', 'file-too-large', 'stack-sorted'
 */
export async function takeInBytes(
  context: Context,
  actor: ActingAs,
  arrival: Arrival,
  bytes: AsyncIterable<Uint8Array>,
): Promise<void> {
  const { database, jobs } = context;
  const { stackId, fileId, stackName, fileName, position } = arrival;
  const blob = await storeBlob(database, bytes, {
    mostBytes: MOST_FILE_BYTES,
    tooLarge: () => new Problem('file-too-large', { name: fileName }),
  }).catch((error: NodeJS.ErrnoException) => {
    const interrupted = ['ECONNRESET', 'ERR_STREAM_PREMATURE_CLOSE', 'ECONNABORTED'].includes(error.code ?? '');
    throw interrupted ? new Problem('upload-interrupted', { name: fileName }) : error;
  });
  if (blob.size === 0) throw new Problem('file-empty', { name: fileName });
  await database.source.transaction(async (manager) => {
    await manager.query('insert into stack (id, name) values ($1, $2) on conflict do nothing', [stackId, stackName]);
    const [stack] = await rows<{ state: string }>(manager, 'select state from stack where id = $1 for update', [
      stackId,
    ]);
    if (stack.state !== 'open') throw new Problem('stack-sorted');
    const added = await rows(
      manager,
      `insert into source_file (id, stack_id, name, position, blob_id) values ($1, $2, $3, $4, $5)
       on conflict do nothing returning id`,
      [fileId, stackId, fileName, position, blob.id],
    );
    if (added.length === 0) return;
    await record(manager, actor, 'took in', 'file', fileId, { name: fileName, bytes: blob.size });
    await jobs.ask(manager, 'take-in', { fileId });
    await announce(manager, 'stack', stackId);
  });
}

/** Finds the pages of a file that has arrived; what can't be taken in is refused with a sentence and kept. */
export async function findPages(context: Context, fileId: string): Promise<void> {
  const { database } = context;
  const file = await database.source.manager.findOneBy(SourceFile, { id: fileId });
  if (!file || file.state !== 'waiting') return;
  let info: SourceInfo;
  try {
    info = await withScratch(async (folder) =>
      inspectFile(await materialise(database, file.blobId, folder), file.name),
    );
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return refuse(context, file, error);
  }
  await addPages(context, file, info);
}

async function addPages({ database, jobs }: Context, file: SourceFile, info: SourceInfo): Promise<void> {
  await database.source.transaction(async (manager) => {
    const [stack] = await rows<{ step: number; reading_stopped: boolean }>(
      manager,
      'select step, reading_stopped from stack where id = $1 for update',
      [file.stackId],
    );
    const taken = await rows(
      manager,
      `update source_file set state = 'taken', format = $2 where id = $1 and state = 'waiting' returning id`,
      [file.id, info.format],
    );
    if (!stack || taken.length === 0) return;
    const ids = info.pages.map(() => randomUUID());
    await manager.query(
      `insert into page (id, stack_id, source_file_id, source_number, position, width, height, point_width, point_height,
         source_width, source_height, source_point_width, source_point_height, scanned, reading)
       select id, $1, $2, number - 1, 1000000 + number, width, height, point_width, point_height,
         width, height, point_width, point_height, scanned, $3
       from unnest($4::uuid[], $5::int[], $6::int[], $7::real[], $8::real[], $9::boolean[])
         with ordinality as p (id, width, height, point_width, point_height, scanned, number)`,
      [
        file.stackId,
        file.id,
        stack.reading_stopped ? 'stopped' : 'waiting',
        ids,
        info.pages.map((page) => page.width),
        info.pages.map((page) => page.height),
        info.pages.map((page) => page.pointWidth),
        info.pages.map((page) => page.pointHeight),
        info.pages.map((page) => page.scanned),
      ],
    );
    // Until somebody arranges the stack, its pages follow the order of their files; later ones then come last.
    const order = stack.step === 0 ? 'f.position, p.source_number, p.part' : 'p.position, f.position, p.source_number';
    await manager.query(
      `update page set position = placed.place from (
         select p.id, row_number() over (order by ${order}) - 1 as place
         from page p join source_file f on f.id = p.source_file_id where p.stack_id = $1
       ) placed where placed.id = page.id`,
      [file.stackId],
    );
    // Each is read once its picture is made.
    await jobs.ask(manager, 'picture', ...ids.map((pageId) => ({ pageId })));
    await announce(manager, 'stack', file.stackId);
  });
}

/** Keeps the file, with the sentence that says why its pages could not be had. */
export async function refuse({ database }: Context, file: SourceFile, { report }: Problem): Promise<void> {
  await database.source.transaction(async (manager) => {
    await manager.query(`update source_file set state = 'refused', problem = $2 where id = $1 and state = 'waiting'`, [
      file.id,
      report,
    ]);
    await announce(manager, 'stack', file.stackId);
  });
}
