/** Reads a circuit file and reports every problem at once: shape first, then what the shape cannot say. */

import {
  type Checked,
  type CircuitFile,
  type CircuitPart,
  type PartOf,
  ProblemList,
  readJson,
  upgraded,
  validateCircuitFile as validateCircuit,
  validateWith,
} from '../format';
import { RELAY_PULL_IN_PER_NOMINAL } from '../limits';
import { buildNetwork } from './buildNetwork';
import { cutOffThresholds, LOAD_KINDS, moduleInputs } from './expand';

const CIRCUIT_FORMAT = 'every-trace/circuit';

export function checkCircuitText(text: string): Checked<CircuitFile> {
  const json = readJson(text);
  return json.ok ? checkCircuit(json.value) : json;
}

/** A parsed circuit file: the circuit, or every problem with its place. */
export function checkCircuit(data: unknown): Checked<CircuitFile> {
  const file = upgraded(data, CIRCUIT_FORMAT);
  if (!file.ok) return file;
  const shape = validateWith<CircuitFile>(validateCircuit, file.value);
  if (!shape.ok) return shape;
  const problems = meaningProblems(shape.value);
  return problems.isEmpty ? shape : { ok: false, problems: problems.all };
}

function repeats(ids: readonly string[]): string[] {
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const id of ids) (seen.has(id) ? twice : seen).add(id);
  return [...twice];
}

function meaningProblems(circuit: CircuitFile): ProblemList {
  const problems = new ProblemList();
  const report: Report = (code, path, message) => problems.add(code, path, message);
  for (const field of ['places', 'nodes', 'parts', 'conditions', 'functions'] as const) {
    for (const id of repeats(circuit[field].map((one) => one.id))) {
      report('repeated-id', `/${field}/${id}`, `“${id}” stands twice among the ${field}. Ids must differ.`);
    }
  }
  const nodes = new Set(circuit.nodes.map((node) => node.id));
  const places = new Set(circuit.places.map((place) => place.id));
  const parts = new Map(circuit.parts.map((part) => [part.id, part]));
  const touched = new Map<string, number>();
  if (!nodes.has(circuit.reference)) {
    report('unknown-node', '/reference', `The reference “${circuit.reference}” is not among the nodes.`);
  }
  for (const node of circuit.nodes) {
    for (const access of node.access ?? []) {
      if (!places.has(access.place)) {
        report('unknown-place', `/nodes/${node.id}/access`, `“${access.place}” is not among the places.`);
      }
    }
  }
  for (const part of circuit.parts) {
    for (const [pin, node] of Object.entries(part.pins)) {
      if (!nodes.has(node)) {
        report(
          'pin-to-nowhere',
          `/parts/${part.id}/pins/${pin}`,
          `Pin ${pin} of ${part.name} leads to “${node}”, which is not among the nodes.`,
        );
      }
      touched.set(node, (touched.get(node) ?? 0) + 1);
    }
    if (part.place !== undefined && !places.has(part.place)) {
      report('unknown-place', `/parts/${part.id}/place`, `“${part.place}” is not among the places.`);
    }
    if (part.kind === 'switch') {
      if (!part.positions.includes(part.rest)) {
        report(
          'unknown-position',
          `/parts/${part.id}/rest`,
          `${part.name} rests in “${part.rest}”, which is not one of its positions (${part.positions.join(', ')}).`,
        );
      }
      part.contacts.forEach((contact, index) => {
        for (const pin of [contact.from, contact.to]) {
          if (!(pin in part.pins)) {
            report(
              'unknown-pin',
              `/parts/${part.id}/contacts/${index}`,
              `Contact ${contact.from}-${contact.to} of ${part.name} names pin “${pin}”, which the switch does not have.`,
            );
          }
        }
        for (const position of contact.closedIn) {
          if (!part.positions.includes(position)) {
            report(
              'unknown-position',
              `/parts/${part.id}/contacts/${index}`,
              `“${position}” is not a position of ${part.name}.`,
            );
          }
        }
      });
    }
    if (part.kind === 'relay' || part.kind === 'latching-relay') {
      if (part.pins['87'] === undefined && part.pins['87a'] === undefined) {
        report('no-contact', `/parts/${part.id}/pins`, `${part.name} has neither pin 87 nor pin 87a.`);
      }
    }
    if ('dropOutVolts' in part || 'pullInVolts' in part)
      thresholdProblems(part, circuit.nominalVolts, report);
    if (part.kind === 'cut-off') {
      const { disconnectVolts, reconnectVolts } = cutOffThresholds(part, circuit.nominalVolts);
      if (disconnectVolts >= reconnectVolts) {
        report(
          'thresholds-crossed',
          `/parts/${part.id}/disconnectVolts`,
          `${part.name} disconnects at ${disconnectVolts} V and reconnects at ${reconnectVolts} V; it must disconnect lower.`,
        );
      }
    }
    if (part.kind === 'module-output') moduleProblems(part, report);
    if (part.kind === 'socket') {
      for (const id of repeats(part.appliances.map((one) => one.id))) {
        report(
          'repeated-id',
          `/parts/${part.id}/appliances/${id}`,
          `“${id}” stands twice among the appliances.`,
        );
      }
    }
  }
  for (const node of circuit.nodes) {
    if (!touched.has(node.id)) {
      report('unused-node', `/nodes/${node.id}`, `No part has a pin at ${node.name} (${node.id}).`);
    }
  }
  if (!circuit.parts.some((part) => part.kind === 'battery')) {
    report('no-source', '/parts', 'The circuit has no battery, so nothing in it can be tested.');
  }
  for (const condition of circuit.conditions) {
    for (const [id, position] of Object.entries(condition.switches ?? {})) {
      const part = parts.get(id);
      if (part?.kind !== 'switch') {
        report(
          'unknown-switch',
          `/conditions/${condition.id}/switches/${id}`,
          `“${id}” is not a switch of this circuit.`,
        );
      } else if (!part.positions.includes(position)) {
        report(
          'unknown-position',
          `/conditions/${condition.id}/switches/${id}`,
          `${part.name} has no position “${position}”; it has ${part.positions.join(', ')}.`,
        );
      }
    }
  }
  conditionProblems(circuit, parts, report);
  for (const one of circuit.functions) {
    if (!isLoad(one.load, parts)) {
      report(
        'unknown-load',
        `/functions/${one.id}/load`,
        `“${one.load}” is not a load of this circuit (for an appliance write SOCKET:APPLIANCE).`,
      );
    }
  }
  if (problems.isEmpty) sourceProblems(circuit, report);
  return problems;
}

type Report = (code: string, path: string, message: string | (() => string)) => void;

/** A coil must let go below where it pulls in. */
function thresholdProblems(
  part: Extract<CircuitPart, { pullInVolts?: number }>,
  nominalVolts: number,
  report: Report,
): void {
  const pullIn = part.pullInVolts ?? nominalVolts * RELAY_PULL_IN_PER_NOMINAL;
  const dropOut = 'dropOutVolts' in part ? part.dropOutVolts : undefined;
  if (dropOut !== undefined && dropOut >= pullIn) {
    report(
      'thresholds-crossed',
      `/parts/${part.id}/dropOutVolts`,
      `${part.name} lets go at ${dropOut} V and pulls in at ${pullIn.toPrecision(3)} V; it must let go lower.`,
    );
  }
}

function moduleProblems(part: PartOf<'module-output'>, report: Report): void {
  for (const pin of ['plus', 'minus', 'out']) {
    if (!(pin in part.pins)) {
      report('missing-pin', `/parts/${part.id}/pins`, `${part.name} needs a pin “${pin}”.`);
    }
  }
  const inputs = moduleInputs(part);
  const named = [...part.rule.flatMap((line) => Object.keys(line.inputs ?? {})), ...(part.pullUps ?? [])];
  for (const pin of new Set(named)) {
    if (!inputs.includes(pin)) {
      report(
        'unknown-pin',
        `/parts/${part.id}/rule`,
        `The rule of ${part.name} names the input “${pin}”, which it does not have.`,
      );
    }
  }
}

function isLoad(id: string, parts: ReadonlyMap<string, CircuitPart>): boolean {
  const part = parts.get(id);
  if (part) return part.kind === 'led' || LOAD_KINDS.includes(part.kind);
  const at = id.lastIndexOf(':');
  const socket = at > 0 ? parts.get(id.slice(0, at)) : undefined;
  return socket?.kind === 'socket' && socket.appliances.some((one) => one.id === id.slice(at + 1));
}

/** What is plugged in must exist, and conditions that follow one another must not go round in a circle. */
function conditionProblems(
  circuit: CircuitFile,
  parts: ReadonlyMap<string, CircuitPart>,
  report: Report,
): void {
  const after = new Map(circuit.conditions.map((one) => [one.id, one.after]));
  for (const condition of circuit.conditions) {
    for (const [socket, appliance] of Object.entries(condition.pluggedIn ?? {})) {
      const part = parts.get(socket);
      if (part?.kind !== 'socket' || !part.appliances.some((one) => one.id === appliance)) {
        report(
          'unknown-appliance',
          `/conditions/${condition.id}/pluggedIn/${socket}`,
          part?.kind === 'socket'
            ? `${part.name} has no appliance “${appliance}”.`
            : `“${socket}” is not a socket of this circuit.`,
        );
      }
    }
    const seen = new Set([condition.id]);
    for (let before = condition.after; before !== undefined; before = after.get(before)) {
      const path = `/conditions/${condition.id}/after`;
      if (!after.has(before)) {
        report('unknown-condition', path, `“${before}” is not a condition of this circuit.`);
        break;
      }
      if (seen.has(before)) {
        report(
          'circular-condition',
          path,
          `${condition.name} comes after itself: its conditions go round in a circle.`,
        );
        break;
      }
      seen.add(before);
    }
  }
}

/** Two sources joined pole to pole by nothing but their own resistance, or one joined to itself. */
function sourceProblems(circuit: CircuitFile, report: Report): void {
  const network = buildNetwork(circuit);
  const sources = network.branches.filter((branch) => branch.role === 'source');
  for (let i = 0; i < sources.length; i++) {
    const one = sources[i]!;
    if (one.a === one.b) {
      report(
        'source-shorted',
        `/parts/${one.part}/pins`,
        `Both poles of ${one.part} are at the same node: the source is shorted.`,
      );
    }
    for (const other of sources.slice(i + 1)) {
      const parallel = one.a === other.a && one.b === other.b;
      const crossed = one.a === other.b && one.b === other.a;
      if (crossed || (parallel && one.emfVolts !== other.emfVolts)) {
        report('sources-shorted', `/parts/${other.part}/pins`, () =>
          crossed
            ? `${one.part} and ${other.part} are joined plus to minus with nothing between: they short each other.`
            : `${one.part} (${one.emfVolts} V) and ${other.part} (${other.emfVolts} V) are joined with nothing between. Put the cable or link that joins them into the circuit.`,
        );
      }
    }
  }
}
