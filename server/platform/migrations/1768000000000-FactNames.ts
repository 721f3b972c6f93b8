import { MigrationInterface, QueryRunner } from 'typeorm';

const BEFORE = `'kind', 'vendor', 'date', 'dueDate', 'number', 'currency', 'net', 'tax', 'taxRate', 'total', 'subject', 'amountDue',
  'period', 'reference'`;

/** What facts there are is said in one table of the program's; the database only sees that it is a name. */
export class FactNames1768000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table fact drop constraint fact_name_check, add check (name ~ '^[a-zA-Z]{2,30}$')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from fact where name not in (${BEFORE})`);
    await runner.query(`alter table fact drop constraint fact_name_check, add check (name in (${BEFORE}))`);
  }
}
