import type { WorkKind } from '../jobs';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** A setting, by its name. */
@Entity('setting')
export class Setting {
  @PrimaryColumn('text') name: string;
  @Column('jsonb') value: unknown;
}

/** Work that a worker has taken. */
@Entity('claim')
export class Claim {
  @PrimaryColumn('uuid', { name: 'job_id' }) jobId: string;
  @Column('text') queue: WorkKind;
  /** The number of the worker's advisory lock; null while nobody has it. */
  @Column('int', { nullable: true }) lease: number | null;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
  @Column('int', { default: 0 }) interruptions: number;
}
