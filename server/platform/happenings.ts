import { EntityManager } from 'typeorm';
import { Turn } from '@crow/core/geometry';
import { ZippedFile } from '../engines/zip';
import { SourceFile } from './entities';
import { ActingAs } from './history';

/** What the rooms tell those that come after them in the order of the work. */
export interface Happening {
  /** An archive was taken in, and is being opened; not within a transaction. Whoever knows what it is takes it over. */
  'archive-opened': { file: SourceFile; files: ZippedFile[] };
  /** The pages of a file lie in its stack. Whoever has a place for them takes them over. */
  'pages-arrived': { file: SourceFile; pageIds: string[]; isPdf: boolean };
  /** A page of a stack is to be made by another recipe, or turned. */
  'page-rearranged': { pageId: string; turn: Turn; version: string };
  /** The pages of a stack, which is locked, lie otherwise than before. */
  'stack-arranged': { stackId: string };
  /** It is known what a page is: where its sheet lies, whether anything is on it. Its stack is locked. */
  'page-prepared': { stackId: string };
  /** Another sheet in the picture of a page has become a page of its own. */
  'page-parted': { pageId: string; partId: string };
  /** Reading a page has ended, one way or the other. The document that it belongs to is locked. */
  'page-read': { pageId: string; documentId: string | undefined };
  /** A document, which is locked, was filed: what was read of it counts as confirmed. */
  'document-filed': { documentId: string; actor: ActingAs };
  /** The file of a document on disk is as the database has it, or was taken away. */
  'paper-shelved': { documentId: string };
  /** A document, which is locked, was taken back from the shelf. */
  'document-unfiled': { documentId: string; actor: ActingAs };
}

/** @returns whether it has taken over what happened, so that nobody else needs to act on it */
export type Listener<Kind extends keyof Happening> = (
  manager: EntityManager,
  what: Happening[Kind],
) => Promise<boolean | void>;

/**
 * How an earlier room tells later ones what happened without knowing them: they act within the same transaction, in the order in
 * which the assembly lets them listen.
 */
export class Happenings {
  private readonly listeners = new Map<keyof Happening, Listener<keyof Happening>[]>();

  on<Kind extends keyof Happening>(kind: Kind, listener: Listener<Kind>): void {
    const others = this.listeners.get(kind) ?? [];
    this.listeners.set(kind, [...others, listener as Listener<keyof Happening>]);
  }

  /** @returns whether somebody has taken it over */
  async tell<Kind extends keyof Happening>(
    manager: EntityManager,
    kind: Kind,
    what: Happening[Kind],
  ): Promise<boolean> {
    for (const listener of this.listeners.get(kind) ?? []) if (await listener(manager, what)) return true;
    return false;
  }
}
