/** Every difference between a base and the present state, as ports of the base: elements, bridges, ties of islands. */
import type { Alteration } from './alteration';
import type { BentJunctions } from './bend';
import type { Elements } from './elements';
import type { Factorization } from './factorization';
import type { Ports } from './ports';
import { type ShapeFinder, TIE_SIEMENS } from './shape';

/** Sets of opened and joined elements whose islands a base remembers. */
const SHAPE_LIMIT = 1000;

export class Differences {
  /** Islands are those of the base. */
  sameShape = false;
  /** A junction is cut off. */
  anyCut = false;

  constructor(
    private readonly elements: Elements,
    private readonly ports: Ports,
    private readonly bent: BentJunctions,
    private readonly shapes: ShapeFinder,
    private readonly datum: number,
  ) {}

  /** Fills the ports, marks the junctions that are cut off, and leaves the islands in the shape finder. */
  gather(base: Factorization, alteration: Alteration): void {
    const { ports, elements } = this;
    const { a, b, moved, closed, alteredCount } = elements;
    ports.clear();
    let opened = -1;
    let openings = 0;
    let joins = false;
    for (let i = 0; i < alteredCount + closed.length; i++) {
      let e: number;
      let siemens: number;
      let emf: number;
      if (i < alteredCount) {
        e = elements.alteredBranch[i]!;
        siemens = elements.alteredSiemens(i);
        emf = elements.alteredVolts(i);
      } else {
        const m = i - alteredCount;
        if (closed[m] === base.closed[m]) continue;
        e = moved[m]!;
        if (elements.isAltered(e)) continue;
        siemens = closed[m] === 1 ? elements.closedSiemens[e]! : 0;
        emf = elements.emf[e]!;
      }
      const delta = siemens - base.siemens[e]!;
      const inject = siemens * emf - base.injected[e]!;
      if (delta === 0 && inject === 0) continue;
      if (siemens === 0) {
        opened = e;
        openings++;
      } else if (base.siemens[e] === 0) joins = true;
      ports.add(a[e]!, b[e]!, delta, inject, e, base.column(e));
    }
    const { bridges } = alteration;
    for (let k = 0; k < bridges.length; k++) {
      const bridge = bridges[k]!;
      const siemens = elements.bridgeSiemens(bridge);
      if (siemens === 0) continue;
      if (base.roots[bridge.a] !== base.roots[bridge.b] || openings > 0) joins = true;
      const inject = siemens * (bridge.emfVolts ?? 0);
      ports.add(bridge.a, bridge.b, siemens, inject, -1, base.bridgeColumn(bridge.a, bridge.b));
    }
    if (this.anyCut) this.bent.cut.fill(0);
    this.anyCut = false;
    const opening = openings === 0 ? 'nothing' : openings === 1 ? base.opening(opened) : 'look';
    this.sameShape = !joins && opening === 'nothing';
    if (joins || opening === 'look') this.takeShape(base);
    else if (opening === 'cuts') this.addTie(base, this.shapes.cut(base, opened), TIE_SIEMENS);
    else this.shapes.take(base);
  }

  private addTie(base: Factorization, node: number, siemens: number): void {
    this.ports.add(node, this.datum, siemens, 0, -1, base.tieColumn(node, this.datum));
  }

  /** What the ports open and join, in their order. */
  private shapeKey(base: Factorization): string {
    const { ports, elements } = this;
    let key = '';
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      if (e < 0) key += `+${ports.a[p]}/${ports.b[p]}`;
      else if (elements.siemens(e) === 0) key += `-${e}`;
      else if (base.siemens[e] === 0) key += `+${e}`;
    }
    return key;
  }

  /** Ports that cut off junctions and move the ties, where elements were opened or joined. */
  private takeShape(base: Factorization): void {
    const key = this.shapeKey(base);
    let shape = base.shapes.get(key);
    if (!shape) {
      shape = this.shapes.ofPorts(base, this.ports);
      if (base.shapes.size >= SHAPE_LIMIT) base.shapes.clear();
      base.shapes.set(key, shape);
    }
    const { a, b, branchCount } = this.elements;
    this.shapes.take(shape);
    for (const j of shape.cut) {
      const e = branchCount + j;
      this.bent.cut[j] = 1;
      this.anyCut = true;
      this.ports.add(a[e]!, b[e]!, TIE_SIEMENS - base.siemens[e]!, -base.injected[e]!, e, base.column(e));
    }
    for (const node of shape.untied) this.addTie(base, node, -TIE_SIEMENS);
    for (const node of shape.tied) this.addTie(base, node, TIE_SIEMENS);
  }
}
