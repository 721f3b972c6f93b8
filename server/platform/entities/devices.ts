import { Column, CreateDateColumn, Entity, JoinColumn, ManyToOne, PrimaryGeneratedColumn } from 'typeorm';
import { ProblemReport } from '@crow/contract/problems';
import { ScannerCapabilities, ScanSettings } from '@crow/contract/scanning';
import { Purpose } from '@crow/contract/watching';
import { problem } from './problem';

/** A scanner that is known by its address. */
@Entity('scanner')
export class KeptScanner {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') address: string;
  @Column('jsonb') capabilities: ScannerCapabilities;
  @Column('jsonb', { name: 'last_settings', nullable: true }) lastSettings: ScanSettings | null;
  @Column('timestamptz', { name: 'last_used', nullable: true }) lastUsed: Date | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'added_at' }) addedAt: Date;
}

/** Settings of a scanner that are kept under a name. */
@Entity('scan_preset')
export class ScanPreset {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('uuid', { name: 'scanner_id' }) scannerId: string;
  @ManyToOne(() => KeptScanner) @JoinColumn({ name: 'scanner_id' }) scanner?: KeptScanner;
  @Column('jsonb') settings: ScanSettings;
  @CreateDateColumn({ type: 'timestamptz', name: 'added_at' }) addedAt: Date;
}

/** A folder of this machine whose files are taken in by themselves. */
@Entity('watched_folder')
export class WatchedFolder {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('text') path: string;
  @Column('text') purpose: Purpose;
  @CreateDateColumn({ type: 'timestamptz', name: 'added_at' }) addedAt: Date;
}

/** A file of a watched folder that could not be taken in, and why. */
@Entity('watched_refusal')
export class WatchedRefusal {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'folder_id' }) folderId: string;
  @ManyToOne(() => WatchedFolder) @JoinColumn({ name: 'folder_id' }) folder?: WatchedFolder;
  @Column('text') name: string;
  @Column('jsonb', { transformer: problem }) problem: ProblemReport;
  @CreateDateColumn({ type: 'timestamptz' }) at: Date;
}
