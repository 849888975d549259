/**
 * What a page answers; POST is a form that was sent before its page’s program ran. What no route answers either is refused
 * before (`methods.ts`).
 */
const OF_PAGES = new Set(['GET', 'HEAD', 'POST']);

export const ALLOWED_OF_PAGES = [...OF_PAGES].join(', ');

export const isMethodOfPages = (method: string) => OF_PAGES.has(method);
