import { MigrationInterface, QueryRunner } from 'typeorm';

/** Pages come to a place that the person chose, also in a document; pages taken twice; warnings waved through. */
export class Captures1764200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table source_file
        add before_page uuid references page on delete set null,
        add again_page uuid references page on delete set null,
        add document_id uuid references document on delete set null,
        add actor_id uuid references actor`);
    await runner.query(`comment on column source_file.before_page is 'its pages go before this one; else to the end'`);
    await runner.query(`comment on column source_file.again_page is 'it is another capture of this page'`);
    await runner.query(`comment on column source_file.document_id is 'its pages go into this document'`);
    await runner.query(`
      alter table page
        add again_of uuid references page on delete set null,
        add judged text,
        add waved text`);
    await runner.query(`comment on column page.again_of is 'the page that this is another capture of'`);
    await runner.query(`comment on column page.judged is 'the version that its legibility was judged of'`);
    await runner.query(
      `comment on column page.waved is 'the version that a person found good enough, whatever its legibility'`,
    );
    await runner.query(`update page set legibility = null`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table page drop again_of, drop judged, drop waved`);
    await runner.query(`
      alter table source_file drop before_page, drop again_page, drop document_id, drop actor_id`);
  }
}
