/**
 * What a reading must be said to mean, and what must not be said or cleared by it, on vehicles that nobody has mapped:
 * rules of the trade, each held against every pattern that has what it speaks of, on 12 and on 24 V. Written from the
 * rules, not from the program: a rule names points by the part whose pin they are.
 */
import { so, WHOLE } from '../../testing/whole';
import type { CircuitFile, FunctionStateName, ReadingValue, TestRef } from '../format';
import { circuitOfPattern, type LoadWord, PATTERNS } from '../notation/patterns';
import { UNSURE } from './evidence/readings';
import { DiagnosisSession } from './session';

/** Where things are on a pattern, by the parts of its text. */
interface Layout {
  readonly load: string;
  readonly kind: LoadWord;
  readonly on: string;
  readonly off: string;
  readonly fuse: string;
  /** Between fuse and load. */
  readonly feed: readonly string[];
  /** Between load and the body. */
  readonly back: readonly string[];
  readonly plug?: string;
  readonly relay?: string;
}

const LAYOUTS: Readonly<Record<string, Layout>> = {
  'fuse-switch-load': {
    load: 'L1',
    kind: 'motor',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['W1', 'S1', 'W2', 'C1'],
    back: ['W3', 'G1'],
    plug: 'C1',
  },
  'fuse-relay-load': {
    load: 'L1',
    kind: 'lamp',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['R1', 'W1', 'C1'],
    back: ['W2', 'G1'],
    plug: 'C1',
    relay: 'R1',
  },
  'three-pin-relay': {
    load: 'L1',
    kind: 'led',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['R1', 'W1', 'C1'],
    back: ['W2', 'G1'],
    plug: 'C1',
    relay: 'R1',
  },
  'relay-two-fuses': {
    load: 'L1',
    kind: 'pump',
    on: 'on',
    off: 'off',
    fuse: 'F2',
    feed: ['W1'],
    back: ['W2', 'G1'],
    relay: 'R1',
  },
  'key-fed-socket': {
    load: 'X1',
    kind: 'module',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['W1', 'C1'],
    back: ['W2', 'G1'],
    plug: 'C1',
  },
  'shared-earth': {
    load: 'L1',
    kind: 'lamp',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['S1', 'W1'],
    back: ['SP1', 'W2', 'G1'],
  },
  'hazard-turn': {
    load: 'L1',
    kind: 'lamp',
    on: 'left',
    off: 'off',
    fuse: 'F1',
    feed: ['U1', 'S1', 'W1'],
    back: ['G1'],
  },
  'trailer-plug': {
    load: 'L1',
    kind: 'lamp',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['S1', 'W1', 'C1', 'W2'],
    back: ['SP1', 'W3', 'C3', 'W4', 'G1'],
    plug: 'C1',
  },
  'two-speed-motor': {
    load: 'L1',
    kind: 'motor',
    on: 'fast',
    off: 'off',
    fuse: 'F1',
    feed: ['S1', 'W3'],
    back: ['W2', 'G1'],
  },
  'solenoid-button': {
    load: 'L1',
    kind: 'motor',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['Z1', 'W1'],
    back: ['G1'],
  },
  'module-output': {
    load: 'L1',
    kind: 'led',
    on: 'on',
    off: 'off',
    fuse: 'F1',
    feed: ['MO1', 'W1', 'C1'],
    back: ['W2', 'G1'],
    plug: 'C1',
  },
};

interface Case {
  readonly circuit: CircuitFile;
  readonly layout: Layout;
  readonly nominal: number;
}

type Taken = readonly [test: TestRef, value: ReadingValue];

interface Rule {
  readonly rule: string;
  readonly needs?: 'plug' | 'relay' | 'return-point';
  /** What the failed function does, in the condition in which it should be on, or in the one in which it should be off. */
  readonly state: FunctionStateName;
  readonly readings: (at: At) => readonly Taken[];
  readonly says?: readonly RegExp[];
  readonly never?: readonly RegExp[];
  /** Parts of which none may be called cleared. */
  readonly notCleared?: (layout: Layout) => readonly string[];
}

/** Readings by what a technician names: a share of the nominal volts at a point. */
class At {
  constructor(
    private readonly one: Case,
    private readonly condition: string,
  ) {}

  get layout(): Layout {
    return this.one.layout;
  }

  private pin(part: string, ...names: readonly string[]): string {
    const { pins } = this.one.circuit.parts.find(({ id }) => id === part)!;
    const at = pins as Readonly<Record<string, string | undefined>>;
    const node = names.map((name) => at[name]).find((each) => each !== undefined);
    if (node === undefined) throw new Error(`${part} has none of ${names.join(', ')}.`);
    return node;
  }

  private at(node: string, volts: number): Taken {
    const { reference } = this.one.circuit;
    return [{ kind: 'volts', node, against: reference, condition: this.condition }, { volts }];
  }

  private share(part: string, share: number, ...pins: readonly string[]): Taken {
    return this.at(this.pin(part, ...pins), Math.round(share * this.one.nominal * 100) / 100);
  }

  /** Shares of the nominal volts; a rested battery has 1.05 of it. */
  readonly plus = (share: number) => this.share(this.layout.load, share, 'plus');
  readonly minus = (share: number) => this.share(this.layout.load, share, 'minus');
  readonly minusVolts = (volts: number) => this.at(this.pin(this.layout.load, 'minus'), volts);
  readonly plusVolts = (volts: number) => this.at(this.pin(this.layout.load, 'plus'), volts);
  readonly fuseIn = (share: number) => this.share(this.layout.fuse, share, 'in');
  readonly fuseOut = (share: number) => this.share(this.layout.fuse, share, 'out');
  readonly coilReturn = (volts: number) => this.at(this.pin(this.layout.relay!, '85'), volts);
  readonly overPlug = (volts: number): Taken => [
    {
      kind: 'volts',
      node: this.pin(this.layout.plug!, 'a'),
      against: this.pin(this.layout.plug!, 'b'),
      condition: this.condition,
    },
    { volts },
  ];
  readonly overPlugShare = (share: number) => this.overPlug(Math.round(share * this.one.nominal * 100) / 100);
  readonly look = (look: 'whole' | 'broken'): Taken => [{ kind: 'look', part: this.layout.fuse }, { look }];
  /** The technician looks: what the function does just now. */
  readonly seen = (state: FunctionStateName): Taken => [
    { kind: 'function', function: 'failed', condition: this.condition },
    { state },
  ];
  readonly click = (click: 'clicks' | 'silent'): Taken => [
    { kind: 'click', part: this.layout.relay!, condition: this.condition },
    { click },
  ];
  readonly lamp = (lamp: 'lit' | 'off'): Taken => [
    { kind: 'lamp', node: this.pin(this.layout.load, 'plus'), condition: this.condition },
    { lamp },
  ];
  /** At the battery's own plus post, in the condition of the complaint. */
  readonly post = (share: number) =>
    this.share(this.one.circuit.parts.find(({ kind }) => kind === 'battery')!.id, share, 'plus');
  readonly battery = (share: number): Taken => [
    { kind: 'battery', state: 'rest' },
    { volts: Math.round(share * this.one.nominal * 100) / 100 },
  ];
}

const RULES: readonly Rule[] = [
  {
    rule: 'full volts at a dead load prove no joint that carries current',
    state: 'dead',
    readings: (at) => [at.plus(1.04)],
    says: [/without load|less current flows/],
    never: [/under load/, /feed is sound/, /way to earth from here is sound/],
    notCleared: ({ feed, back }) => [...feed.filter((part) => /^[WC]/.test(part)), ...back],
  },
  {
    rule: 'nothing at the load and volts at the fuse: it does not arrive, and nothing between is cleared',
    state: 'dead',
    readings: (at) => [at.fuseOut(1.04), at.plusVolts(0.02)],
    says: [/no feed arrives|does not arrive/],
    never: [/to earth is open/, /live where/],
    notCleared: ({ feed }) => feed.filter((part) => /^[WCSR]/.test(part)),
  },
  {
    rule: 'the whole supply behind a dead load: its way to earth is open',
    needs: 'return-point',
    state: 'dead',
    readings: (at) => [at.minus(1.03)],
    says: [/way from here to earth is open or poor/],
    never: [/should be dead/, /is sound/],
    notCleared: ({ back }) => back,
  },
  {
    rule: 'nothing behind a load that gets nothing proves no earth',
    needs: 'return-point',
    state: 'dead',
    readings: (at) => [at.plusVolts(0.01), at.minusVolts(0)],
    says: [/proves nothing of the way to earth|only if current flows/],
    never: [/is sound/, /while current flows/],
    notCleared: ({ back }) => back,
  },
  {
    rule: 'a lifted return of a weak load: the way to earth is poor',
    needs: 'return-point',
    state: 'weak',
    readings: (at) => [at.minus(0.25)],
    says: [/near earth/, /Speaks for|way from here to earth/],
    never: [/proves nothing/, /is sound/, /before this point/],
    notCleared: ({ back }) => back,
  },
  {
    rule: 'a tenth of a volt behind a load that draws is an ordinary return',
    needs: 'return-point',
    state: 'weak',
    readings: (at) => [at.plus(0.75), at.minusVolts(0.1)],
    says: [/while current flows: the way to earth from here is sound/],
    never: [/proves nothing/, /open or poor/, /does not fit/],
  },
  {
    rule: 'volts missing at a weak load are lost before it',
    state: 'weak',
    readings: (at) => [at.plus(0.7)],
    says: [/lost in resistance before this point/],
    never: [/does not arrive/, /is sound/],
    notCleared: ({ feed }) => feed.filter((part) => /^[WCSR]/.test(part)),
  },
  {
    rule: 'volts missing at the post of the battery are missing in the battery, not before it',
    state: 'weak',
    readings: (at) => [at.post(0.75)],
    says: [/gives way|is low/, /at both posts/],
    never: [/before this point/, /does not arrive/, /key, switches/],
  },
  {
    rule: 'most volts at a weak load: nothing is said to be lost before it',
    needs: 'return-point',
    state: 'weak',
    readings: (at) => [at.minus(0.3), at.plus(1.01)],
    never: [/lost in resistance before/, /does not arrive/, /without load/],
    notCleared: ({ back }) => back,
  },
  {
    rule: 'a load that is weak says nothing of where volts are lost',
    state: 'weak',
    readings: () => [],
    says: [/weak feed, a weak way to earth, or a load that is worn/],
    never: [/volts are lost/, /[Cc]lears/],
  },
  {
    rule: 'live with everything off is something that holds it up, and no bad earth',
    state: 'on-when-off',
    readings: (at) => [at.plus(1.03)],
    says: [/live where it should be dead/],
    never: [/to earth/, /return/],
  },
  {
    rule: 'a minus sign of a plausible size is the leads the wrong way round',
    state: 'dead',
    readings: (at) => [at.plus(-1.03)],
    says: [/wrong way round/],
    never: [/does not fit/, /polarity is/],
  },
  {
    rule: 'a few millivolts are nothing',
    state: 'dead',
    readings: (at) => [at.plusVolts(0.04)],
    says: [/few millivolts are nothing/],
    never: [/is sound/],
  },
  {
    rule: 'no drop over a plug without current passes no plug',
    needs: 'plug',
    state: 'dead',
    readings: (at) => [at.fuseOut(0.02), at.overPlug(0)],
    says: [/says nothing of the joint|no pass/],
    never: [/no more than a sound part/],
    notCleared: ({ plug }) => [plug!],
  },
  {
    rule: 'little drop over a plug while the load draws is what a sound plug loses',
    needs: 'plug',
    state: 'weak',
    readings: (at) => [at.seen('weak'), at.overPlug(0.03)],
    says: [/no more than a sound part loses/],
    never: [/resistance between/, /says nothing/],
  },
  {
    rule: 'two volts over a plug are resistance in it',
    needs: 'plug',
    state: 'weak',
    readings: (at) => [at.overPlug(2)],
    says: [/resistance between these points/],
    never: [/open between/],
    notCleared: ({ plug }) => [plug!],
  },
  {
    rule: 'the whole supply over a plug does not go with a load that draws',
    needs: 'plug',
    state: 'weak',
    readings: (at) => [at.seen('weak'), at.overPlugShare(1.02)],
    says: [/does not go with that|does not fit/],
    never: [/so it is open between/],
  },
  {
    rule: 'both ends of a fuse live while the load is dead: pulled before it is passed',
    state: 'dead',
    readings: (at) => [at.fuseIn(1.04), at.fuseOut(1.04)],
    says: [/Both ends .* are live/, /pull it/],
    never: [/is sound up to here/],
  },
  {
    rule: 'only the feed side live: the fuse is open, and not cleared',
    state: 'dead',
    readings: (at) => [at.fuseIn(1.04), at.fuseOut(0)],
    says: [/Only the feed side/],
    notCleared: ({ fuse }) => [fuse],
  },
  {
    rule: 'neither end live: what comes before is looked at first, and the fuse is not condemned or cleared',
    state: 'dead',
    readings: (at) => [at.fuseOut(0), at.fuseIn(0)],
    says: [/Neither end/, /upstream|before/],
    never: [/is open/],
    notCleared: ({ fuse }) => [fuse],
  },
  {
    rule: 'a click passes the coil, never the contact',
    needs: 'relay',
    state: 'dead',
    readings: (at) => [at.click('clicks')],
    says: [/says nothing of its contact/],
    notCleared: ({ relay }) => [relay!],
  },
  {
    rule: 'silence names the coil, its feed, its earth and the command, and condemns none',
    needs: 'relay',
    state: 'dead',
    readings: (at) => [at.click('silent')],
    says: [/coil, its feed, its earth or the command/],
    notCleared: ({ relay }) => [relay!],
  },
  {
    rule: 'a coil return that falls to a tenth or two of a volt is ordinary',
    needs: 'relay',
    state: 'dead',
    readings: (at) => [at.click('clicks'), at.coilReturn(0.15)],
    never: [/does not fall/, /does not fit/, /near earth:/],
  },
  {
    rule: 'a look at a fuse proves nothing and clears nothing',
    state: 'dead',
    readings: (at) => [at.look('whole')],
    says: [/proves nothing/],
    never: [/Clears/, /[Pp]rovisional/],
    notCleared: ({ fuse }) => [fuse],
  },
  {
    rule: 'a lamp that lights says that its own current arrives, not the load’s',
    state: 'dead',
    readings: (at) => [at.lamp('lit')],
    says: [/lamp's current|lamp’s current/],
    never: [/under load/],
  },
  {
    rule: 'rested volts do not prove that a battery delivers',
    state: 'weak',
    readings: (at) => [at.battery(1.06)],
    says: [/do not prove that it can deliver/],
    notCleared: () => ['B1'],
  },
  {
    rule: 'half of the nominal volts at the posts asks which system this is',
    state: 'dead',
    readings: (at) => [at.battery(0.51)],
    says: [/What system is this/],
    never: [/[Ii]n order/],
  },
  {
    rule: 'twice the nominal volts at the posts stops the work',
    state: 'dead',
    readings: (at) => [at.battery(2.1)],
    says: [/Stop: what system is this/],
    never: [/[Ii]n order/],
  },
];

/** Every pattern on both voltages, or in the shortened form on one of them in turn. */
const CASES: readonly Case[] = PATTERNS.flatMap((pattern, index) =>
  [12, 24]
    .filter((_, at) => WHOLE || at === index % 2)
    .map((nominal): Case => {
      const layout = LAYOUTS[pattern.id]!;
      const { circuit } = circuitOfPattern(pattern, {
        load: 'Roof unit',
        kind: layout.kind,
        nominalVolts: nominal,
      });
      return { circuit, layout, nominal };
    }),
);

const sessions = new Map<string, DiagnosisSession>();
function sessionOf({ circuit, nominal }: Case, condition: string): DiagnosisSession {
  const key = `${circuit.id} ${nominal} ${condition}`;
  const known = sessions.get(key) ?? new DiagnosisSession(circuit, { function: 'failed', condition });
  sessions.set(key, known);
  return known;
}

/** Whether the load has a point of its own behind it, that is not the body. */
function hasReturnPoint({ circuit, layout }: Case): boolean {
  const { pins } = circuit.parts.find(({ id }) => id === layout.load)!;
  return (pins as Readonly<Record<string, string>>).minus !== circuit.reference;
}

const SITUATIONS = CASES.flatMap((one) =>
  RULES.filter(
    ({ needs }) =>
      needs === undefined ||
      (needs === 'return-point' ? hasReturnPoint(one) : one.layout[needs] !== undefined),
  ).map((rule) => ({
    name: `${one.circuit.id.replace(/-roof-unit$/, '')}, ${one.nominal} V: ${rule.rule}`,
    one,
    rule,
  })),
);

test('there are enough of them, on every pattern and on both voltages', () => {
  expect(SITUATIONS.length).toBeGreaterThan(so(400, 200));
  expect(new Set(CASES.map(({ nominal }) => nominal))).toEqual(new Set([12, 24]));
  expect(Object.keys(LAYOUTS).sort()).toEqual(PATTERNS.map(({ id }) => id).sort());
});

test.each(SITUATIONS)('$name', ({ one, rule: { state, readings, says = [], never = [], notCleared } }) => {
  const condition = state === 'on-when-off' ? one.layout.off : one.layout.on;
  const taken = readings(new At(one, condition));
  const { effects, parts } = sessionOf(one, condition).assess({
    readings: [
      { id: 'c', test: { kind: 'function', function: 'failed', condition }, value: { state }, sure: UNSURE },
      ...taken.map(([test, value], index) => ({ id: `r${index}`, test, value })),
    ],
    refused: [],
    opened: [],
  });
  const { sentence } = effects.at(-1)!;
  expect({ sentence, missing: says.filter((words) => !words.test(sentence)) }).toEqual({
    sentence,
    missing: [],
  });
  expect({ sentence, wrong: never.filter((words) => words.test(sentence)) }).toEqual({ sentence, wrong: [] });
  const kept = notCleared?.(one.layout) ?? [];
  const cleared = parts.filter((each) => each.standing === 'cleared').map(({ part }) => part);
  expect(kept.filter((part) => cleared.includes(part))).toEqual([]);
});
