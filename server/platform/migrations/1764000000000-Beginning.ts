import { MigrationInterface, QueryRunner } from 'typeorm';

/** The first tables. */
export class Beginning1764000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`create extension if not exists pg_trgm`);
    await runner.query(`
      create table actor (
        id uuid primary key default gen_random_uuid(),
        name text not null,
        role text not null check (role in ('owner'))
      )`);
    await runner.query(`insert into actor (name, role) values ('Owner', 'owner')`);

    await runner.query(`
      create table blob (
        id uuid primary key default gen_random_uuid(),
        sha256 text unique,
        size bigint not null default 0,
        created_at timestamptz not null default now()
      )`);
    await runner.query(`comment on column blob.sha256 is 'null while its bytes are still arriving'`);
    await runner.query(`
      create table blob_chunk (
        blob_id uuid not null references blob on delete cascade,
        number int not null,
        bytes bytea not null,
        primary key (blob_id, number)
      )`);
    // Papers are compressed already; trying again only costs time.
    await runner.query(`alter table blob_chunk alter column bytes set storage external`);

    await runner.query(`
      create table stack (
        id uuid primary key,
        name text not null,
        state text not null default 'open' check (state in ('open', 'sorted')),
        step int not null default 0,
        reading_stopped boolean not null default false,
        created_at timestamptz not null default clock_timestamp(),
        binned_at timestamptz
      )`);
    await runner.query(`
      create table arrangement (
        stack_id uuid not null references stack on delete cascade,
        step int not null,
        pages jsonb not null,
        actor_id uuid not null references actor,
        at timestamptz not null default now(),
        primary key (stack_id, step)
      )`);
    await runner.query(`
      create table source_file (
        id uuid primary key default gen_random_uuid(),
        stack_id uuid not null references stack on delete cascade,
        name text not null,
        position int not null,
        blob_id uuid not null references blob,
        state text not null default 'waiting' check (state in ('waiting', 'taken', 'refused')),
        format text,
        problem jsonb,
        dismissed boolean not null default false
      )`);
    await runner.query(`create index on source_file (stack_id)`);
    await runner.query(`create index on source_file (blob_id)`);

    await runner.query(`
      create table page (
        id uuid primary key default gen_random_uuid(),
        stack_id uuid not null references stack on delete cascade,
        source_file_id uuid not null references source_file,
        source_number int not null,
        position int not null,
        width int not null,
        height int not null,
        point_width real not null,
        point_height real not null,
        turn smallint not null default 0 check (turn in (0, 90, 180, 270)),
        dropped boolean not null default false,
        cut_before boolean not null default false,
        pictured boolean not null default false,
        own_text boolean,
        reading text not null default 'waiting' check (reading in ('waiting', 'read', 'stopped', 'failed')),
        problem jsonb,
        unique (source_file_id, source_number)
      )`);
    await runner.query(`create index on page (stack_id, position)`);
    await runner.query(`
      create table derived_picture (
        blob_id uuid not null references blob,
        source_number int not null,
        recipe text not null,
        picture_blob_id uuid not null references blob,
        media_type text not null,
        primary key (blob_id, source_number, recipe)
      )`);
    await runner.query(`create index on derived_picture (picture_blob_id)`);
    await runner.query(`
      create table reading (
        page_id uuid not null references page on delete cascade,
        turn smallint not null,
        width real not null,
        height real not null,
        language text not null,
        own boolean not null,
        words jsonb not null,
        read_at timestamptz not null default now(),
        primary key (page_id, turn)
      )`);
    await runner.query(`
      create table page_tokens (
        page_id uuid primary key references page on delete cascade,
        tokens tsvector not null
      )`);
    await runner.query(`create index on page_tokens using gin (tokens)`);
    await runner.query(`create table vocabulary (word text primary key)`);
    await runner.query(`create index on vocabulary using gin (word gin_trgm_ops)`);

    await runner.query(`
      create table folder (
        id uuid primary key default gen_random_uuid(),
        parent_id uuid references folder,
        name text not null,
        name_key text not null,
        created_at timestamptz not null default now()
      )`);
    await runner.query(
      `create unique index on folder (coalesce(parent_id, '00000000-0000-0000-0000-000000000000'), name_key)`,
    );

    await runner.query(`create sequence document_turn`);
    await runner.query(`
      create table document (
        id uuid primary key default gen_random_uuid(),
        stack_id uuid references stack,
        state text not null default 'check' check (state in ('check', 'filing', 'filed')),
        turn_in_line bigint not null default nextval('document_turn'),
        folder_id uuid references folder,
        name text not null default '',
        name_key text,
        pdf_blob_id uuid references blob,
        archival boolean,
        filed_at timestamptz,
        created_at timestamptz not null default now(),
        binned_at timestamptz,
        problem jsonb,
        check (state = 'check' or (folder_id is not null and name_key is not null))
      )`);
    // The promise that nothing is overwritten: one name once in a folder, whatever its case.
    await runner.query(`
      create unique index document_name_once on document (folder_id, name_key)
      where state <> 'check' and binned_at is null`);
    await runner.query(`create index on document (state, turn_in_line)`);
    await runner.query(`create index on document (pdf_blob_id)`);
    await runner.query(`create index on document (stack_id)`);
    await runner.query(`
      create table document_page (
        document_id uuid not null references document on delete cascade,
        number int not null,
        page_id uuid not null unique references page,
        primary key (document_id, number)
      )`);
    await runner.query(`
      create table fact (
        document_id uuid not null references document on delete cascade,
        name text not null check (name in ('kind', 'vendor', 'date')),
        value text not null,
        page_id uuid references page,
        box jsonb,
        confidence real not null,
        confirmed_by uuid references actor,
        at timestamptz not null default now(),
        primary key (document_id, name)
      )`);
    await runner.query(`
      create table shelf_file (
        document_id uuid primary key references document on delete cascade,
        path text not null,
        sha256 text not null,
        size bigint not null,
        modified_ms double precision not null
      )`);
    await runner.query(`
      create table history (
        id bigint generated always as identity primary key,
        at timestamptz not null default clock_timestamp(),
        actor_id uuid not null references actor,
        action text not null,
        subject text not null,
        subject_id uuid,
        detail jsonb not null default '{}'
      )`);
    await runner.query(`create index on history (subject_id, at)`);
    await runner.query(`create table setting (name text primary key, value jsonb not null)`);
    await runner.query(`
      create table claim (
        job_id uuid primary key,
        queue text not null,
        lease int not null,
        at timestamptz not null default now()
      )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    const tables = [
      'claim',
      'setting',
      'history',
      'shelf_file',
      'fact',
      'document_page',
      'document',
      'folder',
      'vocabulary',
      'page_tokens',
      'reading',
      'derived_picture',
      'page',
      'source_file',
      'arrangement',
      'stack',
      'blob_chunk',
      'blob',
      'actor',
    ];
    for (const table of tables) await runner.query(`drop table ${table}`);
    await runner.query(`drop sequence document_turn`);
  }
}
