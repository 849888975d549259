/** Position by dial: part id, `key`, `engine`. */
export type At = Readonly<Record<string, string>>;
