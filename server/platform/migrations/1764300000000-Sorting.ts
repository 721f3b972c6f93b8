import { MigrationInterface, QueryRunner } from 'typeorm';

/** Where documents begin is proposed; what a person decided is kept apart from it. */
export class Sorting1764300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table page
        add blank boolean,
        add back boolean,
        add signs jsonb,
        add glance jsonb,
        add cut_decided boolean not null default false,
        add drop_decided boolean not null default false,
        add cut_chance real,
        add cut_sure boolean not null default false,
        add cut_why jsonb not null default '[]'`);
    await runner.query(`comment on column page.blank is 'whether nothing is on it; null while unknown'`);
    await runner.query(
      `comment on column page.back is 'whether it is the back of the sheet before it; null when unknown'`,
    );
    await runner.query(`comment on column page.signs is 'what its text shows of beginnings and ends of documents'`);
    await runner.query(`comment on column page.glance is 'what kind of paper it looks like by itself, and who from'`);
    await runner.query(
      `comment on column page.cut_decided is 'whether a person said whether a document begins with it; else it follows cut_chance'`,
    );
    // What was arranged before anything was proposed was arranged by a person.
    await runner.query(`update page set cut_decided = true, drop_decided = true`);
    await runner.query(`update arrangement set pages = (
      select coalesce(jsonb_agg(page || '{"cutDecided": true, "dropDecided": true}'), '[]') from jsonb_array_elements(pages) page)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table page drop blank, drop back, drop signs, drop glance, drop cut_decided, drop drop_decided, drop cut_chance, drop cut_sure,
        drop cut_why`);
  }
}
