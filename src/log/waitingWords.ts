/** What is said of entries that wait for somebody to sign in. */

/** `name`: whose they are, where that is known. */
export function heldWords(count: number, name: string | null): string {
  const entries = count === 1 ? '1 entry is' : `${count} entries are`;
  return name === null
    ? `Nobody is signed in. ${entries} kept here, sent when somebody is`
    : `${entries} kept here, sent when ${name} signs in`;
}
