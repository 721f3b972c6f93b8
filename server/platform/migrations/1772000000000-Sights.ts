import { MigrationInterface, QueryRunner } from 'typeorm';

/** Who began a stack, which folders a reader sees, and devices that are let in by a key of their own. */
export class Sights1772000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table stack add column actor_id uuid references actor');
    await runner.query('create index stack_actor on stack (actor_id)');
    await runner.query('alter table actor add column all_folders boolean not null default false');
    await runner.query(
      `create table granted_folder (actor_id uuid not null references actor, folder_id uuid not null references folder on delete cascade,
         primary key (actor_id, folder_id))`,
    );
    await runner.query(
      `alter table entry_key add column device text not null default '', add column good_until timestamptz`,
    );
    await runner.query(`update entry_key set good_until = made_at + interval '1 day'`);
    await runner.query('alter table entry_key alter column good_until set not null');
    await runner.query(`alter table session add column device text not null default ''`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table session drop column device');
    await runner.query('alter table entry_key drop column good_until, drop column device');
    await runner.query('drop table granted_folder');
    await runner.query('alter table actor drop column all_folders');
    await runner.query('alter table stack drop column actor_id');
  }
}
