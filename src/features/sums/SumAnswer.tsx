'use client';

import { memo, useDeferredValue } from 'react';
import type { Answer, Curve, SumResult } from '#core/sizing';
import { Caution } from '@/ui/controls';
import { useLater } from '@/ui/useLater';

const loadCurve = () => import('./SumCurve').then((loaded) => loaded.SumCurve);

const STANDS = { good: ['✓', 'text-good'], watch: ['~', 'text-caution'], bad: ['✗', 'text-bad'] } as const;

function Stands({ answer }: { answer: Answer }) {
  if (!answer.stands) return null;
  const [sign, look] = STANDS[answer.stands];
  return (
    <span aria-hidden="true" className={`mr-1 ${look}`}>
      {sign}
    </span>
  );
}

/** What a sum gives: the figure first, then how it came about, what it rests on and what it leaves out. */
export function SumAnswer({ result }: { result: SumResult }) {
  // The figure answers at once; what is drawn and what explains it follow a moment later.
  const later = useDeferredValue(result);
  const main = result.answers.find((one) => one.main)!;
  return (
    <div data-testid="sum-result">
      <p className="text-soft">{main.name}</p>
      <p className="reading text-3xl leading-tight font-bold lg:text-4xl" data-testid="sum-main">
        <Stands answer={main} />
        {main.words}
      </p>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {result.answers
          .filter((one) => one !== main)
          .map((one) => (
            <div key={one.id} className="contents">
              <dt className="text-soft">{one.name}</dt>
              <dd className="reading">
                <Stands answer={one} />
                {one.words}
              </dd>
            </div>
          ))}
      </dl>
      {result.governs ? (
        <p className="mt-3 border-l-4 border-copper pl-3 font-semibold" data-testid="sum-governs">
          {result.governs}
        </p>
      ) : null}
      {result.cautions.map((words) => (
        <div key={words} className="mt-2">
          <Caution>{words}</Caution>
        </div>
      ))}
      <Drawn curve={later.curve} />
      <Working result={later} />
    </div>
  );
}

/** A curve; its room is there before the program that draws it. */
const Drawn = memo(function Drawn({ curve }: { curve: Curve | null }) {
  const SumCurve = useLater(loadCurve, curve !== null);
  if (!curve) return null;
  return (
    <figure className="mt-4">
      <figcaption className="text-sm text-soft">{curve.title}</figcaption>
      <div role="img" aria-label={curve.title} className="mt-1 h-56">
        {SumCurve ? <SumCurve curve={curve} /> : null}
      </div>
    </figure>
  );
});

const Working = memo(function Working({ result }: { result: SumResult }) {
  return (
    <>
      <h3 className="mt-4 border-b-2 border-line pb-1 font-bold">How it comes about</h3>
      <ul className="mt-1">
        {result.steps.map((step) => (
          <li key={`${step.name} ${step.formula}`} className="border-b border-line py-1.5">
            <span className="font-semibold">{step.name}: </span>
            <span className="reading text-[0.95rem]">{step.formula}</span>
            {step.source ? <span className="block text-sm text-soft">{step.source}</span> : null}
          </li>
        ))}
      </ul>
      <Notes title="It rests on" lines={result.assumes} />
      <Notes title="It leaves out" lines={result.leavesOut} />
    </>
  );
});

function Notes({ title, lines }: { title: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <p className="mt-2 text-[0.95rem]">
      <span className="font-semibold">{title}:</span> {lines.join(' ')}
    </p>
  );
}
