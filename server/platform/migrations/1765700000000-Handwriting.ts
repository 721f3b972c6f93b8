import { MigrationInterface, QueryRunner } from 'typeorm';

/** Where something is written by hand that was not read. */
export class Handwriting1765700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table reading add column handwriting jsonb not null default '[]'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table reading drop column handwriting');
  }
}
