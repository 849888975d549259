/** Header in which `proxy.ts` says which page was asked for, so that whoever signs in gets there. */
export const ASKED_HEADER = 'x-every-trace-asked';

/** A place of this application to go on to after signing in; Today for anything else. */
export function placeAfter(to: string | null | undefined): string {
  return to && /^\/(?![/\\])[^\\]*$/.test(to) && !to.startsWith('/api') ? to : '/';
}
