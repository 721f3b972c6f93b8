import { MigrationInterface, QueryRunner } from 'typeorm';

/** Marks on pages, what is answered to them, signatures, and the PDF of a document as it is without marks. */
export class Marks1774000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table mark (
      id uuid primary key,
      page_id uuid not null references page on delete cascade,
      kind text not null,
      ink text not null,
      boxes jsonb not null,
      strokes jsonb not null,
      text text not null,
      turn smallint not null,
      actor_id uuid not null references actor,
      author text,
      made_at timestamptz not null default now(),
      number bigserial not null,
      removed_at timestamptz
    )`);
    await runner.query('create index on mark (page_id)');
    await runner.query(`create table mark_reply (
      id uuid primary key,
      mark_id uuid not null references mark on delete cascade,
      actor_id uuid not null references actor,
      author text,
      text text not null,
      at timestamptz not null default now()
    )`);
    await runner.query('create index on mark_reply (mark_id)');
    await runner.query(`create table signature (
      id uuid primary key,
      actor_id uuid not null references actor,
      text text not null,
      strokes jsonb not null,
      shape real not null,
      made_at timestamptz not null default now()
    )`);
    await runner.query('alter table document add column bare_blob_id uuid references blob');
    await runner.query('create index on document (bare_blob_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table document drop column bare_blob_id');
    await runner.query('drop table signature, mark_reply, mark');
  }
}
