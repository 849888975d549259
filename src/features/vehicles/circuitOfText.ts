/** A circuit file as the text that the editor takes, and the id that it names. */
import type { CircuitFile } from '#core/format';

/** Null where it is neither. The reader and writer of texts are fetched when they are needed. */
export async function circuitOfText(file: string): Promise<{ id: string; text: string } | null> {
  const { readNotation, writeNotation } = await import('#core/notation');
  if (!file.trimStart().startsWith('{')) {
    const { circuit } = readNotation(file);
    return circuit ? { id: circuit.id, text: file } : null;
  }
  try {
    const circuit = JSON.parse(file) as CircuitFile;
    return { id: circuit.id, text: writeNotation(circuit, { everything: true }) };
  } catch {
    return null;
  }
}
