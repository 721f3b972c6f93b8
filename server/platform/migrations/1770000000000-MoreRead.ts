import { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What a fact may be as well, what a statement books, the kind that was read, by which papers of one form
 * are told, and files that pages were drawn from.
 */
export class MoreRead1770000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table fact add column other text');
    await runner.query('alter table document add column bookings jsonb, add column kind_read text');
    await runner.query('alter table source_file rename column locked_blob_id to came_blob_id');
    await runner.query(
      `comment on column source_file.came_blob_id is 'the file as it came, where its pages come from another: a copy without its password, or an invoice that was drawn'`,
    );
    await runner.query('create index document_kind_read on document (kind_read)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file rename column came_blob_id to locked_blob_id');
    await runner.query('alter table document drop column bookings, drop column kind_read');
    await runner.query('alter table fact drop column other');
  }
}
