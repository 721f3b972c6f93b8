import {
  Column,
  CreateDateColumn,
  Entity,
  Generated,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { PdfSize } from '@crow/contract/documents';
import { FactName } from '@crow/contract/facts';
import { ProblemReport } from '@crow/contract/problems';
import { Beside } from '@crow/core/filing/pattern';
import { Box } from '@crow/core/geometry';
import { Check } from '@crow/core/reading/facts/signs';
import { Reason } from '@crow/core/reading/facts/reason';
import { Booking, FactLine, TaxAtRate } from '@crow/core/reading/facts/fact';
import { Actor } from './actors';
import { bigint } from './bigint';
import { Blob } from './blobs';
import { Folder } from './folders';
import { Page } from './pages';
import { Stack } from './stacks';
import { problem } from './problem';

/** A document: waiting to be checked, being filed, or on the shelf. */
@Entity('document')
export class Document {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'stack_id', nullable: true }) stackId: string | null;
  @ManyToOne(() => Stack) @JoinColumn({ name: 'stack_id' }) stack?: Stack;
  @Column('text') state: 'check' | 'filing' | 'filed';
  @Column('bigint', { name: 'turn_in_line', transformer: bigint }) @Generated('increment') turnInLine: number;
  @Column('uuid', { name: 'folder_id', nullable: true }) folderId: string | null;
  @ManyToOne(() => Folder) @JoinColumn({ name: 'folder_id' }) folder?: Folder;
  @Column('text') name: string;
  @Column('text', { name: 'name_key', nullable: true }) nameKey: string | null;
  /** Path of the folder that its divider sheet names. */
  @Column('text', { name: 'wanted_folder', nullable: true }) wantedFolder: string | null;
  @Column('uuid', { name: 'pdf_blob_id', nullable: true }) pdfBlobId: string | null;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'pdf_blob_id' }) pdfBlob?: Blob;
  /** Its PDF without the marks that were put on it; null while it has none. */
  @Column('uuid', { name: 'bare_blob_id', nullable: true }) bareBlobId: string | null;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'bare_blob_id' }) bareBlob?: Blob;
  @Column('boolean', { nullable: true }) archival: boolean | null;
  @Column('timestamptz', { name: 'filed_at', nullable: true }) filedAt: Date | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @Column('timestamptz', { name: 'binned_at', nullable: true }) binnedAt: Date | null;
  @Column('jsonb', { nullable: true, transformer: problem }) problem: ProblemReport | null;
  @Column('text', { name: 'pdf_size', default: 'full' }) pdfSize: PdfSize;
  /** What is kept beside its PDF. */
  @Column('text', { array: true, default: [] }) beside: Beside[];
  /** What is wrong with what the paper says. */
  @Column('jsonb', { default: [] }) checks: Check[];
  @Column('jsonb', { nullable: true }) lines: FactLine[] | null;
  @Column('jsonb', { nullable: true }) taxes: TaxAtRate[] | null;
  /** What a statement books. */
  @Column('jsonb', { nullable: true }) bookings: Booking[] | null;
  /** The kind that was read, and the word that told it. */
  @Column('text', { name: 'kind_read', nullable: true }) kindRead: string | null;
  /** What people call it besides its name, each in the order in which it was given. */
  @Column('text', { array: true, default: [] }) tags: string[];
  /** What somebody wrote about it. */
  @Column('text', { default: '' }) note: string;
  /** Its tags and note as they are found; null while it has none. */
  @Column('tsvector', { name: 'remark_tokens', nullable: true, select: false }) remarkTokens: string | null;
  /** Who set the taxes; null for the reading. */
  @Column('uuid', { name: 'taxes_by', nullable: true }) taxesBy: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'taxes_by' }) taxesByActor?: Actor;
}

/** Which pages a document has, in their order. */
@Entity('document_page')
export class DocumentPage {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  /** From 1. */
  @PrimaryColumn('int') number: number;
  @Column('uuid', { name: 'page_id' }) pageId: string;
  @ManyToOne(() => Page) @JoinColumn({ name: 'page_id' }) page?: Page;
}

/** A PDF that a document had before, or that was signed: neither changes any more. */
@Entity('document_version')
export class DocumentVersion {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @PrimaryColumn('int') number: number;
  @Column('uuid', { name: 'pdf_blob_id' }) pdfBlobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'pdf_blob_id' }) pdfBlob?: Blob;
  @CreateDateColumn({ type: 'timestamptz' }) until: Date;
  /** Who signed it; null for one that was only before. */
  @Column('uuid', { name: 'signed_by', nullable: true }) signedBy: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'signed_by' }) signedByActor?: Actor;
  /** What they were called where it was signed, when it came back from an archive. */
  @Column('text', { name: 'signed_as', nullable: true }) signedAs: string | null;
  /** What the certificate calls them that it was signed with; null for none. */
  @Column('text', { nullable: true }) certified: string | null;
  /** What signing it meant. */
  @Column('text', { default: '' }) reason: string;
}

/** A file that is kept beside a document's PDF. */
@Entity('document_file')
export class DocumentFile {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @PrimaryColumn('text') ending: string;
  @Column('uuid', { name: 'blob_id' }) blobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'blob_id' }) blob?: Blob;
}

/** How large a document's PDF would be. */
@Entity('document_size')
export class DocumentSize {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  /** A hash over the pages that it was weighed with. */
  @PrimaryColumn('text') pages: string;
  @PrimaryColumn('text') size: PdfSize;
  @Column('bigint', { transformer: bigint }) bytes: number;
}

/** What a document says, as it was read or as a person says. */
@Entity('fact')
export class Fact {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @PrimaryColumn('text') name: FactName;
  /** As it is written: days in ISO 8601, money with a point. */
  @Column('text') value: string;
  /** What it says, by its type; see core/reading/facts/typedFact. */
  @Column('date', { nullable: true }) day: string | null;
  @Column('bigint', { nullable: true, transformer: bigint }) units: number | null;
  @Column('smallint', { nullable: true }) digits: number | null;
  @Column('text', { nullable: true }) currency: string | null;
  @Column('numeric', { nullable: true, precision: 6, scale: 3 }) rate: string | null;
  /** Its money in units of its currency, made by the database, to be compared. */
  @Column({ type: 'numeric', nullable: true, insert: false, update: false, select: false }) amount?: string | null;
  @Column('uuid', { name: 'page_id', nullable: true }) pageId: string | null;
  @ManyToOne(() => Page) @JoinColumn({ name: 'page_id' }) page?: Page;
  /** Shares (0 to 1) of the page as shown. */
  @Column('jsonb', { nullable: true }) box: Box | null;
  @Column('real') confidence: number;
  @Column('uuid', { name: 'confirmed_by', nullable: true }) confirmedBy: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'confirmed_by' }) confirmedByActor?: Actor;
  @Column('jsonb', { nullable: true }) why: Reason | null;
  @Column('boolean', { default: false }) repaired: boolean;
  /** What it may be as well. */
  @Column('text', { nullable: true }) other: string | null;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
}

/** A fact that a person says the document does not say. */
@Entity('fact_emptied')
export class FactEmptied {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @PrimaryColumn('text') name: FactName;
  @Column('uuid', { name: 'emptied_by' }) emptiedBy: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'emptied_by' }) emptiedByActor?: Actor;
}

/** What tells a sender: an account, a tax number, an address on the web, a telephone number on one of their papers. */
@Entity('sender_sign')
export class SenderSign {
  @PrimaryColumn('text') kind: string;
  @PrimaryColumn('text') value: string;
  @PrimaryColumn('text') vendor: string;
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
}

/** What stands on disk for a filed document, as it was written; `path` is relative to the shelf folder. */
@Entity('shelf_file')
export class ShelfFile {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  /** Of the PDF `.pdf`; what is kept beside it has others. */
  @PrimaryColumn('text', { default: '.pdf' }) ending: string;
  @Column('text') path: string;
  @Column('text') sha256: string;
  @Column('bigint', { transformer: bigint }) size: number;
  @Column('double precision', { name: 'modified_ms' }) modifiedMs: number;
}

/** What stands in the file that tells the shelf folder from an empty place for its drive. */
@Entity('shelf_mark')
export class ShelfMark {
  @PrimaryColumn('boolean', { default: true }) one: true;
  @Column('uuid') mark: string;
}

/** A file of somebody else in the shelf folder that nobody wants taken in. */
@Entity('shelf_left')
export class ShelfLeft {
  @PrimaryColumn('text') path: string;
}
