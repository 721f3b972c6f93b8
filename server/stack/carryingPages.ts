import { EntityManager, In } from 'typeorm';
import { carryFile, copyFile, filesOfPages } from './queries';
import { Page } from '../platform/entities';

/** Carries pages over to another stack, each with the file that it is from; a file that keeps pages where it was is there in both. */
export async function carryPages(manager: EntityManager, pageIds: string[], to: string): Promise<void> {
  const files = await filesOfPages(manager, pageIds);
  for (const { id, all } of files) {
    if (all) {
      await carryFile(manager, id, to);
      continue;
    }
    const [copy] = await copyFile(manager, id, to);
    await manager.update(Page, { sourceFileId: id, id: In(pageIds) }, { sourceFileId: copy.id });
  }
  await manager.update(Page, { id: In(pageIds) }, { stackId: to });
}
