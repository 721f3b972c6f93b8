import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { Role } from '@crow/contract/roles';

/** Who does something. */
@Entity('actor')
export class Actor {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') role: Role;
}

/** A browser that was let in. */
@Entity('session')
export class Session {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** SHA-256 of its secret. */
  @Column('bytea', { name: 'token_hash' }) tokenHash: Buffer;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @Column('timestamptz', { name: 'used_at', default: () => 'now()' }) usedAt: Date;
}

/** A key with which one browser is let in, once. */
@Entity('entry_key')
export class EntryKey {
  /** SHA-256 of it. */
  @PrimaryColumn('bytea', { name: 'key_hash' }) keyHash: Buffer;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
}

/** Who did what, when. */
@Entity('history')
export class History {
  @PrimaryGeneratedColumn('identity', { type: 'bigint', generatedIdentity: 'ALWAYS' }) id: string;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @Column('text') action: string;
  @Column('text') subject: string;
  @Column('uuid', { name: 'subject_id', nullable: true }) subjectId: string | null;
  @Column('jsonb', { default: {} }) detail: Record<string, unknown>;
}
