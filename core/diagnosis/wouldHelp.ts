/**
 * Which unknown number would change the next test: it is asked for only then. A guess is taken as a third and as three
 * times of what it counts as; where either would send the technician elsewhere, knowing it helps.
 */

import { unknownOf } from '../circuit';
import type { CircuitFile } from '../format';
import { UNKNOWN_LOAD_WATTS } from '../limits';
import type { AssessmentInput, Complaint, SessionOptions } from './assessment';
import { DiagnosisSession } from './session';

const FACTORS = [1 / 3, 3];
/** Beyond so many parts a circuit was drawn by somebody who knew it, and the work would be long. */
const MOST_PARTS = 40;
/** Unknown loads that are looked at. */
const MOST_GUESSES = 2;

export class WhatWouldHelp {
  private readonly supposed: { readonly part: string; readonly session: DiagnosisSession }[];

  constructor(circuit: CircuitFile, complaint: Complaint, options: SessionOptions = {}) {
    const unknown =
      circuit.parts.length > MOST_PARTS
        ? []
        : circuit.parts.filter((part) => unknownOf(part) === 'power').slice(0, MOST_GUESSES);
    this.supposed = unknown.flatMap((part) =>
      FACTORS.map((factor) => {
        const watts = UNKNOWN_LOAD_WATTS * factor;
        const parts = circuit.parts.map((one) => (one.id === part.id ? { ...one, watts } : one));
        const other = { ...circuit, parts } as CircuitFile;
        return { part: part.id, session: new DiagnosisSession(other, complaint, options) };
      }),
    );
  }

  /** Works everything out in small pieces, so that a worker can answer in between. */
  *prepare(): Generator<void> {
    for (const { session } of this.supposed) for (const _piece of session.prepare()) yield;
  }

  /** Parts whose unknown power would send the next test elsewhere than to `next`. */
  parts(input: AssessmentInput, next: string | undefined): string[] {
    const moved = this.supposed.filter(({ session }) => session.assess(input).next[0]?.id !== next);
    return [...new Set(moved.map((one) => one.part))];
  }
}
