import { MigrationInterface, QueryRunner } from 'typeorm';

/** What becomes of sheets: where they lie, whether they may go or are gone, and what proves that their files can stand for them. */
export class Keeping1781000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table place (
      id uuid primary key default gen_random_uuid(),
      name text not null,
      turn serial not null,
      takes boolean not null default false,
      retired boolean not null default false
    )`);
    await runner.query('create unique index on place (lower(name))');
    await runner.query('create unique index on place (takes) where takes');
    await runner.query(`create table sheet (
      document_id uuid primary key references document on delete cascade,
      place_id uuid references place,
      said text,
      gone_at timestamptz,
      gone_by uuid references actor
    )`);
    await runner.query('create index on sheet (place_id)');
    await runner.query(`create table proof (
      document_id uuid primary key references document on delete cascade,
      agreed_sha256 text,
      differed boolean not null default false,
      compared_at timestamptz,
      copied_sha256 text,
      copied_at timestamptz
    )`);
    await runner.query(`create table looked_archive (
      id uuid primary key default gen_random_uuid(),
      name text not null,
      at timestamptz not null default now(),
      actor_id uuid not null references actor,
      papers int not null
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table looked_archive, proof, sheet, place');
  }
}
