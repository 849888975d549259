'use client';

import { Info } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import { Check, Setting } from '@/ui/Check';
import { Choice, Several } from '@/ui/Choice';
import { Button, Caution, Field, INPUT, Problem } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { Fold } from '@/ui/Fold';
import { Hint } from '@/ui/Hint';
import { Menu } from '@/ui/Menu';
import { Popup } from '@/ui/Popup';
import { Pressed } from '@/ui/Pressed';
import { ScrollPane } from '@/ui/ScrollPane';
import { Select } from '@/ui/Select';
import { SetSign } from '@/ui/SetSign';
import { Slide } from '@/ui/Slide';
import { TabBar, TabPane, Tabs } from '@/ui/Tabs';
import { Toasts, useSay } from '@/ui/Toast';
import { WireStripe } from '@/ui/WireStripe';

const KEYS = ['off', 'accessory', 'run'].map((id) => ({ id, name: id }));
const TESTERS = ['Meter', 'Lamp', 'Clamp'].map((id) => ({ id, name: id }));
const VIEWS = [
  { id: 'first', name: 'First' },
  { id: 'second', name: 'Second' },
] as const;
const COLOURS = ['RD', 'BK/YE', 'GN/RD', 'BN', 'WH/BU', '?'];

function Shown({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="border-t-2 border-line py-3">
      <h2 className="mb-2 text-lg">{name}</h2>
      <div className="flex flex-wrap items-center gap-3">{children}</div>
    </section>
  );
}

export function Gallery() {
  return (
    <Toasts>
      <Controls />
    </Toasts>
  );
}

function Controls() {
  const [key, setKey] = useState('run');
  const [testers, setTesters] = useState<readonly string[]>(['Meter']);
  const [on, setOn] = useState(true);
  const [tilt, setTilt] = useState(10);
  const [view, setView] = useState<'first' | 'second'>('first');
  const [open, setOpen] = useState(false);
  const [mirrored, setMirrored] = useState(false);
  const [popped, setPopped] = useState(false);
  const seen = useRef<HTMLButtonElement>(null);
  const say = useSay();
  return (
    <div className="mt-4">
      <Shown name="Buttons">
        <Button look="primary">Record</Button>
        <Button>Another test</Button>
        <Button look="quiet">Why</Button>
        <Button disabled>Not now</Button>
        <Pressed pressed={mirrored} onPressed={setMirrored}>
          Seen from behind
        </Pressed>
      </Shown>
      <Shown name="One of several">
        <Choice legend="Key" options={KEYS} chosen={key} onChoose={setKey} />
      </Shown>
      <Shown name="Any of several">
        <Several legend="At hand" options={TESTERS} chosen={testers} onChoose={setTesters} />
      </Shown>
      <Shown name="One by name">
        <div className="w-64">
          <Field label="Key position">
            <Select value={key} onChange={(event) => setKey(event.target.value)}>
              {KEYS.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Select>
          </Field>
        </div>
      </Shown>
      <Shown name="So or not">
        <Check checked={on} onChange={setOn}>
          Seen so
        </Check>
        <div className="w-72">
          <Setting on={on} onChange={setOn}>
            Answers for the left hand
          </Setting>
        </div>
      </Shown>
      <Shown name="A quantity">
        <div className="w-72">
          <Slide
            label="Held askew"
            value={tilt}
            min={-45}
            max={45}
            step={1}
            shown={`${tilt}°`}
            onChange={setTilt}
          />
        </div>
        <Field label="Volts" hint="12.4, 12,4, 240 mV, OL">
          <input className={INPUT} inputMode="decimal" />
        </Field>
      </Shown>
      <Shown name="Views">
        <div className="w-full">
          <Tabs chosen={view} onChoose={setView}>
            <TabBar label="Views" tabs={VIEWS} />
            <TabPane id="first">The first view.</TabPane>
            <TabPane id="second">The second view.</TabPane>
          </Tabs>
        </div>
      </Shown>
      <Shown name="Behind one line">
        <Fold title="What is in it">Fitted, 15 A, blue.</Fold>
      </Shown>
      <Shown name="Over the work">
        <Button onClick={() => setOpen(true)}>Open a sheet</Button>
        <Dialog title="A sheet" says="Slid up from the thumb." open={open} onClose={() => setOpen(false)}>
          <p>It closes by its button, by Escape, or by a tap beside it.</p>
        </Dialog>
        <Menu
          name="More"
          items={[
            { name: 'Seen from behind', on: mirrored, onChoose: () => setMirrored(!mirrored) },
            { name: 'Export', onChoose: () => say('Exported') },
          ]}
        />
        <Button ref={seen} aria-expanded={popped} onClick={() => setPopped(!popped)}>
          What was seen
        </Button>
        {popped ? (
          <Popup at={seen} label="What was seen" onClose={() => setPopped(false)}>
            Works, weak, or dead.
          </Popup>
        ) : null}
        <Hint says="Volts beyond the usual that are lost between two stops">
          <Button aria-label="What a loss is" look="quiet">
            <Info aria-hidden="true" className="size-5" />
          </Button>
        </Hint>
        <Button onClick={() => say('12.4 V recorded', () => say('Taken back'))}>Say something</Button>
      </Shown>
      <Shown name="A long list">
        <ScrollPane className="h-32 w-full">
          <ul>
            {Array.from({ length: 20 }, (_, index) => `Switch ${index + 1}`).map((name) => (
              <li key={name} className="border-b border-line py-2">
                {name}
              </li>
            ))}
          </ul>
        </ScrollPane>
      </Shown>
      <Shown name="Signs">
        <ul className="flex flex-wrap gap-2">
          <SetSign setting={{ sign: 'key', words: 'Key: run' }} anew />
          <SetSign setting={{ sign: 'switch', words: 'Fan switch: on' }} anew={false} />
          <SetSign setting={{ sign: 'plug', words: 'Plugged in: nothing' }} anew={false} />
          <SetSign setting={{ sign: 'engine', words: 'Engine running' }} anew />
        </ul>
        {COLOURS.map((colour) => (
          <span key={colour} className="reading flex items-center gap-1">
            <WireStripe colour={colour} /> {colour}
          </span>
        ))}
      </Shown>
      <Shown name="What is said">
        <div className="grid w-full gap-2">
          <Caution>Immobilised, neutral, hands clear of fans.</Caution>
          <Problem>Over limit is no voltage.</Problem>
        </div>
      </Shown>
    </div>
  );
}
