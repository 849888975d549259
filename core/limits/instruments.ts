/** Hand instruments: what they load a circuit with, and how far they can be trusted. */

import { fuseColdOhms } from './defaults';
import { hasColdOhms } from './fuseFamilies';

/** A digital meter's error on volts: 0.5 % and two digits of 10 mV, as one standard deviation. */
export function voltmeterError(volts: number): number {
  return Math.abs(volts) * 0.005 + 0.02;
}

/** Leads and clips of a jumper or powered probe, ohms. */
export const LEAD_OHMS = 0.02;

/** Input of a digital meter on volts, ohms. */
export const METER_OHMS = 10e6;

/** A clamp's error: 2 % and 0.1 A, zeroed before; one standard deviation. */
export function clampError(amps: number): number {
  return Math.abs(amps) * 0.02 + 0.1;
}

/** A tester with light-emitting diodes draws about 7 mA, ohms. */
export function ledTesterOhms(nominalVolts: number): number {
  return nominalVolts / 0.007;
}

/** Fractions of the supply above which such a tester is lit, and below which it is off. */
export const LED_LIT = 0.4;
export const LED_DIM = 0.2;

/** Ohms of a meter's leads and tips: nothing below one ohm is judged. */
export const OHMMETER_LEADS = 0.3;
/** Ohms from which the meter shows over limit. */
export const OHMMETER_LIMIT = 20e6;

/** Smallest step of a meter on millivolts, volts. */
export const DROP_RESOLUTION_VOLTS = 0.0001;
/** Spread of a fuse's cold resistance, and how much warmer a loaded one may be. */
const COLD_SPREAD = 0.15;
const WARM_FACTOR = 1.4;

export type FuseDropAmps =
  /** Ampere as the cold resistance says, and the band in which they lie. */
  | { readonly amps: number; readonly fromAmps: number; readonly toAmps: number }
  /** Nothing can be said: why, in words. */
  | { readonly nothing: string };

/**
 * Current from the drop across a fuse, read on its own ends: drop over cold resistance (ISO 8820-3 blade fuses).
 * The true current is lower when the fuse is warm. Refuses what lies below the meter's resolution.
 */
export function fuseDropAmps(volts: number, ratingAmps: number, family: string | undefined): FuseDropAmps {
  if (!hasColdOhms(family)) {
    return { nothing: 'The cold resistance of this family is not known here: use the maker’s figure.' };
  }
  if (volts === 0) return { nothing: '0 mV proves nothing: no current flows, or the load has no path.' };
  if (volts < DROP_RESOLUTION_VOLTS) {
    return { nothing: 'Below the resolution of the meter: no current can be read from it.' };
  }
  const cold = fuseColdOhms(ratingAmps);
  if (volts > 2 * ratingAmps * cold * WARM_FACTOR) {
    return { nothing: 'More than any whole fuse drops: it is open or nearly so.' };
  }
  return {
    amps: volts / cold,
    fromAmps: (volts - DROP_RESOLUTION_VOLTS / 2) / (cold * (1 + COLD_SPREAD) * WARM_FACTOR),
    toAmps: (volts + DROP_RESOLUTION_VOLTS / 2) / (cold * (1 - COLD_SPREAD)),
  };
}

/** A 4 W filament test lamp on its own nominal voltage, ohms. */
export function testLampOhms(nominalVolts: number): number {
  return (nominalVolts * nominalVolts) / 4;
}

/** The 21 W lamp that stands in for a fuse while a short is looked for, ohms. */
export function fuseLampOhms(nominalVolts: number): number {
  return (nominalVolts * nominalVolts) / 21;
}

/** Fractions of the supply above which a test lamp is lit, and below which it is off. */
export const LAMP_LIT = 0.8;
export const LAMP_DIM = 0.2;

export const LAMP_STATES = ['lit', 'dim', 'off'] as const;
export const FUNCTION_STATES = ['works', 'weak', 'dead'] as const;
export const CONTINUITY_STATES = ['conducts', 'open'] as const;
export const CLICK_STATES = ['clicks', 'silent', 'chatters'] as const;
/** What is heard while something is switched on. */
export const SOUND_STATES = ['silent', 'clicks', 'chatters', 'hums'] as const;
export const LOOK_STATES = ['whole', 'broken'] as const;
export const WIGGLE_STATES = ['changes', 'no change'] as const;
/** Looking misses about one broken element in ten, and takes one whole one in fifty for broken. */
const LOOK_MISSES = 0.1;
const LOOK_WRONG = 0.02;
/** A click is heard or felt in all but one case in twenty. */
const CLICK_MISSED = 0.05;

/** Chances of whole, broken for what the eye says of an element. */
export function lookChances(broken: boolean): [number, number] {
  return broken ? [LOOK_MISSES, 1 - LOOK_MISSES] : [1 - LOOK_WRONG, LOOK_WRONG];
}

/** How often a chatter is taken for one click. */
const CHATTER_MISSED = 0.12;

/** Chances of clicks, silent, chatters for a relay that pulls in, does not, or goes to and fro. */
export function clickChances(does: (typeof CLICK_STATES)[number]): [number, number, number] {
  if (does === 'chatters') return [CHATTER_MISSED, CLICK_MISSED, 1 - CHATTER_MISSED - CLICK_MISSED];
  const other = 0.01;
  return does === 'clicks'
    ? [1 - CLICK_MISSED - other, CLICK_MISSED, other]
    : [CLICK_MISSED, 1 - CLICK_MISSED - other, other];
}

/** Listening from where somebody sits: how often a sound is not heard, and how often taken for another. */
const SOUND_MISSED = 0.15;
const SOUND_MISTAKEN = 0.08;

/** Chances of silent, clicks, chatters, hums; several sounds at once are heard one as well as another. */
export function soundChances(made: readonly (typeof SOUND_STATES)[number][]): number[] {
  const heard = made.filter((one) => one !== 'silent');
  const share = SOUND_STATES.map((state) => {
    if (heard.length === 0) return state === 'silent' ? 1 - 3 * SOUND_MISTAKEN : SOUND_MISTAKEN;
    if (state === 'silent') return SOUND_MISSED;
    return heard.includes(state) ? (1 - SOUND_MISSED) / heard.length : SOUND_MISTAKEN;
  });
  const sum = share.reduce((total, one) => total + one, 0);
  return share.map((one) => one / sum);
}

/** How often a loose joint answers to being moved: one that comes and goes, one that is merely poor, a sound one. */
const WIGGLE_ANSWERS = { intermittent: 0.5, poor: 0.3, sound: 0.02 } as const;

/** Chances of changes, no change when a part is moved. */
export function wiggleChances(loose: boolean, intermittent: boolean): [number, number] {
  const changes = WIGGLE_ANSWERS[loose ? (intermittent ? 'intermittent' : 'poor') : 'sound'];
  return [changes, 1 - changes];
}

/** Limits between the four answers of a clamp, ampere, for an expected current. */
export function clampLimits(expectedAmps: number): [number, number, number] {
  const least = 0.25;
  return [least, Math.max(2 * least, 0.75 * expectedAmps), Math.max(3 * least, 1.25 * expectedAmps)];
}

/** Chances of the four answers when so many ampere flow. */
export function clampChances(amps: number, expectedAmps: number): [number, number, number, number] {
  const blur = Math.hypot(clampError(amps), 0.1 * amps);
  const [nothing, less, more] = clampLimits(expectedAmps).map((limit) => normalBelow((limit - amps) / blur));
  return [nothing!, less! - nothing!, more! - less!, 1 - more!];
}

/** Chances of the same four answers when the current is read from the drop across a fuse of this rating. */
export function dropChances(
  amps: number,
  expectedAmps: number,
  ratingAmps: number,
): [number, number, number, number] {
  // Cold resistance within 15 %, up to 40 % more when warm: the current comes out high.
  const warm = 1 + ((WARM_FACTOR - 1) * Math.min(1, amps / ratingAmps)) / 2;
  const seen = amps * warm;
  const step = DROP_RESOLUTION_VOLTS / fuseColdOhms(ratingAmps);
  const blur = Math.hypot(COLD_SPREAD * seen, ((WARM_FACTOR - 1) / 3) * seen, 0.1 * seen, step);
  const [nothing, less, more] = clampLimits(expectedAmps).map((limit) => normalBelow((limit - seen) / blur));
  return [nothing!, less! - nothing!, more! - less!, 1 - more!];
}

/** Standard normal distribution function (Abramowitz and Stegun 7.1.26, error below 1.5e-7). */
export function normalBelow(x: number): number {
  const t = 1 / (1 + 0.3275911 * (Math.abs(x) / Math.SQRT2));
  const y =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) *
      t *
      Math.exp((-x * x) / 2);
  return x >= 0 ? 0.5 * (1 + y) : 0.5 * (1 - y);
}

/** Chances of lit, dim, off for a lamp at this fraction of the supply; the eye blurs the limits. */
export function lampChances(fraction: number): [number, number, number] {
  return threeWay(fraction, LAMP_LIT, LAMP_DIM, 0.05);
}

/** Chances of lit, dim, off for a tester of light-emitting diodes. */
export function ledChances(fraction: number): [number, number, number] {
  return threeWay(fraction, LED_LIT, LED_DIM, 0.05);
}

/** Chances of works, weak, dead for a load at this fraction of its nominal current. */
export function functionChances(
  fraction: number,
  weakBelow: number,
  deadBelow: number,
): [number, number, number] {
  return threeWay(fraction, weakBelow, deadBelow, 0.06);
}

function threeWay(fraction: number, upper: number, lower: number, blur: number): [number, number, number] {
  const above = normalBelow((fraction - upper) / blur);
  const below = normalBelow((lower - fraction) / blur);
  return [above, Math.max(0, 1 - above - below), below];
}
