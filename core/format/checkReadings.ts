/** Reads a readings file and holds it against the circuit it was taken on. */

import type { CircuitFile } from './circuitSchema';
import validateReadings from './generated/readingsFile';
import { type Checked, type Problem, readJson, validateWith } from './problem';
import type { ReadingsFile, TestRef } from './readingsSchema';
import { upgraded } from './upgrade/upgrade';

const READINGS_FORMAT = 'every-trace/readings';

export function checkReadingsText(text: string, circuit: CircuitFile): Checked<ReadingsFile> {
  const json = readJson(text);
  if (!json.ok) return json;
  const file = upgraded(json.value, READINGS_FORMAT);
  if (!file.ok) return file;
  const shape = validateWith<ReadingsFile>(validateReadings, file.value);
  if (!shape.ok) return shape;
  const { complaint, readings } = shape.value;
  const problems: Problem[] = [
    ...refProblems({ kind: 'function', ...complaint }, circuit, '/complaint'),
    ...readings.flatMap((reading, index) => refProblems(reading.test, circuit, `/readings/${index}/test`)),
  ];
  return problems.length > 0 ? { ok: false, problems } : shape;
}

/** What a test reference names that the circuit does not have. */
function refProblems(ref: TestRef, circuit: CircuitFile, path: string): Problem[] {
  const known: Readonly<Record<string, readonly string[]>> = {
    node: circuit.nodes.map((one) => one.id),
    against: circuit.nodes.map((one) => one.id),
    condition: circuit.conditions.map((one) => one.id),
    function: circuit.functions.map((one) => one.id),
    part: circuit.parts.map((one) => one.id),
    unplugged: circuit.parts.map((one) => one.id),
  };
  return Object.entries(ref).flatMap(([field, value]) =>
    known[field] && typeof value === 'string' && !known[field].includes(value)
      ? [
          {
            code: `unknown-${field}`,
            path: `${path}/${field}`,
            message: `The circuit has no ${field === 'against' ? 'node' : field} “${value}”.`,
          },
        ]
      : [],
  );
}
