import { MigrationInterface, QueryRunner } from 'typeorm';

/** Who signed a copy that came back from an archive, by name: nobody of this machine may be called so. */
export class SignedElsewhere1784000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table document_version add column signed_as text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table document_version drop column signed_as');
  }
}
