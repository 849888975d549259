import type { Role } from '#core/format';
import { PlaceLink } from './PlaceLink';

/** For which shop, and who; in the demo that it is one, and the way to a shop of one's own. */
export function WhoWords({
  shopName,
  town,
  personName,
  role,
  demo,
}: {
  shopName: string;
  town: string;
  personName: string;
  role: Role;
  demo: boolean;
}) {
  const place = [shopName, town].filter((one) => one !== '').join(', ');
  const who = (
    <span className="text-ink">{role === 'technician' ? personName : `${personName}, ${role}`}</span>
  );
  if (!demo) {
    return (
      <>
        {place} · {who}
      </>
    );
  }
  return (
    <>
      <span className="font-semibold text-caution">Demo</span> {place} · {who} ·{' '}
      <PlaceLink href="/sign-in" className="underline underline-offset-2">
        somebody else, or a shop of your own
      </PlaceLink>
    </>
  );
}
