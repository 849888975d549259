/** The views of the application, for what holds of all of them. */
import type { App } from './app';

/** Addresses by what they begin with, and what is read on each once it is there. */
export const PAGES = {
  'for choosing': [
    ['', 'Open jobs'],
    ['/vehicles', 'Bakery van'],
    ['{van}', 'Bring a file in'],
    ['/shop', 'What usually fails'],
    ['/stock', 'Mini blade 15 A'],
    ['/stock/count', 'as it is'],
    ['/jobs/new', 'What fails'],
    ['/sums/wire?load=48+A&metres=3.1&drop=0.4+V', 'It leaves out'],
    ['/controls', 'What every view is made of'],
  ],
  'of a job': [
    ['{open}', 'Cleared in part'],
    ['{open}/trace', 'What each result would mean'],
    ['{open}/boxes', 'Both lit'],
    ['{open}/wires', 'Choose a wire'],
    ['{open}/combinations', 'Tap a cell'],
    ['{open}/sums?sum=battery&usable=80+Ah&draw=0.3+A', 'It leaves out'],
    ['{open}/feed?load=5+A', 'Refused'],
    ['{open}/change', 'What is to be changed'],
    ['{closed}/sheet', 'What was found, and why'],
  ],
  'of maps': [
    ['{van}/panels?box=cab&slot=fuse-14', 'With the hinge'],
    ['{van}/panels/edit?box=cab', 'Save as a new version'],
    ['{van}/feed?load=5+A', 'Refused'],
    ['{van}/panels/print?box=cab', 'Known from'],
    ['{van}/circuits/van-proving-cabinet', '12.'],
    ['{van}/circuits/new', '✓ 5 parts'],
  ],
} as const;

/** Pages that are like one of those, and are looked at on the phone alone. */
export const NARROW: Readonly<Record<keyof typeof PAGES, readonly (readonly [string, string])[]>> = {
  'for choosing': [
    ['/follow-ups', 'outlive'],
    ['/hazards', 'Temporary parts'],
    ['/vehicles?slot=fuse', 'slots'],
    ['/sign-in', 'Only looking'],
    ['/begin', 'It begins empty'],
    ['/key', 'You set the key'],
    ['/guest/nobody', 'This link leads nowhere'],
  ],
  'of a job': [],
  'of maps': [['/no-such-page', 'There']],
};
/** Addresses with the ids of the demo in their places. */
export async function addresses(app: App): Promise<(place: string) => string> {
  const [ids] = await app.query<{ van: string; open: string; closed: string }>(
    `select (select id from vehicles where name = 'Bakery van') as van,
      (select id from jobs where title like 'Left marker%') as open,
      (select id from jobs where title like 'Heated mirrors%') as closed`,
  );
  return (place) =>
    place
      .replace('{van}', `/vehicles/${ids?.van}`)
      .replace('{open}', `/jobs/${ids?.open}`)
      .replace('{closed}', `/jobs/${ids?.closed}`);
}

/** What is read on the same page in the hand, where a hint of the desk is left out. */
export function seenInHand(ready: string): string {
  return ready === 'Choose a wire' ? 'Colour, base' : ready;
}
