import { MigrationInterface, QueryRunner } from 'typeorm';

const NAMES = `'kind', 'vendor', 'date', 'dueDate', 'number', 'currency', 'net', 'tax', 'taxRate', 'total'`;

/** What pages look like from afar, by which the same paper is known again; tax by rate; and what letters are about. */
export class Looks1765200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table page add column look bytea`);
    await runner.query(`alter table document add column taxes jsonb`);
    await runner.query(`alter table fact drop constraint fact_name_check, add check (name in (${NAMES}, 'subject'))`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from fact where name = 'subject'`);
    await runner.query(`alter table fact drop constraint fact_name_check, add check (name in (${NAMES}))`);
    await runner.query('alter table document drop column taxes');
    await runner.query('alter table page drop column look');
  }
}
