/** A test that is weighed, as it is proposed: where, how long, what each result would mean, and why. */
import type { Proposal } from '../assessment';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { titleOf } from '../verdict/suspects';
import type { Sighted } from './askable';
import { explainProposal, outcomeMeanings } from './explainTest';
import type { TestWorth } from './next';

export function proposalOf(
  worth: TestWorth,
  { predictions, groups, inPlay, input }: Sighted,
  hypotheses: readonly Hypothesis[],
): Proposal {
  const { model } = predictions;
  const prediction = predictions.of(worth.test.id, worth.test.ref);
  const titles = (g: number) => titleOf(model, hypotheses, groups[inPlay.groups[g]!]!);
  const outcomes = outcomeMeanings(predictions, prediction, inPlay, titles);
  const place = model.circuit.places.find((one) => one.id === worth.place);
  return {
    id: worth.test.id,
    ref: worth.test.ref,
    place: worth.place,
    lead: worth.lead,
    minutes: worth.minutes,
    gainBits: worth.gainBits,
    expected: outcomes.expected,
    why: explainProposal(outcomes.meanings, worth, place, place ? input.opened.includes(place.id) : true),
    outcomes: outcomes.meanings,
  };
}
