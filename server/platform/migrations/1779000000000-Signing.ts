import { MigrationInterface, QueryRunner } from 'typeorm';

/** Keys that papers are signed with, and versions that were signed. */
export class Signing1779000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table signing_key (
      id uuid primary key default gen_random_uuid(),
      actor_id uuid not null references actor,
      certificate bytea not null,
      chain bytea[] not null,
      locked_key text not null,
      made_at timestamptz not null default now()
    )`);
    await runner.query(`alter table document_version
      add column signed_by uuid references actor,
      add column certified text,
      add column reason text not null default ''`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table document_version drop column signed_by, drop column certified, drop column reason');
    await runner.query('drop table signing_key');
  }
}
