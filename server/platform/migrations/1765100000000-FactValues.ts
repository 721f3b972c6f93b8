import { MigrationInterface, QueryRunner } from 'typeorm';

/** Facts are sought and sorted by what they say. */
export class FactValues1765100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create index fact_value on fact (name, value)`);
    await runner.query(`create index fact_total on fact ((value::numeric)) where name = 'total'`);
    await runner.query(`create index document_filed on document (filed_at desc, id) where binned_at is null`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop index fact_value, fact_total, document_filed');
  }
}
