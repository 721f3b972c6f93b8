import { MigrationInterface, QueryRunner } from 'typeorm';

/** People come in by name and pass phrase; whoever has left stays in the history. */
export class People1771000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `alter table actor add column pass_hash text, add column left_at timestamptz,
         add column tries int not null default 0, add column tried_at timestamptz`,
    );
    await runner.query(`create unique index actor_name on actor (lower(name)) where left_at is null`);
    await runner.query(`alter table session add column browser text not null default ''`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table session drop column browser');
    await runner.query('drop index actor_name');
    await runner.query(
      'alter table actor drop column pass_hash, drop column left_at, drop column tries, drop column tried_at',
    );
  }
}
