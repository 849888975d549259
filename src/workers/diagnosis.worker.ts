/** A thin shell around the diagnosis: one circuit and one complaint at a time, answers by request number. */
import { CircuitModel } from '#core/circuit/model';
import { partsOfFunction, requiredProofs } from '#core/diagnosis/proofs';
import { functionRuns } from '#core/diagnosis/run';
import { DiagnosisSession } from '#core/diagnosis/session';
import type { CircuitFile } from '#core/format/circuitSchema';
import type { DescribeAnswer, WorkerAnswer, WorkerRequest } from './diagnosisMessages';

let model: CircuitModel | null = null;
let session: DiagnosisSession | null = null;
let circuit: CircuitFile | null = null;

function describeCircuit(): DescribeAnswer {
  const current = model!;
  return {
    type: 'described',
    expected: Object.fromEntries(
      current.circuit.functions.flatMap((one) =>
        current.conditions.map((condition) => [
          `${one.id}|${condition.id}`,
          current.outcome(one, current.sound(condition.id)),
        ]),
      ),
    ),
    partsOfFunction: Object.fromEntries(
      current.circuit.functions.map((one) => [one.id, [...partsOfFunction(current, one.id)]]),
    ),
    emfVolts: current.emfVolts,
  };
}

function soundVolts(conditionId: string): Record<string, number> {
  const current = model!;
  const point = current.sound(conditionId);
  return Object.fromEntries(
    current.circuit.nodes.map((node) => [node.id, point.volts[current.network.nodeIndex.get(node.id)!]!]),
  );
}

function answer(request: WorkerRequest): WorkerAnswer {
  switch (request.type) {
    case 'describe':
      circuit = request.circuit;
      model = new CircuitModel(circuit);
      session = null;
      return describeCircuit();
    case 'open':
      session = new DiagnosisSession(circuit!, request.complaint);
      return {
        type: 'opened',
        complaint: request.complaint,
        runs: functionRuns(model!, request.complaint.function, request.complaint.condition),
        soundVolts: soundVolts(request.complaint.condition),
      };
    case 'assess':
      return {
        type: 'assessed',
        request: request.request,
        assessment: session!.assess(request.input),
        card: request.chosen ? session!.card(request.chosen, request.input) : null,
        proofs: requiredProofs(model!, session!.complaint, request.touched),
      };
  }
}

self.onmessage = (message: MessageEvent<WorkerRequest>) => {
  let reply: WorkerAnswer;
  try {
    reply = answer(message.data);
  } catch (error) {
    reply = { type: 'failed', message: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(reply);
};
