import { Column, CreateDateColumn, Entity, JoinColumn, ManyToOne, PrimaryGeneratedColumn } from 'typeorm';

/** A folder of the shelf. */
@Entity('folder')
export class Folder {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column('uuid', { name: 'parent_id', nullable: true }) parentId: string | null;
  @ManyToOne(() => Folder) @JoinColumn({ name: 'parent_id' }) parent?: Folder;
  @Column('text') name: string;
  @Column('text', { name: 'name_key' }) nameKey: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
