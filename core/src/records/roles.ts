/** What a person of a firm may do, least first: a viewer reads and exports. */
export const roles = ['viewer', 'installer', 'owner'] as const
/** What a person may do in a firm. */
export type Role = (typeof roles)[number]

/** Whether a role reaches the one that is needed. */
export function reaches(role: Role, needed: Role): boolean {
  return roles.indexOf(role) >= roles.indexOf(needed)
}

/** What is the owner's, and may be given to others one by one: the catalogue, the house rules, what list headings mean. */
export const rights = ['catalogue', 'rules', 'columns'] as const
/** A right that some installers have besides. */
export type Right = (typeof rights)[number]

/** Whether somebody of this role, given these rights, may use one of them. A viewer changes nothing, whatever was given. */
export function hasRight(
  who: { readonly role: Role; readonly rights: readonly Right[] },
  right: Right,
): boolean {
  return who.role === 'owner' || (who.role === 'installer' && who.rights.includes(right))
}
