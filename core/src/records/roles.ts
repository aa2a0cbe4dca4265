/** What a person of a firm may do, least first: a viewer reads and exports. */
export const roles = ['viewer', 'installer', 'owner'] as const
export type Role = (typeof roles)[number]

/** Whether a role reaches the one that is needed. */
export function reaches(role: Role, needed: Role): boolean {
  return roles.indexOf(role) >= roles.indexOf(needed)
}
