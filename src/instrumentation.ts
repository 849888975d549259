import type { Instrumentation } from 'next';

/** A page or route that failed, written down with where and as what. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { journal } = await import('./journal/journal');
  const { method, path } = request;
  journal.error({ err: error, method, path: path.split('?')[0], route: context.routePath }, 'a page failed');
};
