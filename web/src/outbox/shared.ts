import { Outbox, Waiting } from './outboxStore';

/** Where other applications of the device hand pictures and PDFs to this one (Web Share Target). */
export const SHARED = '/share';
export const SHARED_FIELD = 'files';

/** Puts what another application handed over into the outbox, as one stack, in the order that it came in. */
export async function takeShared(form: FormData, outbox: Outbox): Promise<void> {
  const files = form.getAll(SHARED_FIELD).filter((each): each is File => each instanceof File);
  const stack = crypto.randomUUID();
  for (const [position, file] of files.entries()) {
    const told: Waiting['told'] = {
      stack,
      stackName: files.length === 1 ? file.name : 'Shared pictures',
      name: file.name || 'Shared picture',
      position,
    };
    await outbox.put({ id: crypto.randomUUID(), order: nextOrder(), told, bytes: file, at: Date.now() });
  }
}

let latest = 0;

/** A number that grows from call to call, and from visit to visit. */
export function nextOrder(): number {
  latest = Math.max(latest + 1, Date.now() * 1000);
  return latest;
}
