import { MigrationInterface, QueryRunner } from 'typeorm';

/** How lines of statements without bills are entered, what entries in other money come to in one's own, and what was on accounts at the beginning. */
export class LedgerHabits1782000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table line_rule (
      id uuid primary key default gen_random_uuid(),
      key text not null,
      outward boolean not null,
      who text not null,
      what text not null default '',
      category_id uuid references category,
      tax_code text,
      rate numeric(6,3),
      actor_id uuid not null references actor,
      at timestamptz not null default now(),
      unique (key, outward)
    )`);
    await runner.query(`create table sender (
      id uuid primary key default gen_random_uuid(),
      name text not null,
      address text not null default '',
      tax_number text not null default '',
      iban text not null default '',
      category_id uuid references category,
      document_id uuid references document on delete set null,
      made_at timestamptz not null default now()
    )`);
    await runner.query('create unique index on sender (lower(name))');
    await runner.query('create index on sender (document_id)');
    await runner.query(`comment on column sender.document_id is 'the paper that it was first known from'`);
    await runner.query('alter table entry add own_units bigint');
    await runner.query(
      `comment on column entry.own_units is 'what it comes to in the money of the books, where it is in another; null while nobody has said'`,
    );
    await runner.query('alter table statement add document_id uuid references document on delete set null');
    await runner.query('create index on statement (document_id)');
    await runner.query(
      `comment on column statement.document_id is 'the paper that it was read from; null for one that came as a file'`,
    );
    await runner.query('alter table paper_books add own_units bigint');
    await runner.query('alter table account add opening bigint, add opening_day date');
    await runner.query(`comment on column account.opening is 'what was on it at the beginning of opening_day'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table statement drop document_id');
    await runner.query('alter table paper_books drop own_units');
    await runner.query('alter table account drop opening, drop opening_day');
    await runner.query('alter table entry drop own_units');
    await runner.query('drop table line_rule, sender');
  }
}
