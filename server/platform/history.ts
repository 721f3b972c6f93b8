import { EntityManager } from 'typeorm';

/** Who asks for something; every request and every job has one. */
export interface ActingAs {
  id: string;
  name: string;
}

/** Writes down who did what; in the transaction of the deed itself. */
export async function record(
  manager: EntityManager,
  actor: ActingAs,
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

export async function owner(manager: EntityManager): Promise<ActingAs> {
  const [actor] = (await manager.query(`select id, name from actor where role = 'owner'`)) as ActingAs[];
  return actor;
}
