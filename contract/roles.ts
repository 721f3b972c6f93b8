/**
 * What somebody may be allowed to do: see what there is to do and the pages of it; take in papers; sort, check and file them; find and
 * read what is filed, and take copies; and what changes the program for everybody.
 */
export const RIGHTS = ['look', 'capture', 'work', 'read', 'own'] as const;
export type Right = (typeof RIGHTS)[number];

/** Who may do what. The program itself is nobody who asks: what it does unasked is in the history under its own name. */
export const ROLES = {
  owner: ['look', 'capture', 'work', 'read', 'own'],
  helper: ['look', 'capture', 'work', 'read'],
  reader: ['look', 'read'],
  device: ['look', 'capture'],
  program: [],
} as const satisfies Record<string, readonly Right[]>;
export type Role = keyof typeof ROLES;

export function isAllowed(role: Role, right: Right): boolean {
  return (ROLES[role] as readonly Right[]).includes(right);
}
