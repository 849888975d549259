/** A moment of the database as entries write it. */
export const iso = (instant: string) => new Date(instant).toISOString();
