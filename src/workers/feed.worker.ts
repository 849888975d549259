/** A thin shell around the search for feeds: the circuits once, then a question after another. */
import { mergeCircuits } from '#core/circuit';
import { engineVariant, findFeeds, groupsOf, relayVariant, wantsRelay } from '#core/feed';
import type { CircuitFile } from '#core/format';
import { CircuitModel } from '#core/network';
import type { FeedAnswer, FeedRequest, FoundFeeds } from './feedMessages';

let models: readonly CircuitModel[] = [];

function modelsOf(circuits: readonly CircuitFile[]): CircuitModel[] {
  return groupsOf(circuits).map(
    (files) => new CircuitModel(files.length === 1 ? files[0]! : mergeCircuits([...files]).circuit),
  );
}

function answerTo({ scene, ask, metres }: FeedRequest): FoundFeeds {
  const whole = { ...scene, models };
  const candidates = findFeeds(whole, ask);
  const fits = candidates.some(({ verdict }) => verdict === 'fits');
  return {
    candidates,
    relay: !fits && wantsRelay(candidates) ? relayVariant(whole, ask, metres) : null,
    engine: fits ? null : engineVariant(whole, ask),
  };
}

self.onmessage = ({ data }: MessageEvent<FeedRequest>) => {
  let said: FeedAnswer;
  try {
    if (data.circuits) models = modelsOf(data.circuits);
    said = { request: data.request, answer: answerTo(data) };
  } catch (error) {
    said = {
      request: data.request,
      problem: error instanceof Error ? error.message : 'The feeds cannot be worked out.',
    };
  }
  self.postMessage(said);
};
