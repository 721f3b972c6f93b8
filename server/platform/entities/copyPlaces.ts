import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { CopyScope } from '@crow/contract/copyPlaces';
import { ProblemReport } from '@crow/contract/problems';
import { Actor } from './actors';
import { bigint } from './bigint';
import { Folder } from './folders';
import { problem } from './problem';

/** A folder of the machine that has copies of filed PDFs. */
@Entity('copy_place')
export class CopyPlace {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') path: string;
  @Column('text') scope: CopyScope;
  @Column('uuid', { name: 'folder_id', nullable: true }) folderId: string | null;
  @ManyToOne(() => Folder) @JoinColumn({ name: 'folder_id' }) folder?: Folder;
  @Column('uuid', { name: 'document_ids', array: true, nullable: true }) documentIds: string[] | null;
  /** Whether it is kept in step with the shelf. */
  @Column('boolean') keep: boolean;
  /** How many copies are to lie there. */
  @Column('int', { default: 0 }) wanted: number;
  @Column('timestamptz', { name: 'agreed_at', nullable: true }) agreedAt: Date | null;
  @Column('text', { name: 'left_alone', array: true, default: {} }) leftAlone: string[];
  @Column('jsonb', { nullable: true, transformer: problem }) problem: ProblemReport | null;
  @Column('uuid', { name: 'actor_id' }) actorId: string;
  @ManyToOne(() => Actor) @JoinColumn({ name: 'actor_id' }) actor?: Actor;
  @CreateDateColumn({ type: 'timestamptz', name: 'made_at' }) madeAt: Date;
}

/** A copy there, as it was written. */
@Entity('placed_copy')
export class PlacedCopy {
  @PrimaryColumn('uuid', { name: 'place_id' }) placeId: string;
  @ManyToOne(() => CopyPlace) @JoinColumn({ name: 'place_id' }) place?: CopyPlace;
  /** Of a paper that may be gone for good. */
  @PrimaryColumn('uuid', { name: 'document_id' }) documentId: string;
  @Column('text') path: string;
  @Column('text') sha256: string;
  @Column('bigint', { transformer: bigint }) size: number;
  @Column('double precision', { name: 'modified_ms' }) modifiedMs: number;
}
