import { MigrationInterface, QueryRunner } from 'typeorm';

/** Browsers that were let in, and the keys that let one in once. Of both only hashes are kept. */
export class Sessions1765800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table session (
        id uuid primary key default gen_random_uuid(),
        actor_id uuid not null references actor,
        token_hash bytea not null unique,
        created_at timestamptz not null default now(),
        used_at timestamptz not null default now()
      )`);
    await runner.query(`
      create table entry_key (
        key_hash bytea primary key,
        actor_id uuid not null references actor,
        made_at timestamptz not null default now()
      )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table entry_key');
    await runner.query('drop table session');
  }
}
