import { Column, CreateDateColumn, Entity, Generated, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';
import { Box, Turn } from '@crow/core/geometry';
import { Legibility } from '@crow/core/imaging/legibility';
import { Kind } from '@crow/core/reading/facts/fact';
import { StoredWord } from '@crow/core/reading/words';
import { Divider } from '@crow/core/sorting/divider';
import { ProblemReport } from '@crow/contract/problems';
import { Role } from '@crow/contract/roles';
import { FactName } from '@crow/contract/facts';

/** Numbers that PostgreSQL sends as text because they could be larger than JavaScript counts. */
const bigint = {
  from: (value: string | null) => (value === null ? null : Number(value)),
  to: (value: unknown) => value,
};

/** Who does something. */
@Entity('actor')
export class Actor {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') role: Role;
}

/** Pages captured or taken in in one go, in order, and how they are cut. */
@Entity('stack')
export class Stack {
  @PrimaryColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') state: 'open' | 'sorted';
  @Column('int') step: number;
  @Column('boolean', { name: 'reading_stopped' }) readingStopped: boolean;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @Column('timestamptz', { name: 'binned_at', nullable: true }) binnedAt: Date | null;
}

/** A file as it came, and what became of it. */
@Entity('source_file')
export class SourceFile {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'stack_id' }) stackId: string;
  @Column('text') name: string;
  @Column('int') position: number;
  @Column('uuid', { name: 'blob_id' }) blobId: string;
  @Column('text') state: 'waiting' | 'taken' | 'refused';
  @Column('text', { nullable: true }) format: string | null;
  @Column('jsonb', { nullable: true }) problem: ProblemReport | null;
  @Column('boolean') dismissed: boolean;
  /** Its pages go before this one; else to the end. */
  @Column('uuid', { name: 'before_page', nullable: true }) beforePage: string | null;
  /** The page that it is another capture of. */
  @Column('uuid', { name: 'again_page', nullable: true }) againPage: string | null;
  /** The document that its pages go into. */
  @Column('uuid', { name: 'document_id', nullable: true }) documentId: string | null;
  /** Who took it in. */
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  /** Whether it comes out of an archive that was taken in. */
  @Column('boolean', { default: false }) unpacked: boolean;
  /** Whether its pages are all that its document is made of from then on. */
  @Column('boolean', { default: false }) replaces: boolean;
  /** What is known of the document that it is, when it comes from an archive of the shelf. */
  @Column('jsonb', { nullable: true }) told: unknown;
}

/** A page: which page of which file, and how it is made from it. */
@Entity('page')
export class Page {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'stack_id' }) stackId: string;
  @Column('uuid', { name: 'source_file_id' }) sourceFileId: string;
  /** From 0. */
  @Column('int', { name: 'source_number' }) sourceNumber: number;
  /** Which of the sheets in one picture, from 0. */
  @Column('int') part: number;
  /** Whether its picture is shown only as far as it could be decoded. */
  @Column('boolean', { default: false }) damaged: boolean;
  @Column('int') position: number;
  /** Size of the picture that it is made from, in pixels and points. */
  @Column('int', { name: 'source_width' }) sourceWidth: number;
  @Column('int', { name: 'source_height' }) sourceHeight: number;
  @Column('real', { name: 'source_point_width' }) sourcePointWidth: number;
  @Column('real', { name: 'source_point_height' }) sourcePointHeight: number;
  /** Whether that picture is a flat scan for sure. */
  @Column('boolean') scanned: boolean;
  /** Whether it has been found out how the page is made from it. */
  @Column('boolean') prepared: boolean;
  /** The recipe that it is made by; empty for the picture as it is. */
  @Column('text') version: string;
  /** How sure its outline is, 0 to 1. */
  @Column('real', { nullable: true }) confidence: number | null;
  @Column('jsonb', { nullable: true }) legibility: Legibility | null;
  /** The version that its legibility was judged of; null for none. */
  @Column('text', { nullable: true }) judged: string | null;
  /** The version that a person found good enough, whatever its legibility. */
  @Column('text', { nullable: true }) waved: string | null;
  /** The page that this is another capture of. */
  @Column('uuid', { name: 'again_of', nullable: true }) againOf: string | null;
  /** Size of the full page before turning, in pixels. */
  @Column('int') width: number;
  @Column('int') height: number;
  /** Size before turning, in points. */
  @Column('real', { name: 'point_width' }) pointWidth: number;
  @Column('real', { name: 'point_height' }) pointHeight: number;
  @Column('smallint') turn: Turn;
  @Column('boolean') dropped: boolean;
  @Column('boolean', { name: 'cut_before' }) cutBefore: boolean;
  /** Whether a person has decided about the cut before it, and about dropping it. */
  @Column('boolean', { name: 'cut_decided' }) cutDecided: boolean;
  @Column('boolean', { name: 'drop_decided' }) dropDecided: boolean;
  /** What is proposed for the gap before it; null for the first page and blank ones. */
  @Column('real', { name: 'cut_chance', nullable: true }) cutChance: number | null;
  @Column('boolean', { name: 'cut_sure' }) cutSure: boolean;
  @Column('jsonb', { name: 'cut_why' }) cutWhy: string[];
  /** What kind of paper it looks like by itself, and who from. */
  @Column('jsonb', { nullable: true }) glance: { kind: Kind | null; who: string | null } | null;
  /** Whether nothing is on it; null while unknown. */
  @Column('boolean', { nullable: true }) blank: boolean | null;
  /** What it says, where it is a divider sheet. */
  @Column('jsonb', { nullable: true }) divider: Divider | null;
  @Column('boolean') pictured: boolean;
  /** Whether the page of a PDF brings good text of its own; null while unknown. */
  @Column('boolean', { name: 'own_text', nullable: true }) ownText: boolean | null;
  @Column('text') reading: 'waiting' | 'read' | 'stopped' | 'failed';
  @Column('jsonb', { nullable: true }) problem: ProblemReport | null;
}

/** What was read from a page, turned as it was. */
@Entity('reading')
export class Reading {
  @PrimaryColumn('uuid', { name: 'page_id' }) pageId: string;
  @PrimaryColumn('smallint') turn: Turn;
  @PrimaryColumn('text') version: string;
  @Column('real') width: number;
  @Column('real') height: number;
  @Column('text') language: string;
  @Column('boolean') own: boolean;
  @Column('jsonb') words: StoredWord[];
  /** Where something is written by hand that was not read. */
  @Column('jsonb', { default: [] }) handwriting: Box[];
}

@Entity('folder')
export class Folder {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'parent_id', nullable: true }) parentId: string | null;
  @Column('text') name: string;
  @Column('text', { name: 'name_key' }) nameKey: string;
}

/** A document: waiting to be checked, being filed, or on the shelf. */
@Entity('document')
export class Document {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'stack_id', nullable: true }) stackId: string | null;
  @Column('text') state: 'check' | 'filing' | 'filed';
  @Column('bigint', { name: 'turn_in_line', transformer: bigint }) @Generated('increment') turnInLine: number;
  @Column('uuid', { name: 'folder_id', nullable: true }) folderId: string | null;
  @Column('text') name: string;
  @Column('text', { name: 'name_key', nullable: true }) nameKey: string | null;
  /** Path of the folder that its divider sheet names. */
  @Column('text', { name: 'wanted_folder', nullable: true }) wantedFolder: string | null;
  @Column('uuid', { name: 'pdf_blob_id', nullable: true }) pdfBlobId: string | null;
  @Column('boolean', { nullable: true }) archival: boolean | null;
  @Column('timestamptz', { name: 'filed_at', nullable: true }) filedAt: Date | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @Column('timestamptz', { name: 'binned_at', nullable: true }) binnedAt: Date | null;
  @Column('jsonb', { nullable: true }) problem: ProblemReport | null;
}

@Entity('fact')
export class Fact {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @PrimaryColumn('text') name: FactName;
  @Column('text') value: string;
  @Column('uuid', { name: 'page_id', nullable: true }) pageId: string | null;
  /** Shares (0 to 1) of the page as shown. */
  @Column('jsonb', { nullable: true }) box: Box | null;
  @Column('real') confidence: number;
  @Column('uuid', { name: 'confirmed_by', nullable: true }) confirmedBy: string | null;
  @Column('text', { nullable: true }) why: string | null;
  @Column('boolean', { default: false }) repaired: boolean;
}

/** What stands on disk for a filed document, as it was written; `path` is relative to the shelf folder. */
@Entity('shelf_file')
export class ShelfFile {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  /** Of the PDF `.pdf`; what is kept beside it has others. */
  @PrimaryColumn('text', { default: '.pdf' }) ending: string;
  @Column('text') path: string;
  @Column('text') sha256: string;
  @Column('bigint', { transformer: bigint }) size: number;
  @Column('double precision', { name: 'modified_ms' }) modifiedMs: number;
}

export const ENTITIES = [Actor, Stack, SourceFile, Page, Reading, Folder, Document, Fact, ShelfFile];
