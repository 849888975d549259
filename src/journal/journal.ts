/**
 * What the server writes down about itself: one JSON line each, on standard error. What people typed is left out: of an
 * error of the database its code and its sentence are kept, never the values of the query.
 */
import { pino } from 'pino';

interface Told {
  readonly type: string;
  readonly code?: string;
  readonly message: string;
  readonly stack?: string;
}

/** An error without the values that it was about. */
export function told(error: unknown): Told {
  if (!(error instanceof Error)) return { type: typeof error, message: String(error).slice(0, 200) };
  // A failed query carries its text and its values; what the database said stands behind it.
  const { cause } = error as { cause?: unknown };
  const real = /^Failed query/.test(error.message) && cause instanceof Error ? cause : error;
  const { code } = real as { code?: unknown };
  const frames = real.stack?.split('\n').filter((line) => /^\s+at /.test(line));
  return {
    type: real.name,
    ...(typeof code === 'string' ? { code } : {}),
    message: real.message.split('\n')[0] ?? '',
    ...(frames ? { stack: frames.join('\n') } : {}),
  };
}

export const journal = pino(
  {
    name: 'every-trace',
    level: process.env.EVERY_TRACE_LOG ?? 'info',
    serializers: { err: told },
  },
  pino.destination({ dest: 2, sync: true }),
);
