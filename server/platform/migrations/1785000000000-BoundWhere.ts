import { MigrationInterface, QueryRunner } from 'typeorm';

/** At which side the books are bound that files are pictures of. */
export class BoundWhere1785000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file alter column bound drop not null, alter column bound drop default');
    await runner.query(
      "alter table source_file alter column bound type text using case when bound then 'left' end, add check (bound in ('left', 'right'))",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table source_file drop constraint source_file_bound_check');
    await runner.query('alter table source_file alter column bound type boolean using bound is not null');
    await runner.query('alter table source_file alter column bound set default false, alter column bound set not null');
  }
}
