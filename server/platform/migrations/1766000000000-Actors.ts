import { MigrationInterface, QueryRunner } from 'typeorm';

/** What the program does by itself is its own deed; every file says who took it in. */
export class Actors1766000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table actor drop constraint actor_role_check`);
    await runner.query(
      `alter table actor add constraint actor_role_check check (role in ('owner', 'helper', 'reader', 'device', 'program'))`,
    );
    await runner.query(`insert into actor (name, role) values ('Crow Shelf', 'program')`);
    await runner.query(
      `update source_file set actor_id = (select id from actor where role = 'owner') where actor_id is null`,
    );
    await runner.query('alter table source_file alter column actor_id set not null');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file alter column actor_id drop not null');
    // What it did becomes the owner's again.
    for (const { table, column } of (await runner.query(
      `select c.conrelid::regclass::text as table, a.attname as column
       from pg_constraint c join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
       where c.contype = 'f' and c.confrelid = 'actor'::regclass`,
    )) as { table: string; column: string }[])
      await runner.query(
        `update ${table} set ${column} = (select id from actor where role = 'owner')
         where ${column} = (select id from actor where role = 'program')`,
      );
    await runner.query(`delete from actor where role = 'program'`);
    await runner.query('alter table actor drop constraint actor_role_check');
    await runner.query(`alter table actor add constraint actor_role_check check (role in ('owner'))`);
  }
}
