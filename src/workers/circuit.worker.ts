/** A thin shell around one circuit: live states, tables, and what is lost without a slot. */

import { activeCondition, functionRuns, partsOfFunction } from '#core/diagnosis';
import { drawsAsleep, liveState, stateTable } from '#core/live';
import { CircuitModel } from '#core/network';
import { coverage, withoutSlot } from '#core/panel';
import type { CircuitAnswer, CircuitAnswers, CircuitQuestion, CircuitRequest } from './circuitMessages';

let model: CircuitModel | null = null;

function answerTo(current: CircuitModel, question: CircuitQuestion): CircuitAnswers[CircuitQuestion['ask']] {
  switch (question.ask) {
    case 'live':
      return liveState(current, question.setting);
    case 'table':
      return stateTable(current, question.varied, question.at, question.one, question.other);
    case 'without':
      return withoutSlot(current, question.panel, question.slot);
    case 'runs': {
      const condition = question.condition ?? activeCondition(current, question.function);
      return condition ? functionRuns(current, question.function, condition) : [];
    }
    case 'asleep':
      return drawsAsleep(current);
    case 'coverage':
      return current.circuit.functions.map((one) =>
        coverage(current, one.id, partsOfFunction(current, one.id)),
      );
  }
}

self.onmessage = ({ data }: MessageEvent<CircuitRequest>) => {
  const { request, question } = data;
  let said: CircuitAnswer;
  try {
    if (data.circuit) model = new CircuitModel(data.circuit);
    said = { request, answer: answerTo(model!, question) };
  } catch (error) {
    said = { request, problem: error instanceof Error ? error.message : 'This cannot be worked out.' };
  }
  self.postMessage(said);
};
