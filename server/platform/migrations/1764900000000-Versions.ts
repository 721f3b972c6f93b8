import { MigrationInterface, QueryRunner } from 'typeorm';

/** PDFs that a document had before: when its text is corrected or its pages change, the old one stays. */
export class Versions1764900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table document_version (
        document_id uuid not null references document on delete cascade,
        number int not null,
        pdf_blob_id uuid not null references blob,
        /* When another one took its place. */
        until timestamptz not null default clock_timestamp(),
        primary key (document_id, number)
      )`);
    await runner.query(`create index on document_version (pdf_blob_id)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table document_version');
  }
}
