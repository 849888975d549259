/** Names in a sentence: "a, b and c"; beyond the limit the rest is counted. */
export function joinWords(words: readonly string[], limit = 4): string {
  const shown = words.slice(0, limit);
  const more = words.length - shown.length;
  if (more > 0) return `${shown.join(', ')} and ${more} more`;
  return shown.length < 2
    ? shown.join('')
    : `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1]}`;
}
