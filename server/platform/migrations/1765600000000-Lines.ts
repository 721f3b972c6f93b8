import { MigrationInterface, QueryRunner } from 'typeorm';

/** The text of a page in lines beside its words with their places: Find goes through it, and it is a tenth as long. */
export class Lines1765600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create function page_lines(words jsonb) returns text language sql immutable strict as $$
        select coalesce(string_agg(
          case when before is null then '' when line <> before then E'\\n' else ' ' end || text, '' order by place), '')
        from (
          select w->>0 as text, w->>6 as line, lag(w->>6) over (order by place) as before, place
          from jsonb_array_elements(words) with ordinality as a (w, place) where w->>0 <> ''
        ) each
      $$`);
    await runner.query(
      'alter table reading add column lines text not null generated always as (page_lines(words)) stored',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table reading drop column lines');
    await runner.query('drop function page_lines(jsonb)');
  }
}
