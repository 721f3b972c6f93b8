import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { ProblemReport } from '@crow/contract/problems';
import { Binding } from '@crow/contract/stacks';
import { MailData } from '@crow/core/reading/facts/mailData';
import { InvoiceData } from '@crow/core/reading/facts/invoiceData';
import { Arrangement } from '@crow/core/sorting/arrangement';
import { Actor } from './actors';
import { Blob } from './blobs';
import { WatchedFolder } from './devices';
import { problem } from './problem';

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
  /** Who began it; null for stacks from before that was noted. */
  @Column('uuid', { name: 'actor_id', nullable: true }) actorId: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** Whether it is one document, however many pages it has. */
  @Column('boolean', { default: false }) whole: boolean;
  /** Whether it goes to Check by itself. */
  @Column('boolean', { default: false }) onward: boolean;
  /** Whether its papers belong to entries in the books. */
  @Column('boolean', { name: 'for_entry', default: false }) forEntry: boolean;
  @Column('uuid', { name: 'watched_folder_id', nullable: true }) watchedFolderId: string | null;
  @ManyToOne(() => WatchedFolder) @JoinColumn({ name: 'watched_folder_id' }) watchedFolder?: WatchedFolder;
  /** Path of the folder that its documents are meant for. */
  @Column('text', { name: 'wanted_folder', nullable: true }) wantedFolder: string | null;
}

/** How the pages of a stack lay after a step, so that it can be undone and done again. */
@Entity('arrangement')
export class KeptArrangement {
  @PrimaryColumn('uuid', { name: 'stack_id' }) stackId: string;
  @ManyToOne(() => Stack) @JoinColumn({ name: 'stack_id' }) stack?: Stack;
  @PrimaryColumn('int') step: number;
  @Column('jsonb') pages: Arrangement;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
}

/** A file as it came, and what became of it. */
@Entity('source_file')
export class SourceFile {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'stack_id' }) stackId: string;
  @ManyToOne(() => Stack) @JoinColumn({ name: 'stack_id' }) stack?: Stack;
  @Column('text') name: string;
  @Column('int') position: number;
  @Column('uuid', { name: 'blob_id' }) blobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'blob_id' }) blob?: Blob;
  @Column('text') state: 'waiting' | 'taken' | 'refused';
  @Column('text', { nullable: true }) format: string | null;
  @Column('jsonb', { nullable: true, transformer: problem }) problem: ProblemReport | null;
  @Column('boolean') dismissed: boolean;
  /** Its pages go before this one; else to the end. */
  @Column('uuid', { name: 'before_page', nullable: true }) beforePage: string | null;
  @ManyToOne('Page') @JoinColumn({ name: 'before_page' }) before?: object;
  /** The page that it is another capture of. */
  @Column('uuid', { name: 'again_page', nullable: true }) againPage: string | null;
  @ManyToOne('Page') @JoinColumn({ name: 'again_page' }) again?: object;
  /** The document that its pages go into. */
  @Column('uuid', { name: 'document_id', nullable: true }) documentId: string | null;
  @ManyToOne('Document') @JoinColumn({ name: 'document_id' }) document?: object;
  /** Who took it in. */
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** Whether it comes out of an archive that was taken in. */
  @Column('boolean', { default: false }) unpacked: boolean;
  /** Whether its pages are all that its document is made of from then on. */
  @Column('boolean', { default: false }) replaces: boolean;
  /** What is known of the document that it is, when it comes from an archive of the shelf. */
  @Column('jsonb', { nullable: true }) told: unknown;
  /** Whether its pages are backs of sheets; null where that is not known. */
  @Column('boolean', { nullable: true }) back: boolean | null;
  /** At which side the book is bound that it shows from above, if it does: an open one gives two pages. */
  @Column('text', { nullable: true }) bound: Binding | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  /** The electronic invoice that it carries. */
  @Column('jsonb', { nullable: true }) invoice: InvoiceData | null;
  /** The head of the mail that it is. */
  @Column('jsonb', { nullable: true }) mail: MailData | null;
  /** The file as it came, where its pages come from another: a copy without its password, or an invoice that was drawn. */
  @Column('uuid', { name: 'came_blob_id', nullable: true }) cameBlobId: string | null;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'came_blob_id' }) cameBlob?: Blob;
}
