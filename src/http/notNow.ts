/** Work that is refused for the moment, with words for a person and the seconds after which it may be asked again. */
export class NotNow extends Error {
  constructor(
    readonly words: string,
    readonly seconds: number,
  ) {
    super(words);
    this.name = 'NotNow';
  }
}
