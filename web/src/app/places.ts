import { spoken } from "./language";
/**
 * The views that are no part of a visit: where they are, what they are called, who may see them.
 */
export interface Place {
  path: string;
  name: string;
  managers: boolean;
}

const at = (path: string, name: string, managers = false): Place => ({ path, name, managers });

/** What one does in the day. */
export const DAY: readonly Place[] = spoken([
  at("/", "Today"),
  at("/visits/new", "New visit"),
  at("/due", "What is due"),
  at("/homes", "Homes"),
]);

/** What is needed less often than the day. */
export const MORE: readonly Place[] = spoken([
  at("/firm", "Kits and catalog"),
  at("/claims", "Claims and evidence"),
  at("/monday", "Monday", true),
  at("/track", "Track record"),
  at("/outbox", "Outbox"),
  at("/people", "People", true),
  at("/account", "Account"),
  at("/legend", "How a glass reads"),
]);

export const maySee = (p: Place, manager: boolean): boolean => manager || !p.managers;
