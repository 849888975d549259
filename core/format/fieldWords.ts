/** Fields of files in the words of the trade, for sentences about them. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  ratingAmps: 'rating',
  secondRatingAmps: 'second rating',
  wireLimitAmps: 'limit of its wire',
  functions: 'what it serves',
  synonyms: 'also called',
  applies: 'applies to',
  minutesToOpen: 'minutes to open',
  isolateFirst: 'to be isolated first',
  stateEvidence: 'how its state is known',
  sizeMm2: 'size',
  lengthMetres: 'length',
  endA: 'end a',
  endB: 'end b',
  x: 'place from the left',
  y: 'place from the top',
};

/** "rating" of `ratingAmps`; a field without words of its own is spelled out. */
export function fieldWords(field: string): string {
  return FIELD_WORDS[field] ?? field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}
