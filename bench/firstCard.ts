/** What the first card is worth that is chosen before everything is worked out, beside the one that comes of everything. */
import { DiagnosisSession, type Proposal, type TakenReading } from '../core/diagnosis';
import { CircuitModel } from '../core/network';
import { seeded } from '../testing/randomCircuit';
import { vehicleCircuit } from '../testing/vehicleCircuit';
import { outsideCircuit } from './outsideCircuit';

export interface FirstCard {
  /** Whether it is the same card. */
  readonly same: boolean;
  /** Information per minute that it falls short of what everything would have chosen, bits. */
  readonly lost: number;
  /** Time until it stands, of the time until everything is worked out and asked. */
  readonly of: number;
}

const perMinute = ({ gainBits, minutes }: Proposal) => gainBits / minutes;

/** The first card of one complaint, before and after; null where there is none before. */
function firstCardOf(
  map: ReturnType<typeof outsideCircuit>,
  complaint: { function: string; condition: string },
  seen: boolean,
): FirstCard | null {
  const test = { kind: 'function', ...complaint } as const;
  const dead: TakenReading = { id: 'seen', test, value: { state: 'dead' } };
  const input = { readings: seen ? [dead] : [], refused: [], opened: [] };
  const began = performance.now();
  const session = new DiagnosisSession(map, complaint);
  for (const _piece of session.prepareFirst());
  const first = session.firstCard(input);
  const stood = performance.now();
  for (const _piece of session.prepare());
  const best = session.assess(input).next[0];
  const of = (stood - began) / (performance.now() - began);
  if (!first || !best) return null;
  if (first.id === best.id) return { same: true, lost: 0, of };
  const beside = session.card(first.id, input);
  return { same: false, lost: perMinute(best) - (beside ? perMinute(beside) : 0), of };
}

/** So many complaints, half of them seen by the technician; circuits of two kinds by turns, from a seed on. */
export function firstCards(from: number, most: number): FirstCard[] {
  const found: FirstCard[] = [];
  for (let at = 0; found.length < most; at++) {
    const wanted = 12 + Math.round((90 * (at % 10)) / 9);
    const map =
      at % 2 === 0
        ? vehicleCircuit(from + at, wanted)
        : outsideCircuit(seeded((from + at) * 104_729 + 17), wanted);
    const model = new CircuitModel(map);
    for (const one of map.functions.slice(0, 6)) {
      const condition = model.conditions.find(({ id }) => model.expectedOn(one, id));
      if (!condition) continue;
      for (const seen of [false, true]) {
        const card = firstCardOf(map, { function: one.id, condition: condition.id }, seen);
        if (card && found.length < most) found.push(card);
      }
    }
  }
  return found;
}
