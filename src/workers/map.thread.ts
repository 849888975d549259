/** A thread of its own for reading files: however large or odd one is, the server goes on answering. */
import { checkCircuit } from '#core/circuit';
import { type Checked, checkJob, checkPanelSet, type JobFile, readJson } from '#core/format';
import { isNotation, readCircuitText } from '#core/notation';
import type { Asked, ReadMap } from './mapMessages';

/** The file that a text holds, or every problem with it. */
export default function read({ what, text }: Asked): ReadMap | Checked<JobFile> {
  return what === 'job' ? readJob(text) : readMap(text);
}

/** A job with all its circuits. */
function readJob(text: string): Checked<JobFile> {
  const json = readJson(text);
  const job = json.ok ? checkJob(json.value) : json;
  if (!job.ok) return job;
  const problems = job.value.circuits.flatMap((circuit, index) => {
    const checked = checkCircuit(circuit);
    return checked.ok
      ? []
      : checked.problems.map((one) => ({ ...one, path: `/circuits/${index}${one.path}` }));
  });
  return problems.length > 0 ? { ok: false, problems } : job;
}

/** A circuit as JSON or as text, or a panel set. */
function readMap(text: string): ReadMap {
  if (isNotation(text)) return readCircuitText(text);
  const json = readJson(text);
  if (!json.ok) return json;
  const format = (json.value as { format?: unknown } | null)?.format;
  return format === 'every-trace/panel-set' ? checkPanelSet(json.value) : checkCircuit(json.value);
}
