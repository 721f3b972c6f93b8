import { MigrationInterface, QueryRunner } from 'typeorm';

/** Folders on disk whose files are taken in by themselves, and what is to become of a stack once its pages are there. */
export class WatchedFolders1764500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table watched_folder (
        id uuid primary key default gen_random_uuid(),
        path text not null unique,
        purpose text not null check (purpose in ('sort', 'check', 'match')),
        added_at timestamptz not null default now()
      )`);
    await runner.query(`alter table stack
      add onward boolean not null default false,
      add for_entry boolean not null default false,
      add watched_folder_id uuid references watched_folder on delete set null`);
    await runner.query(`comment on column stack.onward is
      'whether it goes to Check by itself once its pages are there, unless somebody has begun to arrange it'`);
    await runner.query(`comment on column stack.for_entry is 'whether it is the paper of an entry in the books'`);
    await runner.query(`alter table source_file add created_at timestamptz not null default now()`);
    await runner.query(`update source_file f set created_at = s.created_at from stack s where s.id = f.stack_id`);
    await runner.query(`create index on source_file (blob_id)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`drop index source_file_blob_id_idx`);
    await runner.query(`alter table source_file drop created_at`);
    await runner.query(`alter table stack drop watched_folder_id, drop onward, drop for_entry`);
    await runner.query(`drop table watched_folder`);
  }
}
