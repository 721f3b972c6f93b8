import { EntityManager } from 'typeorm';
import { Duplicate } from '@crow/contract/documents';
import { likeness } from '@crow/core/imaging/likeness';
import { rows } from '../platform/database';

/** Documents that may be the same paper taken in twice: by what is known of them, or, where little is written, by what they look like. */
export async function duplicatesOf(manager: EntityManager, documentId: string): Promise<Duplicate[]> {
  const same = await sameInWords(manager, documentId);
  const alike = await alikeFromAfar(manager, documentId);
  return [...same, ...alike.filter(({ id }) => !same.some((each) => each.id === id))];
}

/** A page with fewer words is known by what it looks like. */
const FEW_WORDS = 12;
/** So alike are two scans of the same paper. */
const ALIKE = 0.88;
/** So many papers, those that came last, are compared with: a few milliseconds of work. */
const MOST_COMPARED = 150;

/** Documents of a single page with few words that look alike: notes by hand, drawings, photos. */
async function alikeFromAfar(manager: EntityManager, documentId: string): Promise<Duplicate[]> {
  const sparse = `select d.id, d.name, d.state, d.folder_id as "folderId", p.look
    from document d join document_page dp on dp.document_id = d.id join page p on p.id = dp.page_id
    left join page_tokens t on t.page_id = p.id
    where d.binned_at is null and p.look is not null and coalesce(length(t.tokens), 0) < ${FEW_WORDS}
      and not exists (select 1 from document_page other where other.document_id = d.id and other.page_id <> dp.page_id)`;
  type Sparse = Omit<Duplicate, 'why'> & { look: Buffer };
  const [own] = await rows<Sparse>(manager, `${sparse} and d.id = $1`, [documentId]);
  if (!own) return [];
  const others = await rows<Sparse>(
    manager,
    `${sparse} and d.id <> $1 order by d.created_at desc limit ${MOST_COMPARED}`,
    [documentId],
  );
  return others
    .filter(({ look }) => likeness(own.look, look) >= ALIKE)
    .map(({ id, name, state, folderId }) => ({ id, name, state, folderId, why: 'the same look' }));
}

/** Those of the same sender with the same number, or date and total, or the same text. */
function sameInWords(manager: EntityManager, documentId: string): Promise<Duplicate[]> {
  return rows(
    manager,
    `with paper as (
       select d.id, d.name, d.state, d.folder_id, d.binned_at,
         max(lower(f.value)) filter (where f.name = 'vendor') as vendor, max(f.value) filter (where f.name = 'number') as number,
         max(f.value) filter (where f.name = 'date') as date, max(f.value) filter (where f.name = 'total') as total
       from document d join fact f on f.document_id = d.id
       where d.id in (
         select v.document_id from fact v where v.name = 'vendor' and lower(v.value) = (
           select lower(value) from fact where document_id = $1 and name = 'vendor'
         )
       ) group by d.id
     ), own as (select * from paper where id = $1), near as (
       select p.id, p.name, p.state, p.folder_id,
         p.number = own.number as same_number, p.date = own.date and p.total = own.total as same_sum,
         coalesce(p.number <> own.number, false) or coalesce(p.date <> own.date, false) as another,
         ${tokensOf('p.id')} as tokens, ${tokensOf('own.id')} as own_tokens
       from paper p join own on p.vendor = own.vendor and p.id <> own.id
       where p.binned_at is null and (p.number = own.number or p.date = own.date or p.total = own.total)
       limit 50
     ), compared as (
       select *, (select count(*) from (select unnest(tokens) intersect select unnest(own_tokens)) both_have)::real
         / nullif((select count(*) from (select unnest(tokens) union select unnest(own_tokens)) either_has), 0) as alike
       from near
     )
     select id, name, state, folder_id as "folderId", case
         when same_number then 'the same sender and number'
         when same_sum then 'the same sender, date and total'
         else 'the same words'
       end as why
     from compared where same_number or same_sum or (alike >= 0.92 and not another)`,
    [documentId],
  );
}

const tokensOf = (document: string) => `(select tsvector_to_array(t.tokens) from document_page dp
  join page_tokens t on t.page_id = dp.page_id where dp.document_id = ${document} order by dp.number limit 1)`;
