/** What a short code on a phone of the shop may be. */
import { SHORT_CODE } from './lists';

const SHAPE = new RegExp(SHORT_CODE);
export const SHORT_CODE_WORDS = 'A short code has 4 to 8 digits.';
export const isShortCode = (text: string) => SHAPE.test(text);
/** Down and up the middle of a keypad. */
const KEYPAD = ['2580', '0852'];
const YEAR = /^(19|20)[0-9]{2}$/;

/** Each digit one more, or one less, than the one before; after 9 comes 0. */
function isRun(code: string): boolean {
  const steps = [...code].slice(1).map((digit, at) => (Number(digit) - Number(code[at]) + 10) % 10);
  return steps.every((step) => step === 1) || steps.every((step) => step === 9);
}

/** Those that are tried first by whoever guesses. */
function isGuessed(code: string): boolean {
  return new Set(code).size < 3 || isRun(code) || YEAR.test(code) || KEYPAD.includes(code);
}

/** Why this cannot be a short code, in words; null where it can. */
export function shortCodeProblem(code: string): string | null {
  if (!isShortCode(code)) return SHORT_CODE_WORDS;
  if (!isGuessed(code)) return null;
  return 'This code is among those that are guessed first: a year, digits in a row, the middle of the keypad, or fewer than three different digits. Take another.';
}
