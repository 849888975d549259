/**
 * A minus sign on the meter. Nearly always the leads are the wrong way round and the size is right; so the size counts,
 * and it is said. Where something on the map would show a minus there, the sign stays what it is.
 */
import type { CircuitFile } from '../../format';
import type { TakenReading } from './readings';
import type { TestPrediction } from './testPrediction';
import { JOINED } from './voltsPrediction';

/** Below this on 12 V a minus is no offset of a meter and no lift of an earth, volts. */
const LEAST = 0.3;
/** Over a part the drop of a sound contact and the meter's own error may be minus, volts. */
const LEAST_DROP = 0.15;
/** More than this share of the nominal volts no lead that is the wrong way round shows. */
const MOST = 1.35;

function turned(reading: TakenReading, volts: number): TakenReading {
  return { ...reading, value: { volts: -volts }, turned: true };
}

/** A reading against the reference, or at the battery's posts, with the leads the right way round. */
export function asMeant(
  { reference, nominalVolts }: Pick<CircuitFile, 'reference' | 'nominalVolts'>,
  reading: TakenReading,
): TakenReading {
  const { test, value } = reading;
  const plain = test.kind === 'battery' || (test.kind === 'volts' && test.against === reference);
  if (!plain || !('volts' in value)) return reading;
  const { volts } = value;
  return volts < (-LEAST * nominalVolts) / 12 && volts >= -MOST * nominalVolts
    ? turned(reading, volts)
    : reading;
}

/** A drop with the leads the right way round, unless something on the map would show it as it was read. */
export function dropAsMeant(
  { nominalVolts }: Pick<CircuitFile, 'nominalVolts'>,
  reading: TakenReading,
  { volts: predicted }: TestPrediction,
): TakenReading {
  const { value } = reading;
  if (!('volts' in value) || !predicted || value.volts > -LEAST_DROP) return reading;
  const { volts } = value;
  if (volts < -MOST * nominalVolts) return reading;
  // Half of it and more the other way: that is no scatter.
  const backwards = predicted.mean.some((mean, h) => predicted.floating[h] === JOINED && mean < volts / 2);
  return backwards ? reading : turned(reading, volts);
}

/** What is said of a reading whose leads were the wrong way round; what it may mean besides is asked once. */
export function turnedWords(size: string, saidBefore: boolean): string {
  return saidBefore
    ? `Leads the wrong way round: ${size} counts. `
    : `The minus sign says that the leads were the wrong way round: ${size} counts. If red was on the point, read the battery’s posts before anything else: then the supply itself is reversed. `;
}
