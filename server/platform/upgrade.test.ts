import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { DataSource } from 'typeorm';
import { connect, migrate } from './database';
import { MIGRATIONS } from './migrations';
import { databaseUrl } from '../testing/databases';

type Row = Record<string, unknown>;

/** Everything that stands in a database: its tables with all rows, each by its key. */
async function everything(client: pg.Client): Promise<Map<string, Map<string, Row>>> {
  const { rows: keys } = await client.query<{ table: string; columns: string[] }>(
    `select c.relname as table, array_agg(a.attname::text order by k.n) as columns
     from pg_constraint p join pg_class c on c.oid = p.conrelid join pg_namespace s on s.oid = c.relnamespace
     cross join unnest(p.conkey) with ordinality as k (number, n) join pg_attribute a on a.attrelid = c.oid and a.attnum = k.number
     where p.contype = 'p' and s.nspname = 'public' group by c.relname`,
  );
  const tables = new Map<string, Map<string, Row>>();
  for (const { table, columns } of keys) {
    const { rows } = await client.query<Row>(`select * from "${table}"`);
    tables.set(table, new Map(rows.map((row) => [JSON.stringify(columns.map((column) => row[column])), row])));
  }
  return tables;
}

/** A shelf of the first version: a paper of two pages that was filed, one that waits, a file that was refused, and their history. */
async function fill(client: pg.Client): Promise<void> {
  const [blob, pdf, thumb] = [randomUUID(), randomUUID(), randomUUID()];
  const [stack, file, refused] = [randomUUID(), randomUUID(), randomUUID()];
  const pages = [randomUUID(), randomUUID(), randomUUID()];
  const [filed, waiting] = [randomUUID(), randomUUID()];
  const [workshop, yarn] = [randomUUID(), randomUUID()];
  const { rows: owners } = await client.query<{ id: string }>(`select id from actor`);
  const owner = owners[0].id;
  const run = (sql: string, ...values: unknown[]) => client.query(sql, values);
  for (const [id, name] of [
    [blob, 'a'],
    [pdf, 'b'],
    [thumb, 'c'],
  ]) {
    await run(`insert into blob (id, sha256, size) values ($1, $2, 4)`, id, name.repeat(64));
    await run(`insert into blob_chunk values ($1, 0, 'wool')`, id);
  }
  await run(`insert into stack (id, name, state, step) values ($1, 'Post', 'sorted', 1)`, stack);
  const lying = pages.map((id, number) => ({ id, turn: 90, dropped: false, cutBefore: number === 2 }));
  await run(
    `insert into arrangement (stack_id, step, pages, actor_id) values ($1, 1, $2, $3)`,
    stack,
    JSON.stringify(lying),
    owner,
  );
  await run(
    `insert into source_file (id, stack_id, name, position, blob_id, state, format) values ($1, $2, 'post.pdf', 0, $3, 'taken', 'pdf')`,
    file,
    stack,
    blob,
  );
  await run(
    `insert into source_file (id, stack_id, name, position, blob_id, state, problem, dismissed)
     values ($1, $2, 'odd.bin', 1, $3, 'refused', '{"code": "file-unknown", "happened": "It is unknown."}', true)`,
    refused,
    stack,
    blob,
  );
  for (const [number, page] of pages.entries()) {
    await run(
      `insert into page (id, stack_id, source_file_id, source_number, position, width, height, point_width, point_height, turn, cut_before, pictured, reading)
       values ($1, $2, $3, $4, $4, 1240, 1754, 595, 842, 90, $5, true, 'read')`,
      page,
      stack,
      file,
      number,
      number === 2,
    );
    const words = [['Yarn', 100, 200, 80, 30, 0.95, 0, 225]];
    await run(
      `insert into reading (page_id, turn, width, height, language, own, words) values ($1, 90, 1754, 1240, 'eng', false, $2)`,
      page,
      JSON.stringify(words),
    );
    await run(`insert into page_tokens values ($1, 'yarn')`, page);
  }
  await run(`insert into derived_picture values ($1, 0, 'thumb/90', $2, 'image/jpeg')`, blob, thumb);
  await run(`insert into vocabulary values ('yarn')`);
  await run(`insert into folder (id, name, name_key) values ($1, 'Workshop', 'workshop')`, workshop);
  await run(`insert into folder (id, parent_id, name, name_key) values ($1, $2, 'Yarn', 'yarn')`, yarn, workshop);
  await run(
    `insert into document (id, stack_id, state, folder_id, name, name_key, pdf_blob_id, archival, filed_at)
     values ($1, $2, 'filed', $3, 'Yarn bill', 'yarn bill', $4, true, '2026-03-05T10:00:00Z')`,
    filed,
    stack,
    yarn,
    pdf,
  );
  await run(`insert into document (id, stack_id) values ($1, $2)`, waiting, stack);
  await run(
    `insert into document_page values ($1, 0, $2), ($1, 1, $3), ($4, 0, $5)`,
    filed,
    pages[0],
    pages[1],
    waiting,
    pages[2],
  );
  await run(
    `insert into fact (document_id, name, value, page_id, box, confidence, confirmed_by)
     values ($1, 'vendor', 'Halden & Firth Yarns Ltd', $2, '[0.1, 0.1, 0.3, 0.02]', 0.9, $3), ($1, 'date', '2026-03-05', null, null, 1, $3)`,
    filed,
    pages[0],
    owner,
  );
  await run(`insert into shelf_file values ($1, 'Workshop/Yarn/Yarn bill.pdf', $2, 4, 1)`, filed, 'b'.repeat(64));
  await run(
    `insert into history (actor_id, action, subject, subject_id) values ($1, 'filed', 'document', $2)`,
    owner,
    filed,
  );
  await run(`insert into setting values ('languages', '["eng", "deu"]')`);
}

/** A database as it was after some of the migrations, and a connection to it. */
async function databaseOf(migrations: typeof MIGRATIONS): Promise<{ url: string; client: pg.Client }> {
  const name = `upgrade_${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: process.env.CROW_TEST_POSTGRES });
  await admin.connect();
  await admin.query(`create database ${name}`);
  await admin.end();
  const url = databaseUrl(name);
  const first = new DataSource({ type: 'postgres', url, migrations });
  await first.initialize();
  await first.runMigrations();
  await first.destroy();
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  return { url, client };
}

it('a shelf of the first version loses nothing on the way to the newest', async () => {
  const { url, client } = await databaseOf(MIGRATIONS.slice(0, 1));
  await fill(client);
  const before = await everything(client);
  expect([...before.values()].filter((rows) => rows.size === 0)).toHaveLength(1);

  const database = await connect(url);
  await migrate(database);
  await database.source.destroy();
  const after = await everything(client);
  await client.end();

  // Made anew from the pictures and words: what was derived may be keyed and kept otherwise.
  const DERIVED = ['derived_picture'];
  const lost: string[] = [];
  for (const [table, rows] of before) {
    if (DERIVED.includes(table)) continue;
    const now = [...(after.get(table)?.values() ?? [])];
    for (const row of rows.values()) {
      // Keys may have grown; what stood in the row must stand in one of today's, in every column that is still there.
      const columns = Object.keys(now[0] ?? {}).filter((column) => column in row);
      const same = now.some((each) => columns.every((column) => sameValue(each[column], row[column])));
      const gone = Object.keys(row).filter((column) => !columns.includes(column));
      if (!same || gone.length > 0) lost.push(`${table} ${JSON.stringify(row)} ${gone.join()}`);
    }
  }
  expect(lost).toEqual([]);
});

it('what facts say as text is told by its type, and sentences by their codes', async () => {
  const { url, client } = await databaseOf(MIGRATIONS.filter(({ name }) => !name.startsWith('TypedFacts')));
  const iban = 'The check digits of the IBAN DE65 7112 2003 do not fit: a figure was misread, or misprinted.';
  const { rows: documents } = await client.query<{ id: string }>(
    'insert into document (checks) values ($1) returning id',
    [JSON.stringify([iban])],
  );
  const facts = [
    ['currency', 'GBP'],
    ['date', '2026-03-05'],
    ['dueDate', '2026-02-31'],
    ['taxRate', '7.5'],
    ['total', '-184.20'],
    ['vendor', '184.20'],
  ];
  for (const [name, value] of facts)
    await client.query(
      `insert into fact (document_id, name, value, confidence, why) values ($1, $2, $3, 1, 'heads it')`,
      [documents[0].id, name, value],
    );
  const database = await connect(url);
  await migrate(database);
  await database.source.destroy();
  const { rows: typed } = await client.query<Row>(
    'select name, value, day::text, units, digits, currency, rate::real, amount::real, why from fact order by name',
  );
  const { rows: checked } = await client.query<Row>('select checks from document');
  await client.end();
  const nothing = { day: null, units: null, digits: null, currency: null, rate: null, amount: null };
  const why = { code: 'as-told', text: 'heads it' };
  const kept = Object.fromEntries(typed.map((row) => [row.name, row]));
  expect(typed.map(({ name, value }) => [name, value])).toEqual(facts);
  expect(kept.currency).toMatchObject({ ...nothing, why });
  expect(kept.date).toMatchObject({ ...nothing, day: '2026-03-05' });
  // There is no such day.
  expect(kept.dueDate).toMatchObject(nothing);
  expect(kept.taxRate).toMatchObject({ ...nothing, rate: 7.5 });
  expect(kept.total).toMatchObject({ ...nothing, units: '-18420', digits: 2, currency: 'GBP', amount: -184.2 });
  expect(kept.vendor).toMatchObject(nothing);
  expect(checked).toEqual([{ checks: [{ code: 'iban', iban: 'DE6571122003' }] }]);
});

/** Whether a value is as it was; what lies in JSON may have gained more beside it. */
function sameValue(now: unknown, before: unknown): boolean {
  if (typeof before !== 'object' || before === null || before instanceof Date || Buffer.isBuffer(before))
    return JSON.stringify(now) === JSON.stringify(before);
  return Object.entries(before).every(([key, value]) =>
    sameValue((now as Record<string, unknown> | null)?.[key], value),
  );
}
