import { Context } from '../platform/context';
import { CopyPlace } from '../platform/entities';

/** Copies that are kept in step follow what became of a paper on the shelf. */
export function listenInSending({ happenings, jobs }: Context): void {
  happenings.on('paper-shelved', async (manager) => {
    const places = await manager.find(CopyPlace, { where: { keep: true }, select: { id: true } });
    for (const { id } of places) await jobs.askOnce(manager, 'copy', { placeId: id });
  });
}
