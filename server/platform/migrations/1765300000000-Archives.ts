import { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that come out of archives, and what an archive of the shelf tells of them. */
export class Archives1765300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `alter table source_file add column told jsonb, add column unpacked boolean not null default false`,
    );
    await runner.query(
      `comment on column source_file.told is 'what is known of the document that the file is, when it comes from an archive of the shelf'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file drop column told, drop column unpacked');
  }
}
