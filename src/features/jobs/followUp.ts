/** Something that is to be looked at again, as lists and calendars have it. */
import type { FollowUpSort } from '#core/log';

export interface FollowUp {
  readonly id: string;
  readonly jobId: string;
  readonly title: string;
  readonly vehicleName: string;
  readonly sort: FollowUpSort;
  readonly words: string;
  /** Null where no day was said. */
  readonly due: string | null;
}
