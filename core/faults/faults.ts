/**
 * What can be wrong with each kind of part, and what that does to its branches. Magnitudes of resistance
 * are chosen from the part's own current, so that each fault changes something a person would notice.
 */
import type { Network } from '../circuit/network';
import type { CircuitPart } from '../format/circuitSchema';
import type { Alteration, BranchChange, Bridge } from '../network/solve';

export type FaultMode =
  | 'open'
  | 'high-resistance'
  | 'short-to-earth'
  | 'coil-open'
  | 'contact-open'
  | 'contact-stuck'
  | 'contact-resistance'
  | 'weak';

export interface Fault {
  readonly part: string;
  readonly mode: FaultMode;
  /** Ohms put in series (or to earth, for a short). */
  readonly ohms?: number;
  /** Which branch of the part, where it has several. */
  readonly branch?: string;
}

/** Ohms of a chafed wire on bare metal: low enough to open any fuse of a 12 V circuit. */
export const SHORT_OHMS = 0.02;
/** A weak battery: this share of its emf, and this many times its inner resistance. */
export const WEAK_EMF = 0.8;
export const WEAK_INNER_FACTOR = 15;

/** Every fault a part can have, magnitudes aside. */
export function faultModes(part: CircuitPart): readonly FaultMode[] {
  switch (part.kind) {
    case 'battery':
      return ['weak'];
    case 'fuse':
    case 'fusible-link':
      return ['open'];
    case 'wire':
      return ['open', 'high-resistance', 'short-to-earth'];
    case 'connector':
    case 'splice':
    case 'ground':
      return ['open', 'high-resistance'];
    case 'switch':
    case 'key-contact':
      return ['contact-open', 'contact-stuck', 'contact-resistance'];
    case 'relay':
      return ['coil-open', 'contact-open', 'contact-stuck', 'contact-resistance'];
    case 'lamp':
    case 'motor':
    case 'heater':
    case 'module':
      return ['open', 'short-to-earth'];
    case 'diode':
      return ['open'];
  }
}

/** Plain name of a fault, to follow the part's name. */
export function faultWords(part: CircuitPart | undefined, fault: Fault): string {
  switch (fault.mode) {
    case 'open':
      if (part?.kind === 'fuse') return 'blown';
      if (part?.kind === 'fusible-link') return 'melted';
      return 'open';
    case 'high-resistance':
      return `high resistance (about ${formatOhms(fault.ohms ?? 0)})`;
    case 'short-to-earth':
      return 'shorted to earth';
    case 'coil-open':
      return 'coil open';
    case 'contact-open':
      return part?.kind === 'relay' ? 'contact does not close' : 'does not close';
    case 'contact-stuck':
      return 'stuck closed';
    case 'contact-resistance':
      return `worn contact (about ${formatOhms(fault.ohms ?? 0)})`;
    case 'weak':
      return 'weak or flat';
  }
}

function formatOhms(ohms: number): string {
  return ohms < 1 ? `${Math.round(ohms * 1000)} mΩ` : `${ohms.toPrecision(2).replace(/\.0$/, '')} Ω`;
}

/** The branches that a fault acts on. Throws when the part does not exist or cannot have the fault. */
export function faultBranches(network: Network, fault: Fault): readonly number[] {
  const part = network.parts.get(fault.part);
  if (!part) throw new Error(`There is no part ${fault.part} in this circuit.`);
  if (!faultModes(part).includes(fault.mode)) {
    throw new Error(`A ${part.kind} cannot be ${fault.mode}; it can be ${faultModes(part).join(', ')}.`);
  }
  const branches = network.branchesOfPart.get(fault.part) ?? [];
  const wanted = branches.filter((index) => {
    const branch = network.branches[index]!;
    if (fault.mode === 'coil-open') return branch.role === 'coil';
    if (fault.mode.startsWith('contact')) {
      return branch.role === 'contact' && (!fault.branch || branch.label === fault.branch);
    }
    return !fault.branch || branch.label === fault.branch;
  });
  if (wanted.length === 0) throw new Error(`${fault.part} has no branch ${fault.branch}.`);
  return wanted;
}

/** A fault as a change of the network. */
export function faultAlteration(network: Network, fault: Fault): Alteration {
  const changes: BranchChange[] = [];
  const bridges: Bridge[] = [];
  for (const index of faultBranches(network, fault)) {
    const branch = network.branches[index]!;
    switch (fault.mode) {
      case 'open':
      case 'coil-open':
      case 'contact-open':
        changes.push({ branch: index, held: 'open' });
        break;
      case 'high-resistance':
      case 'contact-resistance':
        changes.push({ branch: index, ohms: branch.ohms + (fault.ohms ?? 1) });
        break;
      case 'contact-stuck':
        changes.push({ branch: index, held: 'closed' });
        break;
      case 'short-to-earth':
        // The far end of a wire, the feed end of a load: where chafing bares the conductor.
        bridges.push({
          a: branch.role === 'load' ? branch.a : branch.b,
          b: network.datum,
          ohms: fault.ohms ?? SHORT_OHMS,
        });
        break;
      case 'weak':
        changes.push({
          branch: index,
          ohms: branch.ohms * WEAK_INNER_FACTOR,
          emfVolts: branch.emfVolts * WEAK_EMF,
        });
        break;
    }
  }
  return { changes, bridges };
}

/** Reads `PART:MODE[:VALUE]` of the command line; the value is in ohms. */
export function parseFault(text: string): Fault | { error: string } {
  const [part, mode, value, ...rest] = text.split(':');
  const modes: readonly FaultMode[] = [
    'open',
    'high-resistance',
    'short-to-earth',
    'coil-open',
    'contact-open',
    'contact-stuck',
    'contact-resistance',
    'weak',
  ];
  if (!part || !mode || rest.length > 0)
    return { error: `Write a fault as PART:MODE or PART:MODE:OHMS, not "${text}".` };
  const known = modes.find((one) => one === mode);
  if (!known) return { error: `"${mode}" is not a fault. Use one of ${modes.join(', ')}.` };
  if (value === undefined) return { part, mode: known };
  const ohms = Number(value);
  if (!(ohms > 0) || !Number.isFinite(ohms))
    return { error: `"${value}" is not a resistance in ohms above 0.` };
  return { part, mode: known, ohms };
}
