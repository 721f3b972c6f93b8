import { MigrationInterface, QueryRunner } from 'typeorm';

/** Copies that go out: by mail, or behind links that end by themselves. */
export class Parcels1778000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create table parcel (
      id uuid primary key default gen_random_uuid(),
      way text not null,
      state text not null,
      actor_id uuid not null references actor,
      wish jsonb,
      title text not null,
      recipients text not null default '',
      body text not null default '',
      file_name text not null default '',
      media_type text not null default '',
      blob_id uuid references blob,
      bytes bigint,
      problem jsonb,
      tries int not null default 0,
      next_try timestamptz,
      made_at timestamptz not null default now(),
      done_at timestamptz
    )`);
    await runner.query('create index on parcel (made_at)');
    await runner.query('create index on parcel (blob_id)');
    await runner.query(`create table parcel_paper (
      parcel_id uuid not null references parcel on delete cascade,
      number int not null,
      document_id uuid references document on delete set null,
      name text not null,
      primary key (parcel_id, number)
    )`);
    await runner.query('create index on parcel_paper (document_id)');
    await runner.query(`create table parcel_link (
      parcel_id uuid primary key references parcel on delete cascade,
      secret_hash bytea not null unique,
      sealed_secret text not null,
      password_hash text,
      ends_at timestamptz not null,
      most_looks int,
      looks int not null default 0,
      tries int not null default 0
    )`);
    await runner.query(`create table parcel_look (
      id bigserial primary key,
      parcel_id uuid not null references parcel on delete cascade,
      at timestamptz not null default now(),
      place text not null,
      browser text not null
    )`);
    await runner.query('create index on parcel_look (parcel_id)');
    await runner.query(`comment on column parcel.wish is 'what is to be packed; null once it is'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table parcel_look, parcel_link, parcel_paper, parcel');
  }
}
