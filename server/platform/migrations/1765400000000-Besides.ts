import { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that are kept beside a document's PDF: its text, its pages as pictures. */
export class Besides1765400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table document add column beside text[] not null default '{}'`);
    await runner.query(`
      create table document_file (
        document_id uuid not null references document on delete cascade,
        ending text not null,
        blob_id uuid not null references blob,
        primary key (document_id, ending)
      )`);
    await runner.query(
      `comment on table document_file is 'what is kept beside the PDF; its name is that of the document with the ending'`,
    );
    await runner.query(`alter table shelf_file add column ending text not null default '.pdf'`);
    await runner.query(`alter table shelf_file drop constraint shelf_file_pkey, add primary key (document_id, ending)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from shelf_file where ending <> '.pdf'`);
    await runner.query(`alter table shelf_file drop constraint shelf_file_pkey, add primary key (document_id)`);
    await runner.query('alter table shelf_file drop column ending');
    await runner.query('drop table document_file');
    await runner.query('alter table document drop column beside');
  }
}
