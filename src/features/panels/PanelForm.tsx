'use client';

import type { Panel } from '#core/format';
import { plugsFrom, plugsText, stepsFrom, stepsText } from '#core/panel';
import { type NumberRange, readNumber } from '#core/quantity';
import { INPUT } from '@/ui/controls';
import { type FieldDrafts, Labelled, ReadField, readList, readText } from '@/ui/ReadField';
import { Select } from '@/ui/Select';

const EDGES = ['top', 'right', 'bottom', 'left'] as const;

/** The box itself: where it is, how it opens, what it is told by. */
export function PanelForm({
  panel,
  drafts,
  onChange,
}: {
  panel: Panel;
  drafts: FieldDrafts;
  onChange: (fields: Partial<Omit<Panel, 'id' | 'slots'>>) => void;
}) {
  const text = (name: 'name' | 'place' | 'isolateFirst' | 'caution', label: string, required?: string) => (
    <ReadField
      drafts={drafts}
      label={label}
      text={panel[name] ?? ''}
      read={readText(required)}
      onRead={(value) => onChange({ [name]: value === '' ? undefined : value })}
    />
  );
  const number = (name: 'width' | 'height' | 'minutesToOpen', label: string, range: NumberRange) => (
    <ReadField
      drafts={drafts}
      label={label}
      text={String(panel[name])}
      read={(typed) => readNumber(typed, range)}
      onRead={(value) => onChange({ [name]: value })}
      decimal
    />
  );
  return (
    <section aria-labelledby="panel-title">
      <h2 id="panel-title" className="mb-2 border-b-2 border-line pb-1 text-lg">
        The box
      </h2>
      <div className="grid gap-3">
        {text('name', 'Name', 'A box needs a name.')}
        {text('place', 'Where it is', 'Say where the box is.')}
        <div className="grid grid-cols-3 gap-3">
          {number('width', 'Width, mm', { above: 0, most: 2000, unit: 'mm' })}
          {number('height', 'Height, mm', { above: 0, most: 2000, unit: 'mm' })}
          {number('minutesToOpen', 'Minutes to open', { least: 0, most: 600, unit: 'min' })}
        </div>
        <ReadField
          drafts={drafts}
          label="To open it, one step a line"
          hint="Fastener, tool, direction, what breaks when forced"
          rows={3}
          text={panel.opening.join('\n')}
          read={readList}
          onRead={(opening) => onChange({ opening: [...opening] })}
        />
        <ReadField
          drafts={drafts}
          label="In more detail, one step a line"
          hint="Step | fastener | tool | direction | what breaks when forced | minutes; parts may stay empty"
          rows={3}
          text={stepsText(panel.steps)}
          read={stepsFrom}
          onRead={(steps) => onChange({ steps: steps.length > 0 ? [...steps] : undefined })}
        />
        <ReadField
          drafts={drafts}
          label="Plugs underneath, one a line"
          hint="Name | shape | cavities | mating or wire; equal shapes are warned of"
          rows={2}
          text={plugsText(panel.plugs)}
          read={(typed) => plugsFrom(typed, panel.plugs)}
          onRead={(plugs) => onChange({ plugs: plugs.length > 0 ? [...plugs] : undefined })}
        />
        {text('isolateFirst', 'Disconnect first')}
        {text('caution', 'Caution')}
        <div className="grid grid-cols-2 gap-3">
          <ReadField
            drafts={drafts}
            label="Landmark"
            text={panel.landmark.name}
            read={readText('A box needs something it is told by.')}
            onRead={(name) => onChange({ landmark: { ...panel.landmark, name } })}
          />
          <Labelled name="Seen at, text upright">
            <Select
              value={panel.landmark.edge}
              onChange={(event) =>
                onChange({
                  landmark: {
                    ...panel.landmark,
                    edge: EDGES.find((one) => one === event.target.value) ?? 'left',
                  },
                })
              }
              className={INPUT}
            >
              {EDGES.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </Select>
          </Labelled>
        </div>
      </div>
    </section>
  );
}
