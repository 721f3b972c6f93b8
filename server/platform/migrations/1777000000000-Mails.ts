import { MigrationInterface, QueryRunner } from 'typeorm';

/** Mails that are taken in: what the head of one says that is a paper itself. */
export class Mails1777000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file add column mail jsonb');
    await runner.query(`comment on column source_file.mail is 'the head of the mail that it is'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file drop column mail');
  }
}
