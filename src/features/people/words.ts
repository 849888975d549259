/** Roles in words, with what each may. */
import type { Role } from '#core/format';

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'owner',
  technician: 'technician',
  learner: 'learner',
};

export const ROLE_MEANS: Readonly<Record<Role, string>> = {
  owner: 'Everything: people, rates, backup.',
  technician: 'All work; gives the word for what a learner closes.',
  learner: 'All work; what is closed waits for another’s word.',
};
