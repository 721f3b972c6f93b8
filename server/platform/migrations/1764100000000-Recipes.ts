import { MigrationInterface, QueryRunner } from 'typeorm';

/** Pages are made from their pictures by recipes: outline, straightening, look, marks lifted. */
export class Recipes1764100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table recipe (version text primary key, recipe jsonb not null)`);
    await runner.query(`comment on column recipe.version is 'hash of the recipe'`);
    await runner.query(`
      alter table page
        add part int not null default 0,
        add source_width int,
        add source_height int,
        add source_point_width real,
        add source_point_height real,
        add scanned boolean not null default true,
        add prepared boolean not null default false,
        add version text not null default '',
        add confidence real,
        add legibility jsonb`);
    await runner.query(`comment on column page.part is 'which of the sheets that were found in one picture'`);
    await runner.query(
      `comment on column page.version is 'the recipe that it is made by; empty for the picture as it is'`,
    );
    await runner.query(`
      update page set source_width = width, source_height = height, source_point_width = point_width,
        source_point_height = point_height, prepared = true`);
    await runner.query(`
      alter table page
        alter source_width set not null,
        alter source_height set not null,
        alter source_point_width set not null,
        alter source_point_height set not null,
        drop constraint page_source_file_id_source_number_key,
        add unique (source_file_id, source_number, part)`);
    await runner.query(`alter table reading add version text not null default ''`);
    await runner.query(`alter table reading drop constraint reading_pkey, add primary key (page_id, turn, version)`);
    await runner.query(`update arrangement set pages = (
      select jsonb_agg(page || '{"version": ""}') from jsonb_array_elements(pages) page)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`delete from reading where version <> ''`);
    await runner.query(`alter table reading drop constraint reading_pkey, add primary key (page_id, turn)`);
    await runner.query(`alter table reading drop version`);
    await runner.query(`delete from page where part > 0`);
    await runner.query(`
      alter table page drop constraint page_source_file_id_source_number_part_key,
        add unique (source_file_id, source_number),
        drop part, drop source_width, drop source_height, drop source_point_width, drop source_point_height, drop scanned,
        drop prepared, drop version, drop confidence, drop legibility`);
    await runner.query(`drop table recipe`);
  }
}
