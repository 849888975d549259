/** All worked out before the first card; the first card early; everything from what is kept. */
export const WAYS = ['everything', 'cold', 'kept'] as const;
export type Way = (typeof WAYS)[number];
