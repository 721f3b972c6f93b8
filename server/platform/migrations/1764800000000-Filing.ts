import { MigrationInterface, QueryRunner } from 'typeorm';

/** How large a document's PDF is to be, and how many bytes each size has, as far as that was found out. */
export class Filing1764800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table document
        add column pdf_size text not null default 'full' check (pdf_size in ('full', 'balanced', 'small'))`);
    await runner.query(`
      create table document_size (
        document_id uuid not null references document on delete cascade,
        /* What the pages are like: other pages, or made otherwise, have another size. */
        pages text not null,
        size text not null,
        bytes bigint not null,
        primary key (document_id, pages, size)
      )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table document_size');
    await runner.query('alter table document drop column pdf_size');
  }
}
