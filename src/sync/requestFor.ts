import { newId } from '@/ui/newId';

/** A request that was made, and of what. */
export interface Tried {
  readonly id: string;
  readonly of: string;
}

/**
 * The id that a request goes on with: that of the last try while what is asked for is the same, so that one whose answer
 * was lost makes nothing twice; a new one as soon as it is not, so that what was changed since is not answered with what
 * the first made.
 */
export function requestFor(last: Tried | null, of: string): Tried {
  return last?.of === of ? last : { id: newId(), of };
}
