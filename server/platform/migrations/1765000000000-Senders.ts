import { MigrationInterface, QueryRunner } from 'typeorm';

/** What tells senders beside their names, electronic invoices inside PDFs, and what on a paper does not add up. */
export class Senders1765000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table sender_sign (
        kind text not null,
        value text not null,
        vendor text not null,
        document_id uuid not null references document on delete cascade,
        primary key (kind, value, vendor, document_id)
      )`);
    await runner.query(`create index on sender_sign (document_id)`);
    await runner.query(`alter table source_file add column invoice jsonb`);
    await runner.query(
      `comment on column source_file.invoice is 'what an electronic invoice inside it says (EN 16931)'`,
    );
    await runner.query(`alter table document add column checks jsonb not null default '[]', add column lines jsonb`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table document drop column checks, drop column lines`);
    await runner.query(`alter table source_file drop column invoice`);
    await runner.query('drop table sender_sign');
  }
}
