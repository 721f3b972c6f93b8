import { MigrationInterface, QueryRunner } from 'typeorm';

/** Scanners that are known, named settings for scanning, and which pages are backs of sheets. */
export class Scanners1764400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table scanner (
        id uuid primary key default gen_random_uuid(),
        name text not null,
        address text not null unique,
        capabilities jsonb not null,
        last_settings jsonb,
        last_used timestamptz,
        added_at timestamptz not null default now()
      )`);
    await runner.query(`
      create table scan_preset (
        id uuid primary key default gen_random_uuid(),
        name text not null unique,
        scanner_id uuid not null references scanner on delete cascade,
        settings jsonb not null,
        added_at timestamptz not null default now()
      )`);
    await runner.query(`alter table source_file add back boolean`);
    await runner.query(
      `comment on column source_file.back is 'whether it is the back of a sheet; null when that is not known'`,
    );
    await runner.query(`alter table stack add whole boolean not null default false`);
    await runner.query(`comment on column stack.whole is 'whether it is one document, so that no cuts are proposed'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table stack drop whole`);
    await runner.query(`alter table source_file drop back`);
    await runner.query(`drop table scan_preset`);
    await runner.query(`drop table scanner`);
  }
}
