'use client';

import { type Fault, type FaultMode, faultModes, faultWords } from '#core/faults';
import type { CircuitFile, CircuitPart } from '#core/format';
import { conditionOf, type DialPositions, dialsOf, type LiveSetting, type LiveState } from '#core/live';
import { Choice } from '@/ui/Choice';
import { Pressed } from '@/ui/Pressed';
import { ScrollPane } from '@/ui/ScrollPane';
import { Select } from '@/ui/Select';
import { ampsText, voltsText } from './CircuitDrawing';

const STATE_SIGN = { works: '●', weak: '◐', dead: '○' } as const;

const FEW_DIALS = 6;

/** The dials: key, switches, plugs. Every one a row of positions. */
export function Dials({
  circuit,
  at,
  onTurn,
}: {
  circuit: CircuitFile;
  at: DialPositions;
  onTurn: (dial: string, position: string) => void;
}) {
  const dials = dialsOf(circuit);
  if (dials.length === 0) return <p className="text-soft">Nothing here can be switched.</p>;
  const rows = (
    <div className="space-y-2" data-testid="dials">
      {dials.map((dial) => (
        <Choice
          key={dial.id}
          legend={dial.name}
          shape="line"
          options={dial.positions.map((id) => ({ id, name: id }))}
          chosen={at[dial.id] ?? dial.positions[0] ?? null}
          onChoose={(position) => onTurn(dial.id, position)}
        />
      ))}
    </div>
  );
  // So many that what they switch would be pushed away scroll by themselves.
  return dials.length > FEW_DIALS ? <ScrollPane className="h-80 max-h-[50dvh]">{rows}</ScrollPane> : rows;
}

export function Functions({ circuit, state }: { circuit: CircuitFile; state: LiveState | null }) {
  const states = new Map(state?.functions.map((one) => [one.function, one.state]));
  return (
    <ul className="mt-1" data-testid="live-functions">
      {circuit.functions.map((one) => {
        const now = states.get(one.id);
        return (
          <li key={one.id} className="flex justify-between gap-3 border-b border-line py-1">
            <span>{one.name}</span>
            <span className={now === 'works' ? 'font-bold' : now === 'weak' ? 'text-caution' : 'text-soft'}>
              {now ? `${STATE_SIGN[now]} ${now === 'works' ? 'on' : now === 'weak' ? 'weak' : 'off'}` : '…'}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** What overloads, opens and buzzes, in words; nothing where all is well. */
export function Alarms({ circuit, state }: { circuit: CircuitFile; state: LiveState }) {
  const name = (id: string) => circuit.parts.find((part) => part.id === id)?.name ?? id;
  const lines = [
    ...state.blown.map((id) => `${name(id)} opens.`),
    ...state.overloaded.map(
      (one) =>
        `${name(one.part)}: ${one.amps.toFixed(1)} A on ${one.ratingAmps === null ? 'a rating nobody has read' : `${one.ratingAmps} A`}; ${one.opens}.`,
    ),
    ...(state.oscillating.length > 0
      ? [`No steady state: ${state.oscillating.map(name).join(', ')} would buzz.`]
      : []),
  ];
  if (lines.length === 0) return null;
  return (
    <ul className="mt-3 border-l-4 border-bad pl-3 font-semibold text-bad" role="status" data-testid="alarms">
      {lines.map((line) => (
        <li key={line}>▲ {line}</li>
      ))}
    </ul>
  );
}

/** The chosen part: its pins with their volts, what can be done to it, what can be wrong with it. */
export function PartPanel({
  circuit,
  part,
  state,
  setting,
  onSetting,
}: {
  circuit: CircuitFile;
  part: CircuitPart;
  state: LiveState | null;
  setting: LiveSetting;
  onSetting: (setting: LiveSetting) => void;
}) {
  const volts = new Map(state?.nodes.map((one) => [one.node, one]));
  const nodeName = (id: string) => circuit.nodes.find((one) => one.id === id)?.name ?? id;
  const pulls = part.kind === 'connector' ? 'unplugged' : 'pulled';
  const isOut = setting.done.some((one) => 'part' in one && one.part === part.id);
  const fault = setting.faults.find((one) => one.part === part.id);
  const setFault = (mode: FaultMode | '') => {
    const others = setting.faults.filter((one) => one.part !== part.id);
    const faults: Fault[] = mode === '' ? others : [...others, { part: part.id, mode }];
    onSetting({ ...setting, faults });
  };
  const takeOut = () => {
    const others = setting.done.filter((one) => !('part' in one) || one.part !== part.id);
    onSetting({ ...setting, done: isOut ? others : [...others, { kind: pulls, part: part.id }] });
  };
  const amps = (state?.branches ?? []).filter((one) => one.part === part.id && Math.abs(one.amps) >= 0.0005);
  const removable = !['wire', 'splice', 'ground', 'battery'].includes(part.kind) && !part.fixed;
  return (
    <section aria-labelledby="part-title" data-testid="part-panel">
      <h3 id="part-title" className="border-b-2 border-line pb-1 text-lg">
        {part.name}
      </h3>
      <table className="mt-1 w-full">
        <tbody>
          {Object.entries(part.pins).map(([pin, node]) => (
            <tr key={pin} className="border-b border-line">
              <th scope="row" className="pr-3 text-left font-semibold">
                {pin}
              </th>
              <td className="pr-3 text-sm text-soft">{nodeName(node)}</td>
              <td className="reading text-right font-bold">{voltsText(volts.get(node))}</td>
            </tr>
          ))}
          {amps.map((one) => (
            <tr key={one.branch} className="border-b border-line">
              <th scope="row" className="pr-3 text-left font-semibold">
                current
              </th>
              <td className="pr-3 text-sm text-soft">{one.branch}</td>
              <td className="reading text-right font-bold">{ampsText(Math.abs(one.amps))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 grid gap-2">
        {removable ? (
          <Pressed pressed={isOut} onPressed={takeOut}>
            {isOut ? 'Put it back' : part.kind === 'connector' ? 'Unplug it' : 'Pull it out'}
          </Pressed>
        ) : null}
        <label className="block">
          <span className="block text-sm font-semibold">Suppose it is broken</span>
          <Select
            value={fault?.mode ?? ''}
            onChange={(event) => setFault(event.target.value as FaultMode | '')}
          >
            <option value="">as it should be</option>
            {faultModes(part)
              .filter((mode) => mode !== 'wrong-rating')
              .map((mode) => (
                <option key={mode} value={mode}>
                  {faultWords(part, { part: part.id, mode })}
                </option>
              ))}
          </Select>
        </label>
      </div>
    </section>
  );
}

/** The condition that the dials amount to. */
export function dialled(circuit: CircuitFile, at: DialPositions): LiveSetting['condition'] {
  return conditionOf(dialsOf(circuit), at);
}
