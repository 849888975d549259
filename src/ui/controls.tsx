import type { ComponentProps, ReactNode } from 'react';
import { PlaceLink } from './PlaceLink';

const SHAPE =
  'inline-flex min-h-11 items-center justify-center gap-2 rounded-md px-4 font-semibold leading-tight disabled:opacity-50 disabled:cursor-not-allowed';
const LOOKS = {
  primary: 'bg-copper text-on-copper hover:brightness-110',
  plain: 'border-2 border-line bg-sheet text-ink hover:border-ink',
  quiet: 'text-ink underline decoration-line decoration-2 underline-offset-4 hover:decoration-copper',
} as const;

export type Look = keyof typeof LOOKS;

export function buttonClass(look: Look = 'plain', extra = ''): string {
  return `${SHAPE} ${LOOKS[look]} ${extra}`;
}

export function Button({
  look = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ComponentProps<'button'> & { look?: Look }) {
  return <button type={type} className={buttonClass(look, className)} {...rest} />;
}

export function ButtonLink({
  look = 'plain',
  className = '',
  ...rest
}: ComponentProps<typeof PlaceLink> & { look?: Look }) {
  return <PlaceLink className={buttonClass(look, className)} {...rest} />;
}

export function Field({ label, hint, children }: { label: string; hint?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is the child
    <label className="block">
      <span className="mb-1 block font-semibold">{label}</span>
      {children}
      {hint ? <span className="mt-1 block text-sm text-soft">{hint}</span> : null}
    </label>
  );
}

export const INPUT =
  'block w-full min-h-11 rounded-md border-2 border-line bg-sheet px-3 py-2 text-ink placeholder:text-soft focus:border-copper';

export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex gap-2 border-l-4 border-caution bg-caution-wash px-3 py-2 text-[0.95rem] text-ink">
      <span aria-hidden="true" className="font-bold text-caution">
        ▲
      </span>
      <span>
        <span className="sr-only">Caution: </span>
        {children}
      </span>
    </p>
  );
}

export function Problem({ children }: { children: ReactNode }) {
  return (
    <p role="alert" className="border-l-4 border-bad bg-sheet px-3 py-2 font-semibold text-bad">
      {children}
    </p>
  );
}

export function Section({
  id,
  number,
  title,
  done,
  children,
}: {
  id: string;
  number: number;
  title: string;
  done: boolean;
  children: ReactNode;
}) {
  return (
    <section id={id} aria-labelledby={`${id}-title`} className="scroll-mt-32 border-t-2 border-line py-6">
      <h2 id={`${id}-title`} className="mb-4 flex items-baseline gap-3 text-xl">
        <span className="reading text-copper">{number}</span>
        {title}
        {done ? <span className="text-base font-normal text-good">✓ done</span> : null}
      </h2>
      {children}
    </section>
  );
}
