'use client';

import type { Panel } from '#core/format/panelSchema';
import { plugsFrom, plugsText, stepsFrom, stepsText } from '#core/panel/lines';
import { Field, INPUT } from '@/ui/controls';

const EDGES = ['top', 'right', 'bottom', 'left'] as const;

/** The box itself: where it is, how it opens, what it is told by. */
export function PanelForm({
  panel,
  onChange,
}: {
  panel: Panel;
  onChange: (fields: Partial<Omit<Panel, 'id' | 'slots'>>) => void;
}) {
  const text = (name: 'name' | 'place' | 'isolateFirst' | 'caution', label: string, required = false) => (
    <Field label={label}>
      <input
        defaultValue={panel[name] ?? ''}
        onBlur={(event) => {
          const value = event.target.value.trim();
          if (value === (panel[name] ?? '') || (required && value === '')) return;
          onChange({ [name]: value === '' ? undefined : value });
        }}
        className={INPUT}
      />
    </Field>
  );
  const number = (name: 'width' | 'height' | 'minutesToOpen', label: string) => (
    <Field label={label}>
      <input
        key={panel[name]}
        inputMode="decimal"
        defaultValue={panel[name]}
        onBlur={(event) => {
          const value = Number(event.target.value.replace(',', '.'));
          if (value > 0 && value <= 2000 && value !== panel[name]) onChange({ [name]: value });
        }}
        className={INPUT}
      />
    </Field>
  );
  return (
    <section aria-labelledby="panel-title">
      <h2 id="panel-title" className="mb-2 border-b-2 border-line pb-1 text-lg">
        The box
      </h2>
      <div className="grid gap-3">
        {text('name', 'Name', true)}
        {text('place', 'Where it is', true)}
        <div className="grid grid-cols-3 gap-3">
          {number('width', 'Width, mm')}
          {number('height', 'Height, mm')}
          {number('minutesToOpen', 'Minutes to open')}
        </div>
        <Field label="To open it, one step a line" hint="Fastener, tool, direction, what breaks when forced">
          <textarea
            rows={3}
            defaultValue={panel.opening.join('\n')}
            onBlur={(event) => {
              const opening = event.target.value
                .split('\n')
                .map((one) => one.trim())
                .filter((one) => one !== '');
              if (opening.join('\n') !== panel.opening.join('\n')) onChange({ opening });
            }}
            className={INPUT}
          />
        </Field>
        <Field
          label="In more detail, one step a line"
          hint="Step | fastener | tool | direction | what breaks when forced | minutes; parts may stay empty"
        >
          <textarea
            rows={3}
            defaultValue={stepsText(panel.steps)}
            onBlur={(event) => {
              const steps = stepsFrom(event.target.value);
              if (JSON.stringify(steps) !== JSON.stringify(panel.steps ?? [])) {
                onChange({ steps: steps.length > 0 ? steps : undefined });
              }
            }}
            className={INPUT}
          />
        </Field>
        <Field
          label="Plugs underneath, one a line"
          hint="Name | shape | cavities | mating or wire; equal shapes are warned of"
        >
          <textarea
            rows={2}
            defaultValue={plugsText(panel.plugs)}
            onBlur={(event) => {
              const plugs = plugsFrom(event.target.value);
              if (JSON.stringify(plugs) !== JSON.stringify(panel.plugs ?? [])) {
                onChange({ plugs: plugs.length > 0 ? plugs : undefined });
              }
            }}
            className={INPUT}
          />
        </Field>
        {text('isolateFirst', 'Disconnect first')}
        {text('caution', 'Caution')}
        <div className="grid grid-cols-2 gap-3">
          <Field label="Landmark">
            <input
              defaultValue={panel.landmark.name}
              onBlur={(event) => {
                const name = event.target.value.trim();
                if (name !== '' && name !== panel.landmark.name) {
                  onChange({ landmark: { ...panel.landmark, name } });
                }
              }}
              className={INPUT}
            />
          </Field>
          <Field label="Seen at, text upright">
            <select
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
            </select>
          </Field>
        </div>
      </div>
    </section>
  );
}
