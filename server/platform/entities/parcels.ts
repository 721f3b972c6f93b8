import {
  Column,
  CreateDateColumn,
  Entity,
  Generated,
  JoinColumn,
  ManyToOne,
  OneToMany,
  OneToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { ProblemReport } from '@crow/contract/problems';
import { PackedWish, PARCEL_STATES, PARCEL_WAYS } from '@crow/contract/sending';
import { Actor } from './actors';
import { bigint } from './bigint';
import { Blob } from './blobs';
import { Document } from './documents';
import { problem } from './problem';

/** Copies that go out. */
@Entity('parcel')
export class Parcel {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') way: (typeof PARCEL_WAYS)[number];
  @Column('text') state: (typeof PARCEL_STATES)[number];
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  /** What is to be packed; null once it is. */
  @Column('jsonb', { nullable: true }) wish: PackedWish | null;
  @Column('text') title: string;
  @Column('text', { default: '' }) recipients: string;
  @Column('text', { default: '' }) body: string;
  @Column('text', { name: 'file_name', default: '' }) fileName: string;
  @Column('text', { name: 'media_type', default: '' }) mediaType: string;
  /** What is packed; nothing any more once it has arrived, or is over. */
  @Column('uuid', { name: 'blob_id', nullable: true }) blobId: string | null;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'blob_id' }) blob?: Blob;
  @Column('bigint', { nullable: true, transformer: bigint }) bytes: number | null;
  @Column('jsonb', { nullable: true, transformer: problem }) problem: ProblemReport | null;
  @Column('int', { default: 0 }) tries: number;
  @Column('timestamptz', { name: 'next_try', nullable: true }) nextTry: Date | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
  @Column('timestamptz', { name: 'done_at', nullable: true }) doneAt: Date | null;
  @OneToMany(() => ParcelPaper, (paper) => paper.parcel) papers?: ParcelPaper[];
  @OneToOne(() => ParcelLink, (link) => link.parcel) link?: ParcelLink | null;
}

/** A paper in it, as it was called then. */
@Entity('parcel_paper')
export class ParcelPaper {
  @PrimaryColumn('uuid', { name: 'parcel_id' }) parcelId: string;
  @ManyToOne(() => Parcel) @JoinColumn({ name: 'parcel_id' }) parcel?: Parcel;
  /** From 1. */
  @PrimaryColumn('int') number: number;
  @Column('uuid', { name: 'document_id', nullable: true }) documentId: string | null;
  @ManyToOne(() => Document) @JoinColumn({ name: 'document_id' }) document?: Document;
  @Column('text') name: string;
}

/** By what it is fetched: a secret in an address, until then, so many times. */
@Entity('parcel_link')
export class ParcelLink {
  @PrimaryColumn('uuid', { name: 'parcel_id' }) parcelId: string;
  @OneToOne(() => Parcel) @JoinColumn({ name: 'parcel_id' }) parcel?: Parcel;
  @Column('bytea', { name: 'secret_hash' }) secretHash: Buffer;
  /** The secret, for the list; only this machine opens it. */
  @Column('text', { name: 'sealed_secret' }) sealedSecret: string;
  /** Of its password (argon2id); null for none. */
  @Column('text', { name: 'password_hash', nullable: true }) passwordHash: string | null;
  @Column('timestamptz', { name: 'ends_at' }) endsAt: Date;
  @Column('int', { name: 'most_looks', nullable: true }) mostLooks: number | null;
  @Column('int', { default: 0 }) looks: number;
  /** How often a wrong password was tried since the last right one. */
  @Column('int', { default: 0 }) tries: number;
}

/** When somebody fetched what is behind a link. */
@Entity('parcel_look')
export class ParcelLook {
  @PrimaryColumn('bigint', { transformer: bigint }) @Generated('increment') id: number;
  @Column('uuid', { name: 'parcel_id' }) parcelId: string;
  @ManyToOne(() => Parcel) @JoinColumn({ name: 'parcel_id' }) parcel?: Parcel;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
  /** The address of the device in the network. */
  @Column('text') place: string;
  @Column('text') browser: string;
}
