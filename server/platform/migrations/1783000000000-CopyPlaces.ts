import { MigrationInterface, QueryRunner } from 'typeorm';

/** Folders of the machine that have copies of filed PDFs, once or kept in step with the shelf. */
export class CopyPlaces1783000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table copy_place (
      id uuid primary key default gen_random_uuid(),
      path text not null unique,
      scope text not null,
      folder_id uuid references folder on delete set null,
      document_ids uuid[],
      keep boolean not null,
      wanted int not null default 0,
      agreed_at timestamptz,
      left_alone text[] not null default '{}',
      problem jsonb,
      actor_id uuid not null references actor,
      made_at timestamptz not null default now()
    )`);
    await runner.query('create index on copy_place (folder_id)');
    await runner.query(`create table placed_copy (
      place_id uuid not null references copy_place on delete cascade,
      document_id uuid not null,
      path text not null,
      sha256 text not null,
      size bigint not null,
      modified_ms double precision not null,
      primary key (place_id, document_id)
    )`);
    await runner.query(
      `comment on column placed_copy.document_id is 'of a paper that may be gone for good: its copy is then taken away'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table placed_copy, copy_place');
  }
}
