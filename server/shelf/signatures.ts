import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Signature as Shown } from '@crow/contract/marks';
import { Stroke } from '@crow/core/pdf/marks/mark';
import { Signature } from '../platform/entities';
import { ActingAs } from '../platform/history';
import { announce } from '../platform/live';

/** The signatures that somebody keeps, in the order in which they were made. */
export async function signaturesOf(manager: EntityManager, actor: ActingAs): Promise<Shown[]> {
  const found = await manager.find(Signature, { where: { actorId: actor.id }, order: { madeAt: 'asc' } });
  return found.map(({ id, text, strokes, shape }) => ({ id, text, strokes, shape }));
}

/** Keeps a signature. @throws Problem 'not-valid' when somebody keeps one of that identifier, or it is empty */
export async function keepSignature(manager: EntityManager, actor: ActingAs, signature: Shown): Promise<Shown[]> {
  const { id, text, strokes, shape } = signature;
  if (!text.trim() && strokes.length === 0) throw new Problem('not-valid', { detail: 'the signature is empty' });
  if (await manager.existsBy(Signature, { id }))
    throw new Problem('not-valid', { detail: 'that signature is kept already' });
  await manager.insert(Signature, { id, text, strokes: strokes as Stroke[], shape, actorId: actor.id });
  await announce(manager, 'signature', id);
  return signaturesOf(manager, actor);
}

/** Keeps a signature of one's own no longer. @throws Problem 'not-found' */
export async function forgetSignature(manager: EntityManager, actor: ActingAs, id: string): Promise<void> {
  const { affected } = await manager.delete(Signature, { id, actorId: actor.id });
  if (affected === 0) throw new Problem('not-found', { what: 'The signature' });
  await announce(manager, 'signature', id);
}
