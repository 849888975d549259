/** A thread of its own for reading files: however large or odd one is, the server goes on answering. */
import { checkCircuit } from '#core/circuit';
import { checkPanelSet, readJson } from '#core/format';
import { isNotation, readCircuitText } from '#core/notation';
import type { ReadMap } from './mapReader';

/** A circuit as JSON or as text, or a panel set. */
export default function readMap(text: string): ReadMap {
  if (isNotation(text)) return readCircuitText(text);
  const json = readJson(text);
  if (!json.ok) return json;
  const format = (json.value as { format?: unknown } | null)?.format;
  return format === 'every-trace/panel-set' ? checkPanelSet(json.value) : checkCircuit(json.value);
}
