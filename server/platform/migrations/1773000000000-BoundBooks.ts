import { MigrationInterface, QueryRunner } from 'typeorm';

/** Which files are pictures of bound books. */
export class BoundBooks1773000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file add column bound boolean not null default false');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file drop column bound');
  }
}
