import { MigrationInterface, QueryRunner } from 'typeorm';

/** Searches that somebody keeps. */
export class KeptSearches1775000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table kept_search (
      id uuid primary key default gen_random_uuid(),
      actor_id uuid not null references actor,
      query text not null,
      made_at timestamptz not null default now(),
      unique (actor_id, query)
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table kept_search');
  }
}
