import { MigrationInterface, QueryRunner } from 'typeorm';

const NAMES = `'kind', 'vendor', 'date', 'dueDate', 'number', 'currency', 'net', 'tax', 'taxRate', 'total'`;

/** Facts about money and numbers, and why each is taken for what it is. */
export class MoreFacts1764700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table fact drop constraint fact_name_check, add check (name in (${NAMES}))`);
    await runner.query(`alter table fact add why text, add repaired boolean not null default false`);
    await runner.query(
      `comment on column fact.repaired is 'whether a misread figure was put right because only so everything adds up'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table fact drop why, drop repaired`);
    await runner.query(`delete from fact where name not in ('kind', 'vendor', 'date')`);
    await runner.query(
      `alter table fact drop constraint fact_name_check, add check (name in ('kind', 'vendor', 'date'))`,
    );
  }
}
