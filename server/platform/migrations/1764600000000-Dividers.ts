import { MigrationInterface, QueryRunner } from 'typeorm';

/** Divider sheets, and what they say of the document behind them. */
export class Dividers1764600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table page add divider jsonb`);
    await runner.query(
      `comment on column page.divider is 'what it says, where it is a divider sheet: folder and kind, each may be null'`,
    );
    await runner.query(`alter table document add wanted_folder text`);
    await runner.query(`comment on column document.wanted_folder is 'path of the folder that its divider sheet names'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`alter table document drop wanted_folder`);
    await runner.query(`alter table page drop divider`);
  }
}
