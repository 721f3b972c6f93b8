import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
} from 'typeorm';
import { Recipe } from '@crow/core/imaging/recipe';
import { bigint } from './bigint';

/** Bytes, kept once whatever holds them. */
@Entity('blob')
export class Blob {
  @PrimaryGeneratedColumn('uuid') id: string;
  /** Null while its bytes are still arriving. */
  @Column('text', { nullable: true }) sha256: string | null;
  @Column('bigint', { default: 0, transformer: bigint }) size: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

@Entity('blob_chunk')
export class BlobChunk {
  @PrimaryColumn('uuid', { name: 'blob_id' }) blobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'blob_id' }) blob?: Blob;
  @PrimaryColumn('int') number: number;
  @Column('bytea') bytes: Buffer;
}

/** How a page is made from a picture, under a hash of its content. */
@Entity('recipe')
export class KeptRecipe {
  @PrimaryColumn('text') version: string;
  @Column('jsonb') recipe: Recipe;
}

/** A picture with which a page is shown, made by a recipe. */
@Entity('derived_picture')
export class DerivedPicture {
  /** The file that it is made from. */
  @PrimaryColumn('uuid', { name: 'blob_id' }) blobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'blob_id' }) blob?: Blob;
  /** The page of that file, from 0. */
  @PrimaryColumn('int', { name: 'source_number' }) sourceNumber: number;
  /** Its size, how it is turned, and the version of the recipe, joined by hyphens. */
  @PrimaryColumn('text') recipe: string;
  @Column('uuid', { name: 'picture_blob_id' }) pictureBlobId: string;
  @ManyToOne(() => Blob) @JoinColumn({ name: 'picture_blob_id' }) pictureBlob?: Blob;
  @Column('text', { name: 'media_type' }) mediaType: 'image/jpeg' | 'image/webp';
}
