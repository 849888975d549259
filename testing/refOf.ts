import type { TestRef } from '../core/format/readingsSchema';

/** The test that an id names; the reverse of `testId`. */
export function refOf(id: string): TestRef {
  const [kind, first = '', second = '', third = ''] = id.split('|');
  switch (kind) {
    case 'volts':
      return { kind, node: first, against: second, condition: third };
    case 'lamp':
      return { kind, node: first, condition: second };
    case 'function':
      return { kind, function: first, condition: second };
    case 'continuity':
      return { kind, part: first, from: second, to: third };
    case 'lamp-in-fuse':
      return { kind, part: first, condition: second, ...(third ? { unplugged: third } : {}) };
    case 'click':
    case 'clamp':
      return { kind, part: first, condition: second };
    case 'look':
      return { kind, part: first };
    case 'bridge':
    case 'substitute':
      return { kind, part: first, function: second, condition: third };
    default:
      throw new Error(`No test has the id ${id}.`);
  }
}
