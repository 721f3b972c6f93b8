import { EntityManager } from 'typeorm';
import { Role } from '@crow/contract/roles';
import { Actor, History } from './entities';
import { Sight } from './sight';

/** Who asks for something; every request and every job has one. */
export interface ActingAs {
  id: string;
  name: string;
}

/** Who asks, what they may do, and what of everything they see. */
export interface Asking extends ActingAs {
  role: Role;
  sight: Sight;
}

/** Writes down who did what; in the transaction of the deed itself. */
export async function record(
  manager: EntityManager,
  actor: Pick<ActingAs, 'id'>,
  action: string,
  subject:
    | 'page'
    | 'stack'
    | 'document'
    | 'folder'
    | 'file'
    | 'settings'
    | 'bin'
    | 'scanner'
    | 'preset'
    | 'watched folder'
    | 'session'
    | 'person'
    | 'door'
    | 'parcel'
    | 'copy place'
    | 'entry'
    | 'statement'
    | 'books'
    | 'sheet'
    | 'place',
  subjectId: string | null,
  detail: Record<string, unknown> = {},
): Promise<void> {
  await manager.insert(History, { actorId: actor.id, action, subject, subjectId, detail: detail as object });
}

/** Whoever does what nobody asked for at that moment: what the program does by itself. */
export async function theProgram(manager: EntityManager): Promise<ActingAs> {
  const { id, name } = await manager.findOneByOrFail(Actor, { role: 'program' });
  return { id, name };
}
