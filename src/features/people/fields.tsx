/** The fields of every form by which somebody comes in, or changes how. */
import type { ComponentProps } from 'react';
import { Field, INPUT } from '@/ui/controls';

type Bound = ComponentProps<'input'>;

/** An e-mail address or a name; browsers fill it in by its kind. */
export function SignInName({ label, ...bound }: Bound & { label: string }) {
  return (
    <Field label={label}>
      <input {...bound} className={INPUT} autoComplete="username" autoCapitalize="none" spellCheck={false} />
    </Field>
  );
}

/** The name that somebody who is new here will sign in by. */
export function NewSignInName(bound: Bound) {
  return <SignInName label="To sign in: an e-mail address or a name" {...bound} />;
}

/** The password that somebody has. */
export function Password({ label = 'Password', ...bound }: Bound & { label?: string }) {
  return (
    <Field label={label}>
      <input {...bound} type="password" className={INPUT} autoComplete="current-password" />
    </Field>
  );
}

/** A password that is chosen, with the least number of characters that the server takes. */
export function NewPassword({
  least,
  label = 'Password',
  ...bound
}: Bound & { least: number; label?: string }) {
  return (
    <Field label={`${label}, at least ${least} characters`}>
      <input {...bound} type="password" className={INPUT} autoComplete="new-password" />
    </Field>
  );
}

/** A short code of digits. */
export function ShortCode({ label, className = '', ...bound }: Bound & { label: string }) {
  return (
    <Field label={label}>
      <input
        {...bound}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        className={`${INPUT} reading ${className}`}
      />
    </Field>
  );
}
