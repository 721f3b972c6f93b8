import { EntityManager } from 'typeorm';
import { Role } from '@crow/contract/roles';

/** Who asks for something; every request and every job has one. */
export interface ActingAs {
  id: string;
  name: string;
}

/** Who asks, and what they may do. */
export interface Asking extends ActingAs {
  role: Role;
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
    | 'session',
  subjectId: string | null,
  detail: Record<string, unknown> = {},
): Promise<void> {
  await manager.query(
    'insert into history (actor_id, action, subject, subject_id, detail) values ($1, $2, $3, $4, $5)',
    [actor.id, action, subject, subjectId, detail],
  );
}

/** Whoever does what nobody asked for at that moment: what the program does by itself. */
export async function theProgram(manager: EntityManager): Promise<ActingAs> {
  const [actor] = (await manager.query(`select id, name from actor where role = 'program'`)) as ActingAs[];
  return actor;
}
