'use client';

import type { Answer, SumResult } from '#core/sizing';
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
  const Curve = useLater(loadCurve, result.curve !== null);
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
      {result.curve && Curve ? <Curve curve={result.curve} /> : null}
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
    </div>
  );
}

function Notes({ title, lines }: { title: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <p className="mt-2 text-[0.95rem]">
      <span className="font-semibold">{title}:</span> {lines.join(' ')}
    </p>
  );
}
