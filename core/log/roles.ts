/** What a role may do: the pages ask before they offer something, and the server before it does it. */
import type { EventBody, Role } from '../format';

/**
 * What an action needs: `see` and `work` any person of the shop, `lead` somebody whose word counts (closing a job, also
 * for a learner, letting a guest in, erasing a customer), `own` the owner.
 */
export type Need = 'see' | 'work' | 'lead' | 'own';

const MAY: Readonly<Record<Need, readonly Role[]>> = {
  see: ['owner', 'technician', 'learner'],
  work: ['owner', 'technician', 'learner'],
  lead: ['owner', 'technician'],
  own: ['owner'],
};

export function may(role: Role, need: Need): boolean {
  return MAY[need].includes(role);
}

/** Why a role may not, in words. */
export function whyNot(need: Need): string {
  return need === 'own'
    ? 'Only an owner of the shop may do this.'
    : 'This needs the word of a technician or the owner.';
}

/** Why somebody of this role cannot record an entry, in words; null where it can be. */
export function whyNotRecorded(role: Role, body: EventBody): string | null {
  if (body.kind !== 'state' || body.state !== 'closed' || may(role, 'lead')) return null;
  return 'A learner asks for the word of a technician or the owner; it closes the job.';
}
