import { EntityManager } from 'typeorm';
import { Sheet as ShownSheet, Sheets } from '@crow/contract/keeping';
import { Problem } from '@crow/contract/problems';
import { Input } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { LEGIBILITY_BARS } from '@crow/core/imaging/legibility';
import { proofFaults, sayProofFault } from '@crow/core/keeping/proof';
import { judgeSheet } from '@crow/core/keeping/sheets';
import { BookCountry } from '@crow/core/ledger/books/taxCodes';
import { dayOf } from '@crow/core/reading/dayForms';
import { SURE } from '@crow/core/reading/doubtful';
import { likeOf, OwnKind } from '@crow/core/reading/facts/kindList';
import { waysOf } from '../ledger/books';
import { Context } from '../platform/context';
import { LookedArchive, Place } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { readSettings } from '../platform/settings';
import { lockDocument } from '../stack/locks';
import { readPlaces } from './places';
import { lastCompared, saySheets, SheetRow, sheetsOnShelf } from './queries';

const BARS = { ...LEGIBILITY_BARS, fact: SURE };

/** What becomes of the sheets of all papers on the shelf. */
export async function listSheets({ database: { source }, jobs }: Context): Promise<Sheets> {
  const { manager } = source;
  const [archive] = await manager.find(LookedArchive, { order: { at: 'DESC' }, take: 1 });
  return {
    places: await readPlaces(manager),
    sheets: await shown(manager, null),
    comparedAt: await lastCompared(manager),
    comparing: await jobs.isUnderWay(manager, 'prove'),
    archive: archive ? { name: archive.name, at: archive.at.toISOString(), papers: archive.papers } : null,
  };
}

/** What becomes of the sheet of one paper; null while it is not on the shelf. */
export async function readSheet(
  manager: EntityManager,
  documentId: string,
): Promise<{ sheet: ShownSheet | null; places: Sheets['places'] }> {
  const [sheet] = await shown(manager, [documentId]);
  return { sheet: sheet ?? null, places: await readPlaces(manager) };
}

async function shown(manager: EntityManager, ids: readonly string[] | null): Promise<ShownSheet[]> {
  const { country } = await waysOf(manager);
  const { ownKinds } = await readSettings(manager);
  const today = dayOf(new Date());
  return (await sheetsOnShelf(manager, BARS, ids)).map((row) => judged(row, { country, ownKinds, today }));
}

/** What the rules, the proof of its file and a person say of a sheet. */
function judged(
  row: SheetRow,
  { country, ownKinds, today }: { country: BookCountry; ownKinds: OwnKind[]; today: string },
): ShownSheet {
  const { documentId, name, folderId, folderPath, vendor, day, ends, inBooks, placeId, said, goneAt, goneBy } = row;
  const kind = likeOf(row.kind ?? 'other', ownKinds);
  const { mayGoFrom, fileUntil, rule } = judgeSheet(
    { kind, day, ends, inBooks, about: `${name} ${row.subject ?? ''}` },
    country,
    today,
  );
  const allowed = said === 'may go' || (said !== 'keep' && mayGoFrom !== null && mayGoFrom <= today);
  const faults = allowed ? faultsOf(row) : [];
  // Where its sheet lies says that there is one, whatever the file looks like.
  const none = row.cameAsFile && !placeId && !said;
  return {
    ...{ documentId, name, folderId, folderPath, kind, vendor, day, placeId, said, goneAt, goneBy, fileUntil },
    state: goneAt ? 'gone' : none ? 'none' : allowed && faults.length === 0 ? 'may go' : 'keep',
    mayGoFrom: said === 'keep' ? null : mayGoFrom,
    faults: faults.map(sayProofFault),
    why: said ? 'Somebody said so' : rule.why,
    source: said ? '' : rule.source,
  };
}

function faultsOf({ checks, sha256, ...row }: SheetRow) {
  return proofFaults({
    ...row,
    sha256: sha256 ?? '',
    troubled: row.troubled || !sha256,
    pagesMissing: checks.some(({ code }) => code !== 'iban'),
    misfits: checks.some(({ code }) => code === 'iban'),
  });
}

/**
 * Says where sheets lie, what is to become of them, or that they are gone.
 * @throws Problem 'not-found', 'sheet-kept' when one that is to be gone may not go
 */
export async function changeSheets(
  { database: { source } }: Context,
  actor: ActingAs,
  { ids, placeId, said, gone }: Input<typeof endpoints.changeSheets>['body'],
): Promise<void> {
  await source.transaction(async (manager) => {
    for (const id of [...new Set(ids)].sort()) await lockDocument(manager, id);
    if (placeId && !(await manager.existsBy(Place, { id: placeId })))
      throw new Problem('not-found', { what: 'The box or binder' });
    if (gone) {
      const kept = (await shown(manager, ids)).find(({ state }) => state !== 'may go' && state !== 'gone');
      if (kept) throw new Problem('sheet-kept', { name: kept.name, detail: kept.faults[0] ?? kept.why.toLowerCase() });
    }
    await saySheets(manager, ids, {
      placeId,
      said,
      gone: gone === undefined ? undefined : gone ? { by: actor.id } : null,
    });
    for (const id of ids)
      await record(manager, actor, gone ? 'shredded the sheet of' : 'said of the sheet of', 'document', id, {
        placeId,
        said,
        gone,
      });
    await announce(manager, 'sheet', null);
  });
}
