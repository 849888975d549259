'use client';

import { Command } from 'cmdk';
import { usePathname } from 'next/navigation';
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { jobPlace } from '@/http/places';
import { heldJobs } from '@/log/held';
import type { HeldJob } from '@/log/heldJob';
import { useGo } from '@/ui/PlaceLink';
import { useLater } from '@/ui/useLater';

interface Place {
  readonly name: string;
  readonly detail: string;
  readonly href: string;
  /** The text that the server found it for, whatever its name looks like. */
  readonly for?: string;
}

const ALWAYS: readonly Place[] = [
  { name: 'Today', detail: 'open jobs, follow-ups', href: '/' },
  { name: 'New job', detail: 'also on a vehicle that is not here yet', href: '/jobs/new' },
  { name: 'Jobs', detail: 'open and closed; bring a job file in', href: '/jobs' },
  { name: 'Vehicles', detail: 'and the search over all slots', href: '/vehicles' },
  { name: 'Stock', detail: 'parts, places, what is short', href: '/stock' },
  { name: 'Sums', detail: 'wire, fuse, drop, battery, drain', href: '/sums' },
  { name: 'Shop', detail: 'what the diagnosis has learned', href: '/shop' },
];

const loadSums = () => import('#core/sizing').then(({ SUMS }) => SUMS);

/** Steps and tools of the job that is open. */
function ofJob(path: string): Place[] {
  const job = jobPlace(path)?.jobId;
  if (!job) return [];
  const at = (name: string, detail: string, tail: string) => ({ name, detail, href: `/jobs/${job}${tail}` });
  return [
    at('Trace', 'this job: the next test', '/trace'),
    at('Complaint', 'this job', '#complaint'),
    at('Box and slot', 'this job', '#find'),
    at('Test the whole box', 'this job: triage, survey, isolation', '/boxes'),
    at('Wires', 'this job: ledger, cutting, tone', '/wires'),
    at('Combinations', 'this job: expected and seen, every setting', '/combinations'),
    at('Find a feed', 'this job: where current can be taken', '/feed'),
    at('Plan a change', 'this job: stated, played, looked at, done step by step', '/change'),
    at('Sums', 'this job: wire, fuse, drop, battery', '/sums'),
    at('Conclude', 'this job', '#conclude'),
    at('Repair', 'this job', '#repair'),
    at('Prove', 'this job', '#prove'),
    at('Hand over', 'this job: the sheet', '/sheet'),
  ];
}

const KEYS = [
  ['Ctrl K', 'this list'],
  ['Tab, Enter', 'everything on a page'],
  ['l d o · digits · Enter', 'answers on a test card'],
  ['u n ?', 'correct, another test, all keys of the card'],
] as const;

const placeOfHeld = ({ id, title, vehicle }: HeldJob): Place => ({
  name: title,
  detail: `job on ${vehicle.name}, in this browser`,
  href: `/jobs/${id}`,
});

/** Every word that is typed stands somewhere in the name or the detail; the name counts for more. */
function holdsEveryWord(_value: string, search: string, keywords: string[] = []): number {
  const [name = '', detail = '', found] = keywords.map((one) => one.toLowerCase());
  if (found !== undefined) return found === search.trim().toLowerCase() ? 0.7 : 0;
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.every((word) => name.includes(word) || detail.includes(word))) return 0;
  return words.every((word) => name.includes(word)) ? 1 : 0.5;
}

function fits({ name, detail }: Place, text: string): boolean {
  return holdsEveryWord('', text, [name, detail]) > 0;
}

/** What the server finds for a text, once the typing pauses: slots by number, vehicles by plate. */
function useFound(text: string): readonly Place[] {
  const [found, setFound] = useState<readonly Place[]>([]);
  useEffect(() => {
    const wanted = text.trim();
    if (wanted.length < 2) return setFound([]);
    const stop = new AbortController();
    const timer = setTimeout(() => {
      fetch(`/api/search?text=${encodeURIComponent(wanted)}`, { signal: stop.signal })
        .then(async (response) => {
          if (!response.ok) return;
          const { places } = (await response.json()) as { places: Place[] };
          setFound(places.map((one) => ({ ...one, for: wanted })));
        })
        .catch(() => undefined);
    }, 150);
    return () => {
      stop.abort();
      clearTimeout(timer);
    };
  }, [text]);
  return found;
}

/** The list itself; it is fetched when it is first wanted, or once the page has come to rest. */
export function CommandList({
  open,
  onOpen,
  text,
  onText,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  /** What was typed; who opened the list keeps it, for letters come before its field has the focus. */
  text: string;
  onText: (text: string) => void;
}) {
  const move = useGo();
  const field = useRef<HTMLInputElement>(null);
  const path = usePathname();
  const [places, setPlaces] = useState<readonly Place[]>([]);
  const [away, setAway] = useState(false);
  const found = useFound(open ? text : '');
  const sums = useLater(loadSums, open);
  // In a job its own sums: what they give goes onto it, and no server is asked.
  const job = jobPlace(path)?.jobId;
  const sumPlaces = (sums ?? []).map(
    ({ id, name, also }): Place => ({
      name,
      detail: `sum: ${also.join(', ')}`,
      href: job ? `/jobs/${job}/sums?sum=${id}` : `/sums/${id}`,
    }),
  );
  useEffect(() => {
    if (!open) return;
    fetch('/api/commands').then(
      async (response) => {
        setPlaces(((await response.json()) as { places: Place[] }).places);
        setAway(false);
      },
      async () => {
        setAway(true);
        setPlaces((await heldJobs()).map(placeOfHeld));
      },
    );
  }, [open]);
  const go = (href: string) => {
    onOpen(false);
    move(href);
  };
  const group = (heading: string, list: readonly Place[]) =>
    list.length === 0 ? null : (
      <Command.Group
        heading={heading}
        className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-soft"
      >
        {list.map((place) => (
          <Command.Item
            key={place.href}
            value={`${heading} ${place.href}`}
            keywords={[place.name, place.detail, ...(place.for === undefined ? [] : [place.for])]}
            onSelect={() => go(place.href)}
            className="flex min-h-11 cursor-pointer items-center justify-between gap-3 rounded-md px-3 py-1.5 data-[selected=true]:bg-copper-wash"
          >
            <span className="font-semibold">{place.name}</span>
            <span className="text-right text-sm text-soft">{place.detail}</span>
          </Command.Item>
        ))}
      </Command.Group>
    );
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content
          data-palette
          aria-describedby={undefined}
          // Left to itself, the dialog selects what stands in its first field, and the next letter replaces it.
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            field.current?.focus();
          }}
          className="fixed inset-x-3 top-[8dvh] z-50 mx-auto max-w-xl overflow-hidden rounded-lg border-2 border-ink bg-sheet"
        >
          <Dialog.Title className="sr-only">Go to, by name</Dialog.Title>
          <Command label="Go to, by name" filter={holdsEveryWord}>
            <Command.Input
              ref={field}
              value={text}
              onValueChange={onText}
              placeholder="A job, a vehicle or its plate, a slot, a step …"
              className="min-h-14 w-full border-b-2 border-line bg-sheet px-4 text-lg text-ink placeholder:text-soft focus:outline-none"
            />
            <Command.List className="max-h-[55dvh] overflow-y-auto p-1">
              <Command.Empty className="px-3 py-4">
                Nothing has that name.
                {away
                  ? ' The server did not answer: only jobs that were opened in this browser are here.'
                  : ''}
              </Command.Empty>
              {group('This job', ofJob(path))}
              {group('Pages', ALWAYS)}
              {group('Sums', sumPlaces)}
              {group('Jobs, vehicles, circuits', places)}
              {group(
                'Found in the shop',
                found.filter((one) => !places.some((known) => known.href === one.href && fits(known, text))),
              )}
            </Command.List>
          </Command>
          <dl className="hidden flex-wrap gap-x-5 gap-y-1 border-t-2 border-line px-4 py-2 text-sm lg:flex">
            {KEYS.map(([key, does]) => (
              <div key={key} className="flex gap-2">
                <dt className="reading font-bold">{key}</dt>
                <dd className="text-soft">{does}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
