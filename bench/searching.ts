import { randomUUID } from 'node:crypto';
import { clusterUrl, prepareCluster, startPostgres, waitForEarlierEnd, waitUntilReady } from '@crow/server/cli/cluster';
import { freePort } from '@crow/server/cli/ports';
import { askShelf } from '@crow/server/finding/askingShelf';
import { find } from '@crow/server/finding/finding';
import { EVERYTHING } from '@crow/server/platform/sight';
import { connect, migrate } from '@crow/server/platform/database';
import pg from 'pg';
import { Chance } from './piles/chance';

/**
 * Fills a database with made pages and says how long Find takes over them: node scripts/bench.mjs searching FOLDER [PAGES]
 * FOLDER keeps the database for the next time. Words come as often as in any language (Zipf's law); every paper has a sender, a
 * date, a number and a total.
 */
const [folder, pages = '100000'] = process.argv.slice(2);
const PAGES = Number(pages);
const WORDS_A_PAGE = 120;
const PAGES_A_DOCUMENT = 3;

const cluster = prepareCluster(folder);
await waitForEarlierEnd(cluster);
const port = await freePort();
const server = startPostgres(cluster, port, { lasting: false });
await waitUntilReady(cluster, port);
try {
  const name = `searching_${PAGES}`;
  const admin = new pg.Client({ connectionString: clusterUrl(cluster, port, 'postgres') });
  await admin.connect();
  const { rows: there } = await admin.query('select 1 from pg_database where datname = $1', [name]);
  if (there.length === 0) await admin.query(`create database ${name}`);
  await admin.end();
  const database = await connect(clusterUrl(cluster, port, name));
  await migrate(database);
  if (there.length === 0) await fill();
  await measure();
  await database.source.destroy();

  /** A word by its rank: the first ones are the most frequent. */
  function word(rank: number): string {
    const parts = 'ba ke li mo nu ra se ti vo za dal fen gor hup jin kel mer nos pir tol'.split(' ');
    let text = '';
    for (let left = rank + 20; left > 0; left = Math.floor(left / parts.length)) text += parts[left % parts.length];
    return text;
  }

  async function fill(): Promise<void> {
    const { manager } = database.source;
    const chance = new Chance(5);
    const VOCABULARY = 60_000;
    const zipf = () => Math.min(VOCABULARY - 1, Math.floor(VOCABULARY ** chance.random()) - 1);
    const [{ id: folderId }] = (await manager.query(
      `insert into folder (name, name_key) values ('Papers', 'papers') returning id`,
    )) as { id: string }[];
    const [blob] = (await manager.query(
      `insert into blob (sha256, size) values (repeat('0', 64), 1) returning id`,
    )) as { id: string }[];
    const stack = randomUUID();
    await manager.query(`insert into stack (id, name, state) values ($1, 'made', 'sorted')`, [stack]);
    const file = randomUUID();
    await manager.query(
      `insert into source_file (id, stack_id, name, position, blob_id, state, actor_id)
       select $1, $2, 'made', 0, $3, 'taken', id from actor where role = 'program'`,
      [file, stack, blob.id],
    );
    // Made once at the end, the index of words takes a fraction of the time.
    const [index] = (await manager.query(
      `select indexname as name, indexdef as definition from pg_indexes where tablename = 'page_tokens' and indexdef ~ 'USING gin'`,
    )) as { name: string; definition: string }[];
    await manager.query(`drop index ${index.name}`);
    for (let done = 0; done < PAGES; done += 3000) {
      const documents: object[] = [];
      const made: object[] = [];
      const facts: object[] = [];
      for (let number = 0; number < 3000; number++) {
        if (number % PAGES_A_DOCUMENT === 0) {
          const id = randomUUID();
          const date = `20${10 + chance.whole(0, 16)}-0${chance.whole(1, 9)}-1${chance.whole(0, 9)}`;
          documents.push({ id, name: `Paper ${done + number}`, key: `paper ${done + number}` });
          facts.push({ id, name: 'vendor', value: `${word(zipf())} ${word(zipf())}` });
          facts.push({ id, name: 'date', value: date });
          facts.push({ id, name: 'total', value: chance.between(1, 2000).toFixed(2) });
          facts.push({ id, name: 'number', value: String(chance.whole(1000, 999_999)) });
        }
        const words = Array.from({ length: WORDS_A_PAGE }, (_, at) => [
          chance.of(0.06) ? String(chance.whole(1, 99_999)) : word(zipf()),
          (at % 10) * 120,
          Math.floor(at / 10) * 60,
          100,
          30,
          0.99,
          Math.floor(at / 10),
          Math.floor(at / 10) * 60 + 24,
        ]);
        made.push({
          id: randomUUID(),
          document: (documents.at(-1) as { id: string }).id,
          number: (number % PAGES_A_DOCUMENT) + 1,
          position: done + number,
          words,
          tokens: [...new Set(words.map(([text]) => String(text)))],
        });
      }
      await manager.query(
        `insert into document (id, stack_id, state, folder_id, name, name_key, filed_at)
         select (d->>'id')::uuid, $2, 'filed', $3, d->>'name', d->>'key', now() - random() * interval '5000 days'
         from jsonb_array_elements($1::jsonb) d`,
        [JSON.stringify(documents), stack, folderId],
      );
      await manager.query(
        `insert into fact (document_id, name, value, confidence)
         select (f->>'id')::uuid, f->>'name', f->>'value', 1 from jsonb_array_elements($1::jsonb) f`,
        [JSON.stringify(facts)],
      );
      await manager.query(
        `update fact set units = round(100 * value::numeric), digits = 2, currency = 'GBP' where name = 'total' and units is null`,
      );
      await manager.query(`update fact set day = value::date where name = 'date' and day is null`);
      const json = JSON.stringify(made);
      await manager.query(
        `insert into page (id, stack_id, source_file_id, source_number, part, position, source_width, source_height, source_point_width,
           source_point_height, width, height, point_width, point_height, reading, version)
         select (p->>'id')::uuid, $2, $3, (p->>'position')::int, 0, (p->>'position')::int, 1200, 1700, 595, 842, 1200, 1700, 595, 842, 'read', ''
         from jsonb_array_elements($1::jsonb) p`,
        [json, stack, file],
      );
      await manager.query(
        `insert into document_page (document_id, number, page_id)
         select (p->>'document')::uuid, (p->>'number')::int, (p->>'id')::uuid from jsonb_array_elements($1::jsonb) p`,
        [json],
      );
      await manager.query(
        `insert into reading (page_id, turn, version, width, height, language, own, words)
         select (p->>'id')::uuid, 0, '', 1200, 1700, 'eng', false, p->'words' from jsonb_array_elements($1::jsonb) p`,
        [json],
      );
      await manager.query(
        `insert into page_tokens (page_id, tokens)
         select (p->>'id')::uuid, array_to_tsvector(array(select jsonb_array_elements_text(p->'tokens')))
         from jsonb_array_elements($1::jsonb) p`,
        [json],
      );
      console.error(`${done + 3000} pages`);
    }
    await manager.query(index.definition);
    await manager.query(
      `insert into vocabulary (word) select word from ts_stat('select tokens from page_tokens') where word ~ '[a-z]{3}' on conflict do nothing`,
    );
    await manager.query('vacuum analyze');
  }

  async function measure(): Promise<void> {
    const { manager } = database.source;
    const chance = new Chance(77);
    const rank = (most: number) => Math.floor(most ** chance.random());
    const kinds: Record<string, () => string> = {
      'one word': () => word(rank(60_000)),
      'a frequent word': () => word(rank(30)),
      'two words': () => `${word(rank(60_000))} ${word(rank(2000))}`,
      'the beginning of a word': () => word(rank(60_000)).slice(0, 4),
      'a phrase': () => `"${word(rank(200))} ${word(rank(200))}"`,
      'a word misspelt': () => word(rank(60_000)).replace(/[aeiou]/, 'y'),
      'a number': () => String(chance.whole(1, 99_999)),
      'word and conditions': () =>
        `total>${chance.whole(10, 1900)} date:20${10 + chance.whole(0, 16)} ${word(rank(5000))}`,
      'conditions alone': () => `total>${chance.whole(1500, 1990)} date>=20${10 + chance.whole(0, 16)}`,
      'a sender': () => `who:${word(rank(60_000))}`,
    };
    const all: number[] = [];
    const percentile = (times: number[], share: number) =>
      times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(share * times.length))].toFixed(1);
    for (const [kind, query] of Object.entries(kinds)) {
      const times: number[] = [];
      let found = 0;
      for (let round = 0; round < 42; round++) {
        const q = query();
        const began = performance.now();
        const reply = await find(manager, q);
        // The first ones fill the caches.
        if (round >= 2) times.push(performance.now() - began);
        if (reply.found.length > 0) found++;
      }
      all.push(...times);
      console.log(
        `${kind}: median ${percentile(times, 0.5)} ms, 95th percentile ${percentile(times, 0.95)} ms; ${found} of 42 found something`,
      );
    }
    console.log(
      `all: median ${percentile(all, 0.5)} ms, 95th percentile ${percentile(all, 0.95)} ms over ${PAGES} pages`,
    );
    const questions = [
      () => `How much did we pay in 20${10 + chance.whole(0, 16)}?`,
      () => `How much did we spend on ${word(rank(60_000))} in 2020?`,
      () => 'Who did we pay the most last year?',
      () => 'When does the insurance end?',
      () => `Which papers over ${chance.whole(1500, 1990)} came in 2024?`,
    ];
    const times: number[] = [];
    for (let round = 0; round < 42; round++) {
      const began = performance.now();
      await askShelf(manager, EVERYTHING, { question: questions[round % questions.length]() }, '2026-11-28');
      if (round >= 2) times.push(performance.now() - began);
    }
    console.log(
      `questions over all papers: median ${percentile(times, 0.5)} ms, 95th percentile ${percentile(times, 0.95)} ms over ${Math.ceil(PAGES / PAGES_A_DOCUMENT)} papers`,
    );
  }
} finally {
  server.kill('SIGINT');
}
