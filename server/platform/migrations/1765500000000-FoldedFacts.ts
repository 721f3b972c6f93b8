import { MigrationInterface, QueryRunner } from 'typeorm';

/** Names are found by any part of them, whatever their accents. */
export class FoldedFacts1765500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `create index fact_folded on fact using gin ((lower(regexp_replace(replace(normalize(value, nfd), 'ß', 'ss'), '[\\u0300-\\u036f]', '', 'g'))) gin_trgm_ops) where name in ('vendor', 'number', 'subject', 'kind')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop index fact_folded');
  }
}
