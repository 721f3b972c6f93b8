import { MigrationInterface, QueryRunner } from 'typeorm';

/** What people write about papers: tags and a note, found like what stands on them. */
export class Remarks1776000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table document
      add column tags text[] not null default '{}', add column note text not null default '', add column remark_tokens tsvector`);
    await runner.query('create index on document using gin (remark_tokens)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table document drop column tags, drop column note, drop column remark_tokens');
  }
}
