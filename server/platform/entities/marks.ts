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
import { Box, Turn } from '@crow/core/geometry';
import { Ink, MarkKind, Stroke } from '@crow/core/pdf/marks/mark';
import { Actor } from './actors';
import { bigint } from './bigint';
import { Page } from './pages';

/** A mark on a page, in points on the page as it was shown when it was put there. */
@Entity('mark')
export class Mark {
  @PrimaryColumn('uuid') id: string;
  @Column('uuid', { name: 'page_id' }) pageId: string;
  @ManyToOne(() => Page) @JoinColumn({ name: 'page_id' }) page?: Page;
  @Column('text') kind: MarkKind;
  @Column('text') ink: Ink;
  @Column('jsonb') boxes: Box[];
  @Column('jsonb') strokes: Stroke[];
  @Column('text') text: string;
  /** How the page was turned then. */
  @Column('smallint') turn: Turn;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** Who made it in another program, as that says; null for whoever made it here. */
  @Column('text', { nullable: true }) author: string | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
  /** In the order in which marks were put; those put at once have one time. */
  @Column('bigint', { transformer: bigint }) @Generated('increment') number: number;
  /** Since when it is taken off the page; it can be put back with what was answered to it. */
  @Column('timestamptz', { name: 'removed_at', nullable: true }) removedAt: Date | null;
  @OneToMany(() => MarkReply, (reply) => reply.mark) replies?: MarkReply[];
}

/** What somebody answered to a mark. */
@Entity('mark_reply')
export class MarkReply {
  @PrimaryColumn('uuid') id: string;
  @Column('uuid', { name: 'mark_id' }) markId: string;
  @ManyToOne(() => Mark) @JoinColumn({ name: 'mark_id' }) mark?: Mark;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @Column('text', { nullable: true }) author: string | null;
  @Column('text') text: string;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
}

/** A signature that somebody keeps, for themselves alone. */
@Entity('signature')
export class Signature {
  @PrimaryColumn('uuid') id: string;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @Column('text') text: string;
  @Column('jsonb') strokes: Stroke[];
  @Column('real') shape: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
}

/** A key that somebody signs with, for themselves alone. */
@Entity('signing_key')
export class SigningKey {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** Their certificate, and those that vouch for it (X.509, DER). */
  @Column('bytea') certificate: Buffer;
  @Column('bytea', { array: true }) chain: Buffer[];
  /** The key, encrypted by its pass phrase (PKCS #8, PEM). */
  @Column('text', { name: 'locked_key' }) lockedKey: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
}
