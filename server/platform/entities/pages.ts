import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { Box, Turn } from '@crow/core/geometry';
import { Legibility } from '@crow/core/imaging/legibility';
import { PageCode, StoredWord } from '@crow/core/reading/words';
import { CutReason } from '@crow/core/sorting/cuts';
import { Divider } from '@crow/core/sorting/divider';
import { PageSigns } from '@crow/core/sorting/signs';
import { ProblemReport } from '@crow/contract/problems';
import { SourceFile, Stack } from './stacks';
import { problem } from './problem';

/** A page: which page of which file, and how it is made from it. */
@Entity('page')
export class Page {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'stack_id' }) stackId: string;
  @ManyToOne(() => Stack) @JoinColumn({ name: 'stack_id' }) stack?: Stack;
  @Column('uuid', { name: 'source_file_id' }) sourceFileId: string;
  @ManyToOne(() => SourceFile) @JoinColumn({ name: 'source_file_id' }) sourceFile?: SourceFile;
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
  @ManyToOne(() => Page) @JoinColumn({ name: 'again_of' }) again?: Page;
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
  @Column('jsonb', { name: 'cut_why' }) cutWhy: CutReason[];
  /** What kind of paper it looks like by itself, and who from. */
  @Column('jsonb', { nullable: true }) glance: { kind: string | null; who: string | null } | null;
  /** Whether nothing is on it; null while unknown. */
  @Column('boolean', { nullable: true }) blank: boolean | null;
  /** What it says, where it is a divider sheet. */
  @Column('jsonb', { nullable: true }) divider: Divider | null;
  @Column('boolean') pictured: boolean;
  /** Whether the page of a PDF brings good text of its own; null while unknown. */
  @Column('boolean', { name: 'own_text', nullable: true }) ownText: boolean | null;
  @Column('text') reading: 'waiting' | 'read' | 'stopped' | 'failed';
  @Column('jsonb', { nullable: true, transformer: problem }) problem: ProblemReport | null;
  /** Whether it is the back of the sheet before it; null where that is not known. */
  @Column('boolean', { nullable: true }) back: boolean | null;
  /** What its text shows of beginnings and ends of documents. */
  @Column('jsonb', { nullable: true }) signs: PageSigns | null;
  /** What it looks like from afar: see core/imaging/likeness. */
  @Column('bytea', { nullable: true, select: false }) look?: Buffer | null;
}

/** What was read from a page, turned as it was. */
@Entity('reading')
export class Reading {
  @PrimaryColumn('uuid', { name: 'page_id' }) pageId: string;
  @ManyToOne(() => Page) @JoinColumn({ name: 'page_id' }) page?: Page;
  @PrimaryColumn('smallint') turn: Turn;
  @PrimaryColumn('text') version: string;
  @Column('real') width: number;
  @Column('real') height: number;
  @Column('text') language: string;
  @Column('boolean') own: boolean;
  @Column('jsonb') words: StoredWord[];
  /** Where something is written by hand that was not read. */
  @Column('jsonb', { default: [] }) handwriting: Box[];
  /** Square codes, with what they say. */
  @Column('jsonb', { default: [] }) codes: PageCode[];
  @CreateDateColumn({ type: 'timestamptz', name: 'read_at' }) readAt: Date;
  /** Its words in lines of text, made by the database; see the migration Lines. */
  @Column({ type: 'text', insert: false, update: false, select: false }) lines?: string;
}

/** The words of a page as they are found. */
@Entity('page_tokens')
export class PageTokens {
  @PrimaryColumn('uuid', { name: 'page_id' }) pageId: string;
  @ManyToOne(() => Page) @JoinColumn({ name: 'page_id' }) page?: Page;
  @Column('tsvector') tokens: string;
  /** Whether numbers in groups are among them as one, too. */
  @Column('boolean', { default: false }) numbered: boolean;
}

/** A word that stands on some page, for spellings that are alike. */
@Entity('vocabulary')
export class VocabularyWord {
  @PrimaryColumn('text') word: string;
}
