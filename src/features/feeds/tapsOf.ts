/** Families of taps that a stock has, by the words of its items. */
import { FUSE_FAMILIES, type Slot } from '#core/format';
import type { HeldJob } from '@/log/heldJob';

const plain = (words: string) => words.toLowerCase().replace(/-/g, ' ');

export function tapsOf(stock: Pick<NonNullable<HeldJob['stock']>, 'levels'> | undefined): Slot['family'][] {
  const names = (stock?.levels ?? [])
    .filter(({ item, total }) => item.sort === 'tap' && total > 0)
    .map(({ item }) => plain(item.name));
  // “Low-profile mini” holds “mini”: the longest family that a name holds counts.
  const longest = [...FUSE_FAMILIES].sort((one, other) => other.length - one.length);
  return FUSE_FAMILIES.filter((family) =>
    names.some((name) => longest.find((one) => name.includes(plain(one))) === family),
  );
}
