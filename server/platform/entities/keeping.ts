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
import { Actor } from './actors';
import { Document } from './documents';

/** A box or a binder in which sheets lie. */
@Entity('place')
export class Place {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('int') @Generated('increment') turn: number;
  /** Whether sheets of what is filed now go there; of one place at most. */
  @Column('boolean', { default: false }) takes: boolean;
  @Column('boolean', { default: false }) retired: boolean;
}

/** What is known of the sheet of a paper. */
@Entity('sheet')
export class Sheet {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @Column('uuid', { name: 'place_id', nullable: true }) placeId: string | null;
  @ManyToOne(() => Place) @JoinColumn({ name: 'place_id' }) place?: Place;
  /** What somebody said is to become of it, whatever the rules say; null for what they say. */
  @Column('text', { nullable: true }) said: 'keep' | 'may go' | null;
  @Column('timestamptz', { name: 'gone_at', nullable: true }) goneAt: Date | null;
  @Column('uuid', { name: 'gone_by', nullable: true }) goneBy: string | null;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'gone_by' }) goneByActor?: Actor;
}

/** How it was last found out whether the file of a paper can stand for its sheet. */
@Entity('proof')
export class Proof {
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  /** The hash of its PDF with which the bytes in the database and on disk agreed; null while they never did. */
  @Column('text', { name: 'agreed_sha256', nullable: true }) agreedSha256: string | null;
  /** Whether they were compared last without agreeing. */
  @Column('boolean', { default: false }) differed: boolean;
  @Column('timestamptz', { name: 'compared_at', nullable: true }) comparedAt: Date | null;
  /** The hash of its PDF with which it was last found in an archive. */
  @Column('text', { name: 'copied_sha256', nullable: true }) copiedSha256: string | null;
  @Column('timestamptz', { name: 'copied_at', nullable: true }) copiedAt: Date | null;
}

/** An archive of the shelf that was looked through to see what is in it. */
@Entity('looked_archive')
export class LookedArchive {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** How many papers in it are as they are on the shelf. */
  @Column('int') papers: number;
}
