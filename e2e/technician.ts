/** A technician with a faulty vehicle: reads the card, takes the reading the vehicle would give, enters it. */
import type { Page } from '@playwright/test';
import { mergeCircuits } from '../core/circuit';
import { readingOf, refOfId } from '../core/diagnosis';
import { breakCircuit, type Fault, type FaultyCircuit } from '../core/faults';
import type { ReadingValue } from '../core/format';
import { wordOf } from '../core/log';
import { CircuitModel } from '../core/network';
import { type DEMO_CIRCUITS, demoCircuit } from '../testing/circuits';
import type { App } from './app';

export function faultyVehicle(
  circuits: readonly (typeof DEMO_CIRCUITS)[number][],
  fault: Fault,
): FaultyCircuit {
  return breakCircuit(new CircuitModel(mergeCircuits(circuits.map(demoCircuit)).circuit), [fault]);
}

export async function cardId(page: Page): Promise<string> {
  return (await page.locator('article[data-test]').getAttribute('data-test')) ?? '';
}

export function valueFor(vehicle: FaultyCircuit, id: string): ReadingValue {
  return readingOf(vehicle, refOfId(id));
}

/** What a person would type or say for a value. */
function spoken(value: ReadingValue): string {
  if ('volts' in value) return String(value.volts);
  if ('ohms' in value) return String(value.ohms);
  if ('overLimit' in value) return 'OL';
  if ('amps' in value) return String(value.amps);
  return wordOf(value);
}

const LETTERS: Readonly<Record<string, string>> = {
  lit: 'l',
  dim: 'd',
  off: 'o',
  works: 'w',
  weak: 'k',
  dead: 'd',
  clicks: 'c',
  silent: 's',
  whole: 'w',
  broken: 'b',
  changes: 'c',
  'no change': 'x',
  chatters: 'r',
  hums: 'h',
};

/** Whether the answer is one of a few words and not a number. */
function isWord(value: ReadingValue): boolean {
  return !('volts' in value || 'ohms' in value || 'overLimit' in value || 'amps' in value);
}

/** Enters a reading with the keyboard only; gives what `take` makes of the key that records it. */
export async function enterByKeyboard<T = void>(
  page: Page,
  value: ReadingValue,
  take: (act: () => Promise<void>) => Promise<T> = (act) => act() as Promise<T>,
): Promise<T> {
  const words = spoken(value);
  const isOneKey = isWord(value);
  if (!isOneKey) await page.keyboard.type(words);
  return take(() => page.keyboard.press(isOneKey ? (LETTERS[words] ?? '') : 'Enter'));
}

/** Enters a reading with the thumb: pad keys or the big answers. */
export async function enterByTouch(page: Page, value: ReadingValue): Promise<void> {
  const words = spoken(value);
  const card = page.locator('article[data-test]');
  if (isWord(value)) {
    const name = `${words[0]?.toUpperCase()}${words.slice(1)}`;
    await card.getByRole('button', { name, exact: false }).first().tap();
    return;
  }
  if (words === 'OL') await card.getByRole('button', { name: 'Over limit' }).tap();
  else {
    for (const digit of words.replace('-', '')) {
      await card.getByRole('button', { name: digit, exact: true }).tap();
    }
    if (words.startsWith('-')) await card.getByRole('button', { name: 'Change sign' }).tap();
  }
  await card.getByRole('button', { name: 'Record' }).tap();
}

/** Opens the fan job of the demo; gives the address that its pages stand under. */
export async function openFanJob(page: Page, app: App): Promise<string> {
  const address = await app.job('Proving-cabinet fan dead');
  await page.goto(address);
  return address;
}

/** Opens a box of the demo’s van. */
export async function openBox(page: Page, app: App, panel: 'cab' | 'bay', view = ''): Promise<void> {
  await page.goto(`${await app.vehicle('Bakery van')}/panels${view}?box=${panel}`);
}

/** Answers what is owed after a repair besides its functions: the lamps that stop are seen. */
export async function seeLamps(page: Page): Promise<void> {
  const owed = page.locator('[data-owed=safety-lamps]');
  await owed.getByRole('radio', { name: 'Seen to work' }).click();
}
