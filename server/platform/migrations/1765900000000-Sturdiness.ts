import { MigrationInterface, QueryRunner } from 'typeorm';

const NAMES = `'kind', 'vendor', 'date', 'dueDate', 'number', 'currency', 'net', 'tax', 'taxRate', 'total', 'subject'`;

/** Damaged pictures, work that was interrupted, files locked with a password, what watched folders leave alone, and more facts. */
export class Sturdiness1765900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table page add column damaged boolean not null default false');
    await runner.query(
      `comment on column page.damaged is 'whether its picture is shown only as far as it could be decoded'`,
    );
    await runner.query(`
      create table shelf_mark (
        one boolean primary key default true check (one),
        mark uuid not null
      )`);
    await runner.query(
      `comment on table shelf_mark is 'what stands in the file that tells the shelf folder from an empty place for its drive'`,
    );
    await runner.query('create table shelf_left (path text primary key)');
    await runner.query(
      `comment on table shelf_left is 'files of others in the shelf folder that nobody wants taken in'`,
    );
    await runner.query('alter table source_file add column replaces boolean not null default false');
    await runner.query(
      `comment on column source_file.replaces is 'whether its pages are all that its document is made of from then on'`,
    );
    await runner.query('alter table page_tokens add column numbered boolean not null default false');
    await runner.query(
      `comment on column page_tokens.numbered is 'whether numbers in groups are among them as one, too'`,
    );
    await runner.query('alter table stack add column wanted_folder text');
    await runner.query('alter table claim alter column lease drop not null');
    await runner.query('alter table claim add column interruptions int not null default 0');
    await runner.query('alter table source_file add column locked_blob_id uuid references blob');
    await runner.query(
      `comment on column source_file.locked_blob_id is 'the file as it came, locked with a password; its pages come from the copy without one'`,
    );
    await runner.query(`
      create table watched_refusal (
        id uuid primary key default gen_random_uuid(),
        folder_id uuid not null references watched_folder on delete cascade,
        name text not null,
        problem jsonb not null,
        at timestamptz not null default now()
      )`);
    await runner.query(`
      create table fact_emptied (
        document_id uuid not null references document on delete cascade,
        name text not null,
        emptied_by uuid not null references actor,
        primary key (document_id, name)
      )`);
    await runner.query('alter table document add column taxes_by uuid references actor');
    await runner.query(`comment on column document.taxes_by is 'who set the tax by rate by hand'`);
    await runner.query(
      `comment on table fact_emptied is 'what a person says that a document does not say, whatever is read'`,
    );
    await runner.query(
      `alter table fact drop constraint fact_name_check,
       add check (name in (${NAMES}, 'amountDue', 'period', 'reference'))`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from fact where name in ('amountDue', 'period', 'reference')`);
    await runner.query(`alter table fact drop constraint fact_name_check, add check (name in (${NAMES}))`);
    await runner.query('alter table document drop column taxes_by');
    await runner.query('drop table fact_emptied');
    await runner.query('drop table watched_refusal');
    await runner.query('alter table source_file drop column locked_blob_id');
    await runner.query('alter table claim drop column interruptions');
    await runner.query('delete from claim where lease is null');
    await runner.query('alter table claim alter column lease set not null');
    await runner.query('alter table stack drop column wanted_folder');
    await runner.query('alter table source_file drop column replaces');
    await runner.query('drop table shelf_left, shelf_mark');
    await runner.query('alter table page_tokens drop column numbered');
    await runner.query('alter table page drop column damaged');
  }
}
