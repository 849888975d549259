/** The two sizes at which the application is used, and who plays a task at which. */
import { so } from '../testing/whole';

export const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const;
export const DESK = { viewport: { width: 1280, height: 800 } } as const;

/** A task is played in the hand, and in `npm run verify` at the desk as well. */
export const SIZES = ([['in the hand', PHONE] as const, ['at the desk', DESK] as const] as const).slice(
  0,
  so(2, 1),
);
