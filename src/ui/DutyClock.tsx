'use client';

import { useEffect, useState } from 'react';
import { Button } from './controls';

const TICK_MS = 200;

const BEEP_HERTZ = 880;
const BEEP_SECONDS = 0.25;

/** A tone through the speaker, where the browser lets one through. */
function beep(): void {
  try {
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    tone.frequency.value = BEEP_HERTZ;
    tone.connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + BEEP_SECONDS);
    tone.onended = () => void audio.close();
  } catch {
    // No sound here: the words and the colour say it.
  }
}

/**
 * A clock from “on”: how long what is made for seconds may still stay on, and that it has to go off now; `loud`, it sounds until
 * somebody says that it is off.
 */
export function DutyClock({ seconds, loud = false }: { seconds: number; loud?: boolean }) {
  const [since, setSince] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === null) return;
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [since]);
  const left = since === null ? seconds : Math.max(0, Math.ceil(seconds - (now - since) / 1000));
  const over = since !== null && left === 0;
  useEffect(() => {
    if (!over || !loud) return;
    beep();
    navigator.vibrate?.(400);
    const again = setInterval(beep, 600);
    return () => clearInterval(again);
  }, [over, loud]);
  return (
    <div
      className={`mb-3 flex items-center justify-between gap-3 rounded-md border-2 px-3 py-2 ${over ? 'border-bad bg-caution-wash' : 'border-ink'}`}
      data-testid="duty-clock"
    >
      <p role="status" className={over ? 'text-xl font-bold text-bad' : 'text-lg'}>
        {since === null ? `At most ${seconds} s on` : over ? '▲ Off now' : `${left} s left`}
      </p>
      <Button
        onClick={() => {
          const at = Date.now();
          setNow(at);
          setSince(since === null ? at : null);
        }}
      >
        {since === null ? 'It is on' : 'It is off'}
      </Button>
    </div>
  );
}
