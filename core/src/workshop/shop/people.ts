import { type Problem, wrong } from '../../model/refusal/index.ts';
import { isSameName } from '../../model/names/index.ts';

/** Who works here, as what. A lead clears stops, ends what is stopped, and sets the limits of the workshop. */
export const ROLES = ['technician', 'lead', 'learner'] as const;
export type Role = (typeof ROLES)[number];

/** What stands in an event where nobody has said who is at the bench. */
export const UNNAMED = 'unnamed';

/** The role of a name; who is not in the list counts as a technician. */
export function roleOf(people: ReadonlyMap<string, Role>, name: string): Role {
  return people.get(name) ?? [...people].find(([each]) => isSameName(each, name))?.[1] ?? 'technician';
}

/** Does anybody work here beside somebody? */
export function hasOthers(people: ReadonlyMap<string, Role>, name: string): boolean {
  return [...people.keys()].some((each) => !isSameName(each, name));
}

export function hasLead(people: ReadonlyMap<string, Role>): boolean {
  return [...people.values()].includes('lead');
}

/**
 * Why somebody may not be put on the list, or given a role: the first is a lead, whoever says so; after that a lead
 * says it, and one is left.
 */
export function personProblem(
  people: ReadonlyMap<string, Role>,
  { name, role }: { readonly name: string; readonly role: Role | null },
  by: string,
): Problem | null {
  if (!hasLead(people)) {
    return role === 'lead' ? null : wrong('', 'Nobody leads this workshop yet.', 'Name one lead first.');
  }
  if (roleOf(people, by) !== 'lead') return wrong('by', `Only a lead changes who works here; ${by} is none.`);
  const leads = [...people].filter(([, each]) => each === 'lead').map(([each]) => each);
  const isLast = leads.length === 1 && isSameName(leads[0]!, name) && role !== 'lead';
  return isLast ? wrong('', `${name} is the only lead.`, 'Name another one first.') : null;
}
