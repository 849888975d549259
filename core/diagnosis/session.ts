/**
 * One job's diagnosis: takes the complaint, the readings and what is open or refused, and gives the
 * suspects, the verdict and the next test. Everything slow is made once in `prepare`; what the readings say is
 * carried on from one question to the next.
 */

import { type CircuitFile, USUAL_HAND } from '../format';
import { CircuitModel } from '../network';
import type {
  Assessment,
  AssessmentInput,
  Complaint,
  Proposal,
  SessionOptions,
  Suspect,
  Verdict,
} from './assessment';
import {
  type Asked,
  alreadyTaken,
  isSoundNow,
  mayAskAgain,
  type Sighted,
  timesTaken,
} from './choice/askable';
import { beforePurchase } from './choice/beforePurchase';
import { confirmingTests } from './choice/confirming';
import { repairCost, type Stop, whetherToStop, worthMost } from './choice/decision';
import { habitCost } from './choice/habitCost';
import { contextOf, entropyNow, type InPlay, likelyRows, rankTests, rowsInPlay } from './choice/next';
import { proposalOf } from './choice/proposal';
import type { EvidenceState } from './evidence/evidence';
import { mergedByRefusal, withPairs } from './evidence/groups';
import type { KeptPredictions } from './evidence/keptPredictions';
import { asMeant, dropAsMeant } from './evidence/leads';
import { normalise } from './evidence/likelihood';
import { Predictions } from './evidence/predictions';
import type { TakenReading } from './evidence/readings';
import type { RepairGroup } from './evidence/repairGroup';
import { hasHabits, withoutHabits } from './habits';
import { buildHypotheses, NOT_IN_MAP } from './hypotheses/hypotheses';
import type { Hypothesis } from './hypotheses/hypothesis';
import { testId } from './kinds';
import { Names } from './kinds/kind';
import { type Choice, Preparing, type Progress } from './preparing';
import { dutiesOf, PinPanel } from './relay/pinPanel';
import type { RelayDuty } from './relay/relayDuty';
import { type Run, runsOfComplaint } from './run';
import { type BarredTest, stoppedBy, type TestCandidate, testsFor } from './tests';
import { contradictionWords } from './verdict/contradiction';
import { lookConflicts } from './verdict/lookConflicts';
import { OPENED_BY_SOMETHING, openedBy, withWhatOpenedIt, wouldBlow } from './verdict/openedFuse';
import { partsOfFunction } from './verdict/proofs';
import { Standings } from './verdict/standings';
import { substitutionTables } from './verdict/substitution';
import { nameOfReading, suspectOf, titleOf } from './verdict/suspects';
import { decisiveReading, LIKELY, type Support, supportOf, verdictOn, withSentence } from './verdict/verdict';
import { WorkedIn } from './workedIn';

/** Tests that teach less than this are not proposed, bits. */
const NOTHING_TO_LEARN = 0.004;
const PROPOSALS = 8;
const DECIDES_ALONE =
  'This one reading decides: without it another would lead. Taken again, lead and spot looked at first, it shows whether the probe slipped.';

export class DiagnosisSession {
  readonly model: CircuitModel;
  readonly hypotheses: readonly Hypothesis[];
  readonly predictions: Predictions;
  private readonly names: Names;
  private readonly everyTest: ReadonlyMap<string, TestCandidate>;
  private readonly standings: Standings;
  private readonly worked: WorkedIn;
  /** Runs of what failed; of what should be off, those where it is on. */
  readonly runs: readonly Run[];
  /** What every relay of the runs, and every one that a test may bridge, has to do in the condition. */
  readonly duties: Readonly<Record<string, RelayDuty>>;
  private readonly pins: PinPanel;
  /** The tests as they are without the habits of the person; null where there are none. */
  private readonly withoutHabits: ReadonlyMap<string, TestCandidate> | null;
  /** Tests that safety forbids, with the reasons. */
  readonly barred: readonly BarredTest[];
  private readonly preparing: Preparing;

  constructor(
    readonly circuit: CircuitFile,
    readonly complaint: Complaint,
    options: SessionOptions = {},
  ) {
    this.model = new CircuitModel(circuit);
    this.names = new Names(circuit);
    this.hypotheses = buildHypotheses(this.model, complaint, options.priors, options.appliance);
    const { hand = USUAL_HAND, notNow, kept } = options;
    this.predictions = new Predictions(this.model, this.hypotheses, kept);
    const { permitted, barred } = testsFor(this.model, complaint, hand, notNow);
    this.withoutHabits = hasHabits(hand)
      ? new Map(
          testsFor(this.model, complaint, withoutHabits(hand), notNow).permitted.map((test) => [
            test.id,
            test,
          ]),
        )
      : null;
    this.everyTest = new Map(permitted.map((test) => [test.id, test]));
    this.barred = barred;
    this.standings = new Standings(this.hypotheses);
    this.worked = new WorkedIn(this.predictions, this.standings, complaint);
    this.runs = runsOfComplaint(this.model, complaint);
    const bridged = this.permitted.flatMap(({ ref }) => (ref.kind === 'bridge' ? [ref.part] : []));
    this.duties = dutiesOf(this.model, this.runs, bridged, complaint.condition);
    this.pins = new PinPanel(this.model, this.runs, this.duties, complaint.condition, (id) =>
      this.everyTest.has(id),
    );
    this.preparing = new Preparing(this.model, this.hypotheses, this.predictions, permitted, complaint);
  }

  /**
   * Works out what every fault would show in every test, a test at a time, so that a worker can tell how far it is and stop.
   * `assess` does what is left by itself.
   */
  prepare(): Generator<Progress> {
    return this.preparing.rest();
  }

  /** The same for the tests that come first. `firstCard` chooses among them. */
  prepareFirst(): Generator<Progress> {
    return this.preparing.first();
  }

  /**
   * The first card, before everything is worked out; null where `prepareFirst` was not gone through, and where more is known
   * than that the function fails, or where it should be off: then other tests may be worth more. `npm run experiment -- first`
   * says what it is worth beside the card that comes of everything.
   */
  firstCard(given: AssessmentInput): Proposal | null {
    const { function: failed, condition } = this.complaint;
    const plain = given.readings.every(
      ({ test }) => test.kind === 'function' && test.function === failed && test.condition === condition,
    );
    const { early } = this.preparing;
    const wanted = this.model.expectedOn(this.model.function(failed), condition);
    return plain && wanted && early.tests.length > 0
      ? (this.assessAmong(early, given).next[0] ?? null)
      : null;
  }

  /**
   * Hypotheses that nothing is known of yet, by id: what may be shared out among workers. Each works out its `share`, all
   * shares are taken here, and `prepare` has little left to do.
   */
  missing(): string[] {
    return this.predictions.missing();
  }

  /** What some of the missing would show in every test that is offered, a test at a time. */
  share(ids: readonly string[]): Generator<Progress, KeptPredictions> {
    return this.preparing.share(ids);
  }

  /** Takes what was worked out of the same circuit and complaint, here or by another worker. */
  take(share: KeptPredictions): void {
    this.predictions.before.add(share);
  }

  /** Every permitted test, for whoever goes their own way. */
  get permitted(): readonly TestCandidate[] {
    return [...this.everyTest.values()];
  }

  /** Repair groups when some tests are refused. */
  groups(refused: readonly string[]): { groups: RepairGroup[] } {
    return this.preparing.all().groups(refused);
  }

  /**
   * What was worked out of this circuit, for the next session on it (`SessionOptions.kept`); null where all of it was kept
   * before.
   */
  toKeep(): KeptPredictions | null {
    return this.preparing.toKeep();
  }

  /** Suspects, verdict and next tests for what is known now. */
  assess(given: AssessmentInput): Assessment {
    return this.assessAmong(this.preparing.all(), given);
  }

  private assessAmong(choice: Choice, given: AssessmentInput): Assessment {
    const input = this.asMeant(given);
    const { groups: plain } = choice.groups(input.refused);
    const progress = this.worked.upTo(input.readings);
    const { state, counter, clearedBy, cumulative, taken, askedIn } = progress;
    const logs = input.readings.map((reading) => state.logOf(reading.id));
    const p = normalise(state.logWeight);
    const { groups, groupOf, chance } = withPairs(this.hypotheses, plain, p);
    const order = groups.map((_, g) => g).sort((x, y) => chance[y]! - chance[x]!);
    const shown = order.filter((g, rank) => rank === 0 || chance[g]! >= 0.001);
    const suspects = shown.map((g) =>
      suspectOf(this.model, this.hypotheses, groups[g]!, chance[g]!, p, input.readings, logs),
    );
    const lead = order[0]!;
    const support = supportOf(groups[lead]!, p, input.readings, logs);
    const title = suspects[0]!.title;
    const verdict = verdictOn(this.model, groups[lead]!, chance[lead]!, support, title, input.readings);
    const found = this.worked.contradiction(progress);
    const odd = found ? input.readings[found.reading]! : null;
    const inPlay = this.rowsNow(p, groupOf, state);
    const episodes = taken.map((one) => one.episode);
    const predictions = this.worked.under(input.fitted);
    const asked = { input, predictions, p, groups, inPlay, state, counter, askedIn, episodes };
    const rivals = openedBy(this.model, this.hypotheses, groups, chance, lead);
    const { proposals, stop, habit } = this.propose(
      choice.tests,
      asked,
      lead,
      chance[lead]!,
      verdict,
      support,
      suspects[0]!,
      rivals.length > 0,
    );
    const told =
      stop && stop.reason !== 'works-now'
        ? withWhatOpenedIt(
            suspects,
            rivals.map((g) => groups[g]!.id),
          )
        : suspects;
    const forbidden = stop?.reason === 'forbidden';
    const repeat = odd && verdict.strength !== 'proved' && !forbidden ? this.repeatOf(odd, asked) : null;
    const next = repeat ? [repeat, ...proposals].slice(0, PROPOSALS) : proposals;
    const notInMap = this.hypotheses.findIndex((one) => one.id === NOT_IN_MAP);
    const leads = verdict.suspect !== null && groups[lead]!.parts.length > 0;
    const cost = repairCost(this.model, groups[lead]!.parts);
    const left = this.worked.left(state);
    const parts = this.standings.of(cumulative, p, clearedBy, this.worked.wasLoaded(progress, left));
    return {
      suspects: told.filter((one) => one.chance >= 0.001),
      effects: this.worked.effects(progress, parts, plain),
      parts,
      switched: this.pins.read(input.readings, left),
      verdict:
        told !== suspects
          ? withSentence(verdict, OPENED_BY_SOMETHING)
          : stop?.reason === 'nothing-to-learn'
            ? withSentence(verdict, stop.sentence)
            : verdict,
      next,
      notInMap: p[notInMap]!,
      stop: repeat ? null : stop,
      habit: repeat ? null : habit,
      beforePurchase: beforePurchase(this.model, groups[lead]!.parts, verdict, next),
      repair: leads
        ? {
            minutes: cost.minutes,
            price: cost.price,
            wrong: (1 - chance[lead]!) * (cost.minutes + cost.price + cost.harm),
          }
        : null,
      substitutions: substitutionTables(
        input.readings,
        this.complaint,
        partsOfFunction(this.model, this.complaint.function),
      ),
      mergedByRefusal: mergedByRefusal(plain, choice.allGroups(), (group) =>
        titleOf(this.model, this.hypotheses, group),
      ),
      askFailsNow: taken.length > 0 && askedIn < counter.current,
      lookConflicts: lookConflicts(this.hypotheses, p, input.readings, logs, this.names),
      contradiction:
        found && odd
          ? {
              reading: odd.id,
              sentence: contradictionWords(
                nameOfReading(this.names, odd),
                found.restFits,
                timesTaken(testId(odd.test), input),
              ),
            }
          : null,
    };
  }

  /** What was given, with readings the right way round whose leads were not. */
  private asMeant(given: AssessmentInput): AssessmentInput {
    const readings = given.readings.map((reading) => {
      const { test } = reading;
      const plain = asMeant(this.circuit, reading);
      return plain === reading && test.kind === 'volts' && test.against !== this.circuit.reference
        ? dropAsMeant(this.circuit, reading, this.predictions.of(testId(test), test))
        : plain;
    });
    return { ...given, readings };
  }

  private rowsNow(p: Float64Array, groupOf: Int32Array, state: EvidenceState): InPlay {
    return rowsInPlay(p, groupOf, this.predictions.sound, (h) =>
      this.hypotheses[h]!.lasting === null ? null : state.presentNow(h),
    );
  }

  /** The card that repeats a reading, once; null where it was repeated already or cannot be. */
  private repeatOf(odd: TakenReading, asked: Asked): Proposal | null {
    const { input } = asked;
    const id = testId(odd.test);
    if (timesTaken(id, input) > 1 || input.refused.includes(id)) return null;
    const card = this.cardOf(id, asked);
    if (!card) return null;
    const why =
      'This reading disagrees with the others. Taken again it shows whether the probe slipped, or whether the circuit does something that this map does not contain.';
    return { ...card, why };
  }

  private propose(
    tests: readonly TestCandidate[],
    asked: Asked,
    lead: number,
    leadChance: number,
    verdict: Verdict,
    support: readonly Support[],
    suspect: Suspect,
    mayBlowAgain: boolean,
  ): { proposals: Proposal[]; stop: Stop | null; habit: string | null } {
    const { input, predictions, p, groups, inPlay } = asked;
    const barred = stoppedBy(input.readings, this.circuit);
    if (barred) return { proposals: [], stop: { reason: 'forbidden', sentence: barred }, habit: null };
    const proved = verdict.strength === 'proved';
    const taken = alreadyTaken(asked);
    const refused = new Set(input.refused);
    const again = mayAskAgain(this.complaint, asked);
    const open = proved
      ? []
      : tests
          .filter((test) => (!taken.has(test.id) || test.id === again) && !refused.has(test.id))
          .filter((test) => !wouldBlow(this.circuit, this.hypotheses, test.ref, p))
          .map((test) => ({ test, prediction: predictions.of(test.id, test.ref) }));
    const given = (test: TestCandidate, rows: Int32Array) =>
      asked.state.given(test.ref, predictions.of(test.id, test.ref), rows, predictions);
    const ranked = rankTests(open, inPlay, contextOf(this.circuit, input.opened), given);
    const learning = ranked.filter((one) => one.gainBits >= NOTHING_TO_LEARN);
    const likelyOnes =
      leadChance >= LIKELY
        ? confirmingTests(predictions, ranked, p, groups[lead]!, support, (test) =>
            given(test, likelyRows(inPlay)),
          )
        : [];
    const alone = leadChance >= LIKELY && !proved ? this.decisiveAgain(leadChance, support, asked) : null;
    const cheapest = Math.min(...likelyOnes.map((one) => one.minutes));
    const decisive = alone && alone.minutes < cheapest ? alone : null;
    const confirming = decisive ? [decisive, ...likelyOnes] : likelyOnes;
    const cost = repairCost(this.model, groups[lead]!.parts);
    const stop = whetherToStop({
      proved,
      title: suspect.title,
      chance: leadChance,
      likely: LIKELY,
      cost,
      confirmingMinutes: confirming.length > 0 ? Math.min(...confirming.map((one) => one.minutes)) : null,
      decidesAlone: alone !== null,
      anythingToLearn: learning.length > 0,
      best: worthMost(learning, cost),
      doubtBits: entropyNow(inPlay),
      mayBlowAgain,
      isSoundNow: isSoundNow(this.model, this.complaint, asked),
    });
    const chosen = [...confirming, ...learning.filter((one) => !confirming.includes(one))];
    return {
      stop,
      habit: habitCost(
        chosen[0],
        open,
        this.withoutHabits,
        inPlay,
        contextOf(this.circuit, input.opened),
        given,
        this.names,
      ),
      proposals: chosen.slice(0, PROPOSALS).map((worth) => {
        const proposal = proposalOf(worth, asked, this.hypotheses);
        return worth === decisive ? { ...proposal, why: `${DECIDES_ALONE} ${proposal.why}` } : proposal;
      }),
    };
  }

  /** The one reading of a probe that everything hangs on, to be taken once more where nothing else confirms it. */
  private decisiveAgain(chance: number, support: readonly Support[], { input, inPlay, predictions }: Asked) {
    const reading = decisiveReading(chance, support);
    const id = reading ? testId(reading.test) : '';
    const test = this.everyTest.get(id);
    if (!test || timesTaken(id, input) > 1 || input.refused.includes(id)) return null;
    const offered = [{ test, prediction: predictions.of(id, test.ref) }];
    return rankTests(offered, inPlay, contextOf(this.circuit, input.opened))[0] ?? null;
  }

  private cardOf(id: string, sighted: Sighted): Proposal | null {
    const { input, predictions, inPlay } = sighted;
    const test = this.everyTest.get(id);
    if (!test) return null;
    const offered = [{ test, prediction: predictions.of(test.id, test.ref) }];
    const [worth] = rankTests(offered, inPlay, contextOf(this.circuit, input.opened));
    return worth ? proposalOf(worth, sighted, this.hypotheses) : null;
  }

  /** The card of any test the technician chooses, proposed or not; null when it is not permitted. */
  card(id: string, given: AssessmentInput): Proposal | null {
    const { groups: plain } = this.groups(given.refused);
    const input = this.asMeant(given);
    const { state } = this.worked.upTo(input.readings);
    const p = normalise(state.logWeight);
    const test = this.everyTest.get(id);
    if (stoppedBy(input.readings, this.circuit)) return null;
    if (test && wouldBlow(this.circuit, this.hypotheses, test.ref, p)) return null;
    const { groups, groupOf } = withPairs(this.hypotheses, plain, p);
    const predictions = this.worked.under(input.fitted);
    return this.cardOf(id, { input, predictions, groups, inPlay: this.rowsNow(p, groupOf, state) });
  }
}
