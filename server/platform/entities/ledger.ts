import {
  Column,
  CreateDateColumn,
  Entity,
  Generated,
  JoinColumn,
  ManyToOne,
  OneToMany,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { ACCOUNT_KINDS, CATEGORY_SIDES, EntryFields, PAPER_ROLES } from '@crow/contract/ledger';
import { EntryPart as Part } from '@crow/core/ledger/books/draft';
import { TieReason } from '@crow/core/ledger/matching/entry';
import { StatementFormat } from '@crow/core/ledger/statements/statement';
import { Actor } from './actors';
import { bigint } from './bigint';
import { Blob } from './blobs';
import { Document } from './documents';

/** Under what is entered. */
@Entity('category')
export class Category {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') side: (typeof CATEGORY_SIDES)[number];
  /** What stands on papers that belong under it, folded, with blanks between. */
  @Column('text', { default: '' }) words: string;
  @Column('int') @Generated('increment') place: number;
  @Column('boolean', { default: false }) retired: boolean;
}

/** What is paid from. */
@Entity('account')
export class Account {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') kind: (typeof ACCOUNT_KINDS)[number];
  @Column('text') currency: string;
  @Column('text', { default: '' }) number: string;
  @Column('int') @Generated('increment') place: number;
  @Column('boolean', { default: false }) retired: boolean;
  /** What was on it at the beginning of a day; null while nobody has said. */
  @Column('bigint', { nullable: true, transformer: bigint }) opening: number | null;
  @Column('date', { name: 'opening_day', nullable: true }) openingDay: string | null;
}

/** A line in the books. */
@Entity('entry')
export class Entry {
  @PrimaryGeneratedColumn('uuid') id: string;
  /** From 1, in the order in which they were made. */
  @Column('int') @Generated('increment') serial: number;
  @Column('int', { default: 1 }) revision: number;
  @Column('date') day: string;
  @Column('date', { nullable: true }) due: string | null;
  @Column('text') who: string;
  @Column('text', { default: '' }) what: string;
  @Column('text', { default: '' }) number: string;
  @Column('text') currency: string;
  /** In the smallest unit of its currency: what is to be paid is positive, what is to be received negative. */
  @Column('bigint', { transformer: bigint }) units: number;
  /** What it comes to in the money of the books, where it is in another; null while nobody has said. */
  @Column('bigint', { name: 'own_units', nullable: true, transformer: bigint }) ownUnits: number | null;
  @Column('uuid', { name: 'account_id', nullable: true }) accountId: string | null;
  @ManyToOne(() => Account) @JoinColumn({ name: 'account_id' }) account?: Account;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
  @Column('uuid', { name: 'made_by' }) madeBy: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'made_by' }) madeByActor?: Actor;
  /** Since when it doesn't change any more. */
  @Column('timestamptz', { name: 'checked_at', nullable: true }) checkedAt: Date | null;
  @Column('uuid', { name: 'checked_by', nullable: true }) checkedBy: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'checked_by' }) checkedByActor?: Actor;
  @Column('timestamptz', { name: 'taken_out_at', nullable: true }) takenOutAt: Date | null;
  @OneToMany(() => EntryPart, (part) => part.entry) parts?: EntryPart[];
  @OneToMany(() => EntryPaper, (paper) => paper.entry) papers?: EntryPaper[];
}

/** A share of an entry under one category and one treatment of tax. */
@Entity('entry_part')
export class EntryPart {
  @PrimaryColumn('uuid', { name: 'entry_id' }) entryId: string;
  @ManyToOne(() => Entry) @JoinColumn({ name: 'entry_id' }) entry?: Entry;
  /** From 1. */
  @PrimaryColumn('int') number: number;
  @Column('uuid', { name: 'category_id', nullable: true }) categoryId: string | null;
  @ManyToOne(() => Category) @JoinColumn({ name: 'category_id' }) category?: Category;
  @Column('text', { name: 'tax_code', nullable: true }) taxCode: string | null;
  @Column('numeric', { nullable: true, precision: 6, scale: 3 }) rate: string | null;
  @Column('bigint', { transformer: bigint }) net: number;
  @Column('bigint', { transformer: bigint }) tax: number;
}

/** A paper of an entry. */
@Entity('entry_paper')
export class EntryPaper {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @Column('uuid', { name: 'entry_id' }) entryId: string;
  @ManyToOne(() => Entry) @JoinColumn({ name: 'entry_id' }) entry?: Entry;
  @Column('text') role: (typeof PAPER_ROLES)[number];
  /** Whether the entry was made from it when it was filed. */
  @Column('boolean') entered: boolean;
}

/** An entry as it was before a change. */
@Entity('entry_version')
export class EntryVersion {
  @PrimaryColumn('uuid', { name: 'entry_id' }) entryId: string;
  @ManyToOne(() => Entry) @JoinColumn({ name: 'entry_id' }) entry?: Entry;
  @PrimaryColumn('int') revision: number;
  @CreateDateColumn({ type: 'timestamptz' }) until: Date;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @Column('jsonb') was: EntryFields;
}

/** What somebody said in Check of how a paper is entered; null for what is as proposed. */
@Entity('paper_books')
export class PaperBooks {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @Column('boolean', { nullable: true }) enters: boolean | null;
  /** Whether it is attached to an entry that is there; null for as proposed. */
  @Column('boolean', { nullable: true }) attach: boolean | null;
  @Column('uuid', { name: 'attach_to', nullable: true }) attachTo: string | null;
  @ManyToOne(() => Entry) @JoinColumn({ name: 'attach_to' }) attachToEntry?: Entry;
  @Column('uuid', { name: 'account_id', nullable: true }) accountId: string | null;
  @ManyToOne(() => Account) @JoinColumn({ name: 'account_id' }) account?: Account;
  @Column('jsonb', { nullable: true }) parts: Part[] | null;
  /** What it comes to in the money of the books, where it is in another. */
  @Column('bigint', { name: 'own_units', nullable: true, transformer: bigint }) ownUnits: number | null;
}

/** A statement's file. */
@Entity('statement')
export class StatementFile {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'account_id' }) accountId: string;
  @ManyToOne(() => Account) @JoinColumn({ name: 'account_id' }) account?: Account;
  @Column('text') name: string;
  @Column('text') format: StatementFormat;
  @Column('uuid', { name: 'blob_id' }) blobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'blob_id' }) blob?: Blob;
  /** The paper that it was read from; null for one that came as a file. */
  @Column('uuid', { name: 'document_id', nullable: true }) documentId: string | null;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @Column('text') currency: string;
  @Column('date', { name: 'first_day', nullable: true }) firstDay: string | null;
  @Column('date', { name: 'last_day', nullable: true }) lastDay: string | null;
  @Column('bigint', { nullable: true, transformer: bigint }) opening: number | null;
  @Column('bigint', { nullable: true, transformer: bigint }) closing: number | null;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz', name: 'taken_in_at' }) takenInAt: Date;
}

/** A line of a statement, each once however many files have it. */
@Entity('statement_line')
export class BookedLine {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'statement_id' }) statementId: string;
  @ManyToOne(() => StatementFile) @JoinColumn({ name: 'statement_id' }) statement?: StatementFile;
  @Column('uuid', { name: 'account_id' }) accountId: string;
  @ManyToOne(() => Account) @JoinColumn({ name: 'account_id' }) account?: Account;
  /** Its place in the file, from 1. */
  @Column('int') number: number;
  @Column('date') day: string;
  /** What came in is positive, what went out negative. */
  @Column('bigint', { transformer: bigint }) units: number;
  @Column('text') currency: string;
  @Column('text') who: string;
  @Column('text') text: string;
  /** What the bank calls it; '' for nothing. */
  @Column('text', { name: 'bank_id' }) bankId: string;
  @Column('bigint', { nullable: true, transformer: bigint }) balance: number | null;
}

/** Who sends bills, as their papers say or somebody said. */
@Entity('sender')
export class Sender {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  /** Its lines, joined by commas. */
  @Column('text', { default: '' }) address: string;
  @Column('text', { name: 'tax_number', default: '' }) taxNumber: string;
  /** Without blanks. */
  @Column('text', { default: '' }) iban: string;
  /** Under what its bills are entered, whatever those before were; null for as those before. */
  @Column('uuid', { name: 'category_id', nullable: true }) categoryId: string | null;
  @ManyToOne(() => Category) @JoinColumn({ name: 'category_id' }) category?: Category;
  /** The paper that it was first known from. */
  @Column('uuid', { name: 'document_id', nullable: true }) documentId: string | null;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
}

/** How lines of statements with the same words are entered for which no bill comes. */
@Entity('line_rule')
export class LineRule {
  @PrimaryGeneratedColumn('uuid') id: string;
  /** See core/ledger/matching/habits. */
  @Column('text') key: string;
  /** Whether it is of money that goes out. */
  @Column('boolean') outward: boolean;
  @Column('text') who: string;
  @Column('text', { default: '' }) what: string;
  @Column('uuid', { name: 'category_id', nullable: true }) categoryId: string | null;
  @ManyToOne(() => Category) @JoinColumn({ name: 'category_id' }) category?: Category;
  @Column('text', { name: 'tax_code', nullable: true }) taxCode: string | null;
  @Column('numeric', { nullable: true, precision: 6, scale: 3 }) rate: string | null;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
}

/** What holds entries and lines of statements together; of a transfer between own accounts, two lines alone. */
@Entity('tie')
export class Tie {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') state: 'proposed' | 'made' | 'refused';
  @Column('real') confidence: number;
  @Column('text') why: TieReason | 'by-hand' | 'transfer';
  /** Who made or refused it; null while it is proposed. */
  @Column('uuid', { name: 'actor_id', nullable: true }) actorId: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
  @OneToMany(() => TieEntry, (each) => each.tie) entries?: TieEntry[];
  @OneToMany(() => TieLine, (each) => each.tie) lines?: TieLine[];
}

@Entity('tie_entry')
export class TieEntry {
  @PrimaryColumn('uuid', { name: 'tie_id' }) tieId: string;
  @ManyToOne(() => Tie) @JoinColumn({ name: 'tie_id' }) tie?: Tie;
  @PrimaryColumn('uuid', { name: 'entry_id' }) entryId: string;
  @ManyToOne(() => Entry) @JoinColumn({ name: 'entry_id' }) entry?: Entry;
}

@Entity('tie_line')
export class TieLine {
  @PrimaryColumn('uuid', { name: 'tie_id' }) tieId: string;
  @ManyToOne(() => Tie) @JoinColumn({ name: 'tie_id' }) tie?: Tie;
  @PrimaryColumn('uuid', { name: 'line_id' }) lineId: string;
  @ManyToOne(() => BookedLine) @JoinColumn({ name: 'line_id' }) line?: BookedLine;
}
