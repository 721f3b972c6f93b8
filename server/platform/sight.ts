/**
 * What of everything somebody sees, whatever their role lets them do: all of it; the stacks that they began and that are not sorted yet; what is filed,
 * in all folders or in those named (with the folders inside them).
 */
export type Sight =
  | { of: 'everything' }
  | { of: 'own stacks'; actorId: string }
  | { of: 'what is filed'; folders: readonly string[] | null };

export const EVERYTHING: Sight = { of: 'everything' };

/** The folders that somebody is narrowed to; null for whoever is not. */
export function foldersOf(sight: Sight): readonly string[] | null {
  if (sight.of === 'everything') return null;
  return sight.of === 'own stacks' ? [] : sight.folders;
}
