import { EntityManager } from 'typeorm';
import { Place as ShownPlace } from '@crow/contract/keeping';
import { Problem } from '@crow/contract/problems';
import { dividerCode } from '@crow/core/sorting/divider';
import { labelsPdf } from '@crow/core/pdf/labelsPdf';
import { squareCode } from '../engines/squareCode';
import { Context } from '../platform/context';
import { Place } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { placeNamed } from './queries';

const shownPlace = ({ id, name, takes, retired }: Place): ShownPlace => ({ id, name, takes, retired });

export async function readPlaces(manager: EntityManager): Promise<ShownPlace[]> {
  return (await manager.find(Place, { order: { turn: 'ASC' } })).map(shownPlace);
}

/** Adds a box or a binder, or takes one of that name into use again. @throws Problem 'place-there' */
export async function makePlace({ database: { source } }: Context, actor: ActingAs, name: string): Promise<ShownPlace> {
  return source.transaction(async (manager) => {
    const there = await placeNamed(manager, name);
    if (there && !there.retired) throw new Problem('place-there', { name });
    // One that was not used any more is used again, with what lies in it.
    const place = await manager.save(Place, { id: there?.id, name, takes: false, retired: false });
    await record(manager, actor, 'added', 'place', place.id, { name });
    await announce(manager, 'sheet', null);
    return shownPlace(place);
  });
}

/** @throws Problem 'not-found', 'place-there' */
export async function changePlace(
  { database: { source } }: Context,
  actor: ActingAs,
  id: string,
  change: { name?: string; takes?: boolean; retired?: boolean },
): Promise<ShownPlace> {
  return source.transaction(async (manager) => {
    const places = await manager.find(Place, { order: { id: 'ASC' }, lock: { mode: 'pessimistic_write' } });
    const place = places.find((each) => each.id === id);
    if (!place) throw new Problem('not-found', { what: 'The box or binder' });
    const { name, retired = place.retired } = change;
    // What is not used any more takes nothing.
    const takes = !retired && (change.takes ?? place.takes);
    if (name && places.some((each) => each.id !== id && each.name.toLowerCase() === name.toLowerCase()))
      throw new Problem('place-there', { name });
    if (takes) await manager.update(Place, { takes: true }, { takes: false });
    await manager.update(Place, { id }, { name: name || place.name, takes, retired });
    await record(manager, actor, 'changed', 'place', id, change);
    await announce(manager, 'sheet', null);
    return shownPlace(await manager.findOneByOrFail(Place, { id }));
  });
}

/** Labels for the places in use, or for one, six to a sheet. @throws Problem 'not-found' */
export async function placeLabels(manager: EntityManager, id: string | undefined): Promise<Uint8Array> {
  const places = (await readPlaces(manager)).filter((each) => (id ? each.id === id : !each.retired));
  if (places.length === 0) throw new Problem('not-found', { what: 'A box or binder' });
  return labelsPdf(
    places.map(({ id: placeId, name }) => ({
      name,
      code: squareCode(dividerCode({ folder: null, kind: null, place: { id: placeId, name } }), 'M'),
    })),
  );
}
