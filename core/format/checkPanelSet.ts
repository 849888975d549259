/** Reads a panel-set file and reports every problem at once. */

import validatePanelSet from './generated/panelSetFile';
import { overlaps } from './overlaps';
import type { PanelSetFile } from './panelSchema';
import { type Checked, ProblemList, readJson, validateWith } from './problem';
import { upgraded } from './upgrade/upgrade';

const PANEL_SET_FORMAT = 'every-trace/panel-set';

export function checkPanelSetText(text: string): Checked<PanelSetFile> {
  const json = readJson(text);
  return json.ok ? checkPanelSet(json.value) : json;
}

/** A parsed panel-set file: the panels, or every problem with its place. */
export function checkPanelSet(data: unknown): Checked<PanelSetFile> {
  const file = upgraded(data, PANEL_SET_FORMAT);
  if (!file.ok) return file;
  const shape = validateWith<PanelSetFile>(validatePanelSet, file.value);
  if (!shape.ok) return shape;
  const problems = new ProblemList();
  const report = (code: string, path: string, message: string) => problems.add(code, path, message);
  const panelIds = new Set<string>();
  for (const panel of shape.value.panels) {
    if (panelIds.has(panel.id)) {
      report('repeated-id', `/panels/${panel.id}`, `“${panel.id}” stands twice among the panels.`);
    }
    panelIds.add(panel.id);
    const slotIds = new Set<string>();
    const numbers = new Map<string, string>();
    for (const slot of panel.slots) {
      const path = `/panels/${panel.id}/slots/${slot.id}`;
      if (slotIds.has(slot.id)) report('repeated-id', path, `“${slot.id}” stands twice in ${panel.name}.`);
      slotIds.add(slot.id);
      const numbered = `${slot.type} ${slot.number}`;
      if (numbers.has(numbered)) {
        report(
          'repeated-number',
          path,
          `${panel.name} has ${numbered} twice (${numbers.get(numbered)} and ${slot.id}).`,
        );
      }
      numbers.set(numbered, slot.id);
      if (slot.x + slot.width > panel.width + 0.01 || slot.y + slot.height > panel.height + 0.01) {
        report(
          'outside-panel',
          path,
          `${numbered} reaches beyond the edge of ${panel.name} (${panel.width} × ${panel.height} mm).`,
        );
      }
    }
    for (const [one, other] of overlaps(panel.slots)) {
      if (problems.isFull) problems.count();
      else if (one.id !== other.id) {
        report(
          'overlap',
          `/panels/${panel.id}/slots/${other.id}`,
          `${other.type} ${other.number} lies over ${one.type} ${one.number}.`,
        );
      }
    }
  }
  return problems.isEmpty ? shape : { ok: false, problems: problems.all };
}
