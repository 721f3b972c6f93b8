import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  JoinTable,
  ManyToMany,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { Role } from '@crow/contract/roles';
import { Folder } from './folders';

/** Who does something. */
@Entity('actor')
export class Actor {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') role: Role;
  /** Of the pass phrase (argon2id); null for whoever comes in by keys, and for whoever has left. */
  @Column('text', { name: 'pass_hash', nullable: true }) passHash: string | null;
  @Column('timestamptz', { name: 'left_at', nullable: true }) leftAt: Date | null;
  /** How often a wrong pass phrase was tried since the last right one, and when last. */
  @Column('int', { default: 0 }) tries: number;
  @Column('timestamptz', { name: 'tried_at', nullable: true }) triedAt: Date | null;
  /** Whether a reader sees all folders; else those that were granted, with the folders inside them. */
  @Column('boolean', { name: 'all_folders', default: false }) allFolders: boolean;
  @ManyToMany(() => Folder)
  @JoinTable({ name: 'granted_folder', joinColumn: { name: 'actor_id' }, inverseJoinColumn: { name: 'folder_id' } })
  folders?: Folder[];
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
  /** What the browser said that it is. */
  @Column('text', { default: '' }) browser: string;
  /** What the device that was let in by a key of its own is called; '' for others. */
  @Column('text', { default: '' }) device: string;
}

/** A key with which one browser is let in, once. */
@Entity('entry_key')
export class EntryKey {
  /** SHA-256 of it. */
  @PrimaryColumn('bytea', { name: 'key_hash' }) keyHash: Buffer;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
  @Column('timestamptz', { name: 'good_until' }) goodUntil: Date;
  /** What the device is called that it lets in; '' when it is for a browser of this machine. */
  @Column('text', { default: '' }) device: string;
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

/** A search that somebody keeps. */
@Entity('kept_search')
export class KeptSearch {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @Column('text') query: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
}
