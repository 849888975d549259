export const dynamic = 'force-dynamic';

export function GET() {
  return Response.json({ name: 'every-trace', build: process.env.EVERY_TRACE_BUILD ?? null });
}
