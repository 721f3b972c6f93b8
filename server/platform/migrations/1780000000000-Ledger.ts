import { MigrationInterface, QueryRunner } from 'typeorm';

/** The books: entries with their papers, statements with their lines, and what ties them. */
export class Ledger1780000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table category (
      id uuid primary key default gen_random_uuid(),
      name text not null,
      side text not null,
      words text not null default '',
      place serial not null,
      retired boolean not null default false
    )`);
    await runner.query(`create table account (
      id uuid primary key default gen_random_uuid(),
      name text not null,
      kind text not null,
      currency text not null,
      number text not null default '',
      place serial not null,
      retired boolean not null default false
    )`);
    await runner.query(`create table entry (
      id uuid primary key default gen_random_uuid(),
      serial serial not null unique,
      revision int not null default 1,
      day date not null,
      due date,
      who text not null,
      what text not null default '',
      number text not null default '',
      currency text not null,
      units bigint not null,
      account_id uuid references account,
      made_at timestamptz not null default now(),
      made_by uuid not null references actor,
      checked_at timestamptz,
      checked_by uuid references actor,
      taken_out_at timestamptz
    )`);
    await runner.query('create index on entry (day)');
    await runner.query('create index on entry (lower(who))');
    await runner.query(`create table entry_part (
      entry_id uuid not null references entry on delete cascade,
      number int not null,
      category_id uuid references category,
      tax_code text,
      rate numeric(6,3),
      net bigint not null,
      tax bigint not null,
      primary key (entry_id, number)
    )`);
    await runner.query(`create table entry_paper (
      document_id uuid primary key references document on delete cascade,
      entry_id uuid not null references entry on delete cascade,
      role text not null,
      entered boolean not null
    )`);
    await runner.query('create index on entry_paper (entry_id)');
    await runner.query(
      `comment on column entry_paper.entered is 'whether the entry was made from this paper when that was filed'`,
    );
    await runner.query(`create table entry_version (
      entry_id uuid not null references entry on delete cascade,
      revision int not null,
      until timestamptz not null default now(),
      actor_id uuid not null references actor,
      was jsonb not null,
      primary key (entry_id, revision)
    )`);
    await runner.query(`create table paper_books (
      document_id uuid primary key references document on delete cascade,
      enters boolean,
      attach boolean,
      attach_to uuid references entry on delete set null,
      account_id uuid references account,
      parts jsonb
    )`);
    await runner.query(`create table statement (
      id uuid primary key default gen_random_uuid(),
      account_id uuid not null references account,
      name text not null,
      format text not null,
      blob_id uuid not null references blob,
      currency text not null,
      first_day date,
      last_day date,
      opening bigint,
      closing bigint,
      actor_id uuid not null references actor,
      taken_in_at timestamptz not null default now()
    )`);
    await runner.query('create index on statement (account_id)');
    await runner.query('create index on statement (blob_id)');
    await runner.query(`create table statement_line (
      id uuid primary key default gen_random_uuid(),
      statement_id uuid not null references statement on delete cascade,
      account_id uuid not null references account,
      number int not null,
      day date not null,
      units bigint not null,
      currency text not null,
      who text not null,
      text text not null,
      bank_id text not null,
      balance bigint
    )`);
    await runner.query('create index on statement_line (statement_id)');
    await runner.query('create index on statement_line (account_id, day)');
    await runner.query(`create table tie (
      id uuid primary key default gen_random_uuid(),
      state text not null,
      confidence real not null,
      why text not null,
      actor_id uuid references actor,
      at timestamptz not null default now()
    )`);
    await runner.query('create index on tie (state)');
    await runner.query(`create table tie_entry (
      tie_id uuid not null references tie on delete cascade,
      entry_id uuid not null references entry on delete cascade,
      primary key (tie_id, entry_id)
    )`);
    await runner.query('create index on tie_entry (entry_id)');
    await runner.query(`create table tie_line (
      tie_id uuid not null references tie on delete cascade,
      line_id uuid not null references statement_line on delete cascade,
      primary key (tie_id, line_id)
    )`);
    await runner.query('create index on tie_line (line_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      `drop table tie_line, tie_entry, tie, statement_line, statement, paper_books, entry_version, entry_paper, entry_part, entry, account, category`,
    );
  }
}
