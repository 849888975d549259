/** A thin shell around the diagnosis: one circuit and one complaint at a time, answers by request number. */

import {
  DiagnosisSession,
  expectedStates,
  partsOfFunction,
  requiredProofs,
  WhatWouldHelp,
} from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { CircuitModel } from '#core/network';
import type { DescribeAnswer, WorkerAnswer, WorkerRequest } from './diagnosisMessages';
import { KeptOfCircuit } from './keptPredictions';
import { Shares } from './shares';

type AssessRequest = Extract<WorkerRequest, { type: 'assess' }>;
type OpenRequest = Extract<WorkerRequest, { type: 'open' }>;

/** Work goes on so long before messages are looked at, milliseconds. */
const SLICE_MS = 25;

let model: CircuitModel | null = null;
let session: DiagnosisSession | null = null;
let circuit: CircuitFile | null = null;
let keeping: KeptOfCircuit | null = null;
let cores = 1;
/** The latest question while the session is still being prepared; older ones are of no use to anybody. */
let waiting: AssessRequest | null = null;
let preparing = false;
/** Raised by every new start and by a cancel; work under an older number stops. */
let turn = 0;
/** Workers that help with the present complaint. */
let shares: Shares | null = null;

function nextTurn(): number {
  shares?.end();
  shares = null;
  turn += 1;
  return turn;
}

function say(answer: WorkerAnswer): void {
  self.postMessage(answer);
}

function describeCircuit(): DescribeAnswer {
  const current = model!;
  return {
    type: 'described',
    expected: expectedStates(current),
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

/** Which unknown number would change the next test; worked out after the first answer. */
let help: WhatWouldHelp | null = null;
let lastAsked: AssessRequest | null = null;

/**
 * Goes through slow work, in slices that let messages in: a new complaint or a cancel ends it. Gives what the work gives;
 * null where it was ended.
 */
async function inSlices<P, R>(
  mine: number,
  work: Generator<P, R>,
  onSlice: (piece: P) => void = () => undefined,
): Promise<R | null> {
  let since = performance.now();
  let step = work.next();
  while (!step.done) {
    if (performance.now() - since >= SLICE_MS) {
      onSlice(step.value);
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (mine !== turn) return null;
      since = performance.now();
    }
    step = work.next();
  }
  return step.value;
}

async function prepareHelp(mine: number, { type: _, complaint, ...options }: OpenRequest): Promise<void> {
  const made = new WhatWouldHelp(circuit!, complaint, options);
  await inSlices(mine, made.prepare());
  if (mine !== turn) return;
  help = made;
  if (lastAsked) sayWhatWouldHelp(lastAsked);
}

function sayWhatWouldHelp(request: AssessRequest): void {
  lastAsked = request;
  if (!help) return;
  const next = session!.assess(request.input).next[0]?.id;
  say({ type: 'would-help', request: request.request, parts: help.parts(request.input, next) });
}

function assess(request: AssessRequest): void {
  say({
    type: 'assessed',
    request: request.request,
    assessment: session!.assess(request.input),
    card: request.chosen ? session!.card(request.chosen, request.input) : null,
    proofs: requiredProofs(model!, session!.complaint, request.touched, request.seen),
  });
  sayWhatWouldHelp(request);
}

/** Says the card to begin with once, as soon as its tests are worked out and it is known what was asked. */
function sayFirst(made: DiagnosisSession): boolean {
  const card = waiting && !waiting.chosen ? made.firstCard(waiting.input) : null;
  if (card) say({ type: 'first', request: waiting!.request, card });
  return card !== null;
}

/** Works out what nothing is known of yet, this worker a share and others theirs; false where it was ended. */
async function workOut(mine: number, made: DiagnosisSession, helping: Shares | null): Promise<boolean> {
  let said = false;
  const told = ({ done, total }: { done: number; total: number }) => {
    say({ type: 'preparing', done: done / total });
    if (!said) said = sayFirst(made);
  };
  await inSlices(mine, made.prepareFirst());
  if (mine !== turn) return false;
  said = sayFirst(made);
  const shared = helping?.out(made.missing()) ?? null;
  if (shared) {
    const share = await inSlices(mine, made.share(shared.own), told);
    if (!share) return false;
    made.take(share);
    for (const other of await shared.others) made.take(other);
    if (mine !== turn) return false;
  }
  helping?.end();
  await inSlices(mine, made.prepare(), told);
  return mine === turn;
}

async function open(request: OpenRequest) {
  const { type: _, complaint, ...options } = request;
  const mine = nextTurn();
  preparing = true;
  waiting = null;
  help = null;
  lastAsked = null;
  const from = keeping!;
  const { kept, whole } = await from.of(complaint);
  if (mine !== turn) return;
  // They begin to read the circuit while this one does.
  shares = whole ? null : new Shares(cores, circuit!, complaint, options);
  const helping = shares;
  const made = new DiagnosisSession(circuit!, complaint, { ...options, kept });
  session = made;
  say({
    type: 'opened',
    complaint,
    runs: [...made.runs],
    soundVolts: soundVolts(complaint.condition),
    relayDuties: { ...made.duties },
    forbidden: [...made.barred],
    permitted: made.permitted.map(({ id, ref, accesses }) => ({
      id,
      ref,
      place: accesses[0]?.place ?? null,
      lead: accesses[0]?.lead ?? '',
    })),
  });
  if (!(await workOut(mine, made, helping))) return;
  preparing = false;
  const asked = waiting as AssessRequest | null;
  waiting = null;
  if (asked) assess(asked);
  const fresh = made.toKeep();
  if (fresh) void from.keep(complaint, fresh);
  await prepareHelp(mine, request);
}

async function answer(request: WorkerRequest): Promise<void> {
  switch (request.type) {
    case 'describe':
      nextTurn();
      circuit = request.circuit;
      model = new CircuitModel(circuit);
      session = null;
      cores = request.cores;
      // What was kept is fetched while the circuit is read.
      keeping = new KeptOfCircuit(circuit, request.owner);
      say(describeCircuit());
      return;
    case 'open':
      await open(request);
      return;
    case 'cancel':
      nextTurn();
      preparing = false;
      waiting = null;
      return;
    case 'assess':
      if (preparing) waiting = request;
      else if (session) assess(request);
  }
}

self.onmessage = (message: MessageEvent<WorkerRequest>) => {
  answer(message.data).catch((error: unknown) => {
    preparing = false;
    say({ type: 'failed', message: error instanceof Error ? error.message : String(error) });
  });
};
