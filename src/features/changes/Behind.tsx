'use client';

import type { SumsBehind } from '#core/change';
import { figure } from '#core/sizing';
import { useJob } from '@/job/JobProvider';
import { Fold } from '@/ui/Fold';
import { PlaceLink } from '@/ui/PlaceLink';

/** The sums behind the figures of a plan, each a tap away from its own working. */
export function Behind({ sums }: { sums: SumsBehind }) {
  const { data } = useJob();
  const { parts, asleep } = sums;
  const address = ({ kind, amps, metres }: SumsBehind['parts'][number]) =>
    `/jobs/${data.id}/sums?${new URLSearchParams({
      sum: kind,
      load: `${Number(amps.toFixed(2))} A`,
      ...(metres === null ? {} : { metres: `${metres} m` }),
    })}`;
  return (
    <Fold title="The sums behind it">
      <ul className="mt-1">
        {parts.map((one) => (
          <li key={one.part} className="border-b border-line py-1">
            <PlaceLink href={address(one)} className="underline underline-offset-4">
              {one.name}
            </PlaceLink>
            : at most <span className="reading">{figure(one.amps, 'A')}</span>
            {one.carries === null ? ', of a limit that nobody knows' : ` of ${figure(one.carries, 'A')}`},{' '}
            {one.words}
            {one.volts === null ? '' : `; it loses ${figure(one.volts, 'V')} one way`}
            {one.mm2 === null ? '' : ` (${one.mm2} mm²${one.metres === null ? '' : `, ${one.metres} m`})`}.
          </li>
        ))}
        <li className="py-1">
          Asleep, key off: <span className="reading">{figure(asleep.before, 'A')}</span> before,{' '}
          <span className="reading">{figure(asleep.after, 'A')}</span> after.{' '}
          <PlaceLink
            href={`/jobs/${data.id}/sums?${new URLSearchParams({ sum: 'battery', draw: `${Number(asleep.after.toFixed(3))} A` })}`}
            className="underline underline-offset-4"
          >
            How long the battery stands it
          </PlaceLink>
        </li>
      </ul>
    </Fold>
  );
}
