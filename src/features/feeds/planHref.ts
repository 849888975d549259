/** The way from a feed that was found into a plan: what is known of it is answered already. */
import type { Candidate, FeedAsk } from '#core/feed';
import type { CircuitFile } from '#core/format';

function whenOf({ wanted }: FeedAsk): 'engine' | 'accessory' | 'run' | 'always' {
  if (wanted.running === 'live' && wanted.run === 'dead') return 'engine';
  if (wanted.accessory === 'live') return 'accessory';
  return wanted.off === 'dead' || wanted['off-waited'] === 'dead' ? 'run' : 'always';
}

export function planHref(
  jobId: string,
  circuits: readonly CircuitFile[],
  { panel, slot, panelName }: Candidate,
  ask: FeedAsk,
): string {
  const fuse = circuits
    .flatMap(({ parts }) => parts)
    .find((part) => part.kind === 'fuse' && part.slot?.panel === panel && part.slot.slot === slot.id);
  const when = whenOf(ask);
  const asked: Record<string, string> = fuse
    ? { intent: 'feed-load', feed: fuse.id, amps: String(ask.amps), name: ask.purpose, when }
    : {
        little: '1',
        load: ask.purpose,
        amps: String(ask.amps),
        fuse: `${slot.type} ${slot.number}, ${panelName}`,
        fuseAmps: slot.ratingAmps === undefined ? '' : String(slot.ratingAmps),
        family: slot.family,
        live: when === 'engine' ? 'run' : when,
      };
  return `/jobs/${jobId}/change?${new URLSearchParams(asked)}`;
}
