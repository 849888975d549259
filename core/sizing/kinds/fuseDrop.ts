/** The current through a fuse from the millivolts across it: a band, refused below what a meter resolves. */
import { DROP_RESOLUTION_VOLTS, fuseColdOhms, fuseDropAmps } from '../../limits';
import { formatNumber } from '../../quantity';
import type { SumResult } from '../explained';
import { amps, choice, FAMILY_OPTIONS, figure, millivolts } from '../fields';
import { sumOf } from '../sum';

export const fuseDrop = sumOf({
  id: 'fuse-drop',
  name: 'Current from fuse drop',
  also: ['millivolt', 'mv', 'parasitic', 'without opening'],
  says: 'How much flows through a fuse, from the millivolts between its own ends, without taking it out.',
  fields: {
    millivolts: millivolts({ name: 'Across the fuse', typical: '0.8 mV' }),
    rating: amps({ name: 'Its rating', typical: '10 A, printed on it' }),
    family: choice({ name: 'Family', typical: 'regular or mini', first: 'regular' }, FAMILY_OPTIONS),
  },
  work: (typed): SumResult => {
    const found = fuseDropAmps(typed.millivolts / 1000, typed.rating, typed.family);
    const least = DROP_RESOLUTION_VOLTS / fuseColdOhms(typed.rating);
    const nothing = 'nothing' in found ? found.nothing : null;
    return {
      answers: [
        {
          id: 'amps',
          name: 'Current',
          words: 'nothing' in found ? 'cannot be said' : `about ${figure(found.amps, 'A')}`,
          main: true,
          ...(nothing ? { stands: 'watch' as const } : {}),
        },
        ...('nothing' in found
          ? []
          : [
              {
                id: 'band',
                name: 'It lies between',
                words: `${figure(found.fromAmps, 'A')} and ${figure(found.toAmps, 'A')}`,
              },
            ]),
        { id: 'least', name: 'Smallest step', words: figure(least, 'A') },
      ],
      governs: nothing,
      steps: [
        ...('nothing' in found
          ? []
          : [
              {
                name: 'Current',
                formula: `${formatNumber(typed.millivolts)} mV ÷ ${figure(fuseColdOhms(typed.rating) * 1000)} mΩ = ${figure(found.amps, 'A')}`,
                source: 'cold resistance of regular and mini blades, ± 15 %',
              },
            ]),
        {
          name: 'Smallest step',
          formula: `0.1 mV ÷ ${figure(fuseColdOhms(typed.rating) * 1000)} mΩ = ${figure(least, 'A')}`,
        },
      ],
      assumes: ['Read on the fuse’s own ends, not on the clips.', 'The meter resolves 0.1 mV.'],
      leavesOut: [
        'A loaded fuse is 20 to 40 % above its cold resistance: near its rating the current comes out high.',
      ],
      cautions: [],
      curve: null,
      label:
        'nothing' in found
          ? 'no current can be read'
          : `${figure(found.amps, 'A')} through ${formatNumber(typed.rating)} A`,
    };
  },
});
