import { MigrationInterface, QueryRunner } from 'typeorm';

/** Square codes that stand on a page, with what they say. */
export class Codes1769000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table reading add column codes jsonb not null default '[]'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table reading drop column codes');
  }
}
