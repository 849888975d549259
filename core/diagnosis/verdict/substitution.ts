/**
 * Substitution as a table of part by vehicle: the suspect part and a known good one, here and where such a part
 * works. Says what the cells entered so far allow to claim, which is never more than they do, and which cell is
 * worth entering next.
 */
import type { BodyOf, Reading, TestRef } from '../../format';

export type Cell = BodyOf<'unit-tried'>['cell'];
type CellState = BodyOf<'unit-tried'>['state'];

export interface SubstitutionTable {
  readonly part: string;
  readonly cells: Readonly<Partial<Record<Cell, CellState>>>;
  /** Where the fault stays on the vehicle side: the parts there, none of which is proved by this. */
  readonly unproved: readonly string[];
  /** Nothing more than the cells allow. */
  readonly claim: 'part' | 'vehicle side' | 'both' | 'contradiction' | null;
  readonly sentence: string;
  /** The cell still worth entering; null when all are, or when none would tell more. */
  readonly missing: Cell | null;
  /** The test that fills the missing cell. */
  readonly missingTest: TestRef | null;
}

export const CELL_WORDS: Readonly<Record<Cell, string>> = {
  'own-here': 'this part here',
  'good-here': 'a known good part here',
  'own-there': 'this part where such a part works',
  'good-there': 'the known good part where such a part works',
};

/** What is worth asking first: the known good part here, then this part there, then whether the measure is sound. */
const ORDER: readonly Cell[] = ['own-here', 'good-here', 'own-there', 'good-there'];

function cellOf(test: TestRef, part: string, complaint: Complaint): Cell | null {
  if (test.kind === 'substitute' && test.part === part) return 'good-here';
  if (test.kind === 'elsewhere' && test.part === part)
    return test.fitted === 'own' ? 'own-there' : 'good-there';
  const asksComplaint =
    test.kind === 'function' &&
    test.function === complaint.function &&
    test.condition === complaint.condition;
  return asksComplaint ? 'own-here' : null;
}

interface Complaint {
  readonly function: string;
  readonly condition: string;
}

/** What the cells allow to claim. */
export function substitutionClaim(cells: SubstitutionTable['cells']): {
  claim: SubstitutionTable['claim'];
  sentence: string;
} {
  const here = cells['good-here'];
  const there = cells['own-there'];
  const measure = cells['good-there'];
  if (measure === 'fails') {
    return {
      claim: null,
      sentence:
        'The known good part fails where such a part works: neither it nor that place is a measure for anything.',
    };
  }
  if (here === 'works' && there === 'works') {
    return {
      claim: 'contradiction',
      sentence:
        'A known good part makes it work here, and this part works there: taking it out may have cured it. Put it back and look again.',
    };
  }
  if (here === 'works') {
    return {
      claim: 'part',
      sentence:
        there === 'fails'
          ? 'The fault goes with the part.'
          : 'The part is under suspicion: a known good one works here. Reseating alone may have cured it.',
    };
  }
  if (here === 'fails' && there === 'works') {
    return { claim: 'vehicle side', sentence: 'The fault stays with the vehicle side. More is not shown.' };
  }
  if (here === 'fails' && there === 'fails') {
    return {
      claim: 'both',
      sentence:
        'The part fails there too, and a good one fails here: part and vehicle side, or a bad measure.',
    };
  }
  if (here === 'fails') {
    return {
      claim: 'vehicle side',
      sentence:
        'A known good part changes nothing here: vehicle side, if that part is good. More is not shown.',
    };
  }
  if (there === 'works') {
    return { claim: 'vehicle side', sentence: 'This part works there: vehicle side. More is not shown.' };
  }
  if (there === 'fails') {
    return { claim: 'part', sentence: 'This part fails there too: the part, if that place is sound.' };
  }
  return { claim: null, sentence: 'Nothing has been substituted yet.' };
}

/** What the cells of one part or whole unit say, and which is still worth entering; no circuit is needed for it. */
export function substitutionOf(
  cells: SubstitutionTable['cells'],
): Pick<SubstitutionTable, 'cells' | 'claim' | 'sentence' | 'missing'> {
  const { claim, sentence } = substitutionClaim(cells);
  const missing = ORDER.find((cell) => cells[cell] === undefined) ?? null;
  const asks = missing === null ? '' : ` Still worth entering: ${CELL_WORDS[missing]}.`;
  return { cells, claim, sentence: sentence + asks, missing };
}

/** The tables of every part that something was substituted for, the latest entry of a cell counting. */
export function substitutionTables(
  readings: readonly Reading[],
  complaint: Complaint,
  /** Parts on the way of what failed. */
  onTheWay: ReadonlySet<string> = new Set(),
): SubstitutionTable[] {
  const parts = new Set(
    readings.flatMap(({ test }) =>
      test.kind === 'substitute' || test.kind === 'elsewhere' ? [test.part] : [],
    ),
  );
  return [...parts].map((part): SubstitutionTable => {
    const cells: Partial<Record<Cell, CellState>> = {};
    for (const { test, value } of readings) {
      const cell = cellOf(test, part, complaint);
      if (
        cell &&
        'state' in value &&
        (value.state === 'works' || value.state === 'dead' || value.state === 'weak')
      ) {
        cells[cell] = value.state === 'works' ? 'works' : 'fails';
      }
    }
    const said = substitutionOf(cells);
    const { claim, missing } = said;
    return {
      part,
      ...said,
      unproved:
        claim === 'vehicle side' || claim === 'both' ? [...onTheWay].filter((one) => one !== part) : [],
      missingTest: testFor(missing, part, complaint),
    };
  });
}

function testFor(cell: Cell | null, part: string, complaint: Complaint): TestRef | null {
  switch (cell) {
    case null:
      return null;
    case 'own-here':
      return { kind: 'function', function: complaint.function, condition: complaint.condition };
    case 'good-here':
      return { kind: 'substitute', part, function: complaint.function, condition: complaint.condition };
    case 'own-there':
    case 'good-there':
      return {
        kind: 'elsewhere',
        part,
        function: complaint.function,
        fitted: cell === 'own-there' ? 'own' : 'known-good',
      };
  }
}
