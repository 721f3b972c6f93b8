import { newDatabase } from '../testing/databases';
import { connect, Database, rows } from './database';

/** PostgreSQL's own names of types. */
const NAMES: Record<string, string> = {
  int: 'int4',
  smallint: 'int2',
  bigint: 'int8',
  real: 'float4',
  'double precision': 'float8',
  boolean: 'bool',
};

let database: Database;
type ColumnMetadata = Database['source']['entityMetadatas'][number]['columns'][number];

beforeAll(async () => void (database = await connect(await newDatabase())));
afterAll(() => database.source.destroy());

interface Described {
  table: string;
  column: string;
  type: string;
  empty: boolean;
  key: boolean;
  refers: string | null;
}

const inDatabase = () =>
  rows<Described>(
    database.source.manager,
    `select c.relname as table, a.attname as column, t.typname as type, not a.attnotnull as empty,
       exists (select 1 from pg_constraint p where p.conrelid = c.oid and p.contype = 'p' and a.attnum = any(p.conkey)) as key,
       (select r.relname from pg_constraint f join pg_class r on r.oid = f.confrelid
        where f.conrelid = c.oid and f.contype = 'f' and f.conkey = array[a.attnum] limit 1) as refers
     from pg_class c join pg_namespace n on n.oid = c.relnamespace join pg_attribute a on a.attrelid = c.oid join pg_type t on t.oid = a.atttypid
     where n.nspname = 'public' and c.relkind = 'r' and c.relname <> 'migrations' and a.attnum > 0 and not a.attisdropped
     order by c.relname, a.attname`,
  );

function inCode(): Described[] {
  const typeOf = ({ type, isArray }: ColumnMetadata) => `${isArray ? '_' : ''}${NAMES[String(type)] ?? String(type)}`;
  return database.source.entityMetadatas
    .flatMap(({ tableName, columns, foreignKeys }) =>
      columns.map((column) => ({
        table: tableName,
        column: column.databaseName,
        type: typeOf(column),
        empty: column.isNullable,
        key: column.isPrimary,
        refers:
          foreignKeys.find(({ columnNames }) => columnNames.join() === column.databaseName)?.referencedEntityMetadata
            .tableName ?? null,
      })),
    )
    .sort((a, b) => (a.table + '\0' + a.column < b.table + '\0' + b.column ? -1 : 1));
}

it('every table has its entity, with every column, its type, keys and relations', async () => {
  const byName = (all: Described[]) =>
    all.map(({ table, column, ...rest }) => `${table}.${column} ${JSON.stringify(rest)}`).sort();
  expect(byName(inCode())).toEqual(byName(await inDatabase()));
});
