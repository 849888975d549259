/** A worker that breaks is begun again, what stands open is asked once more, and nobody waits for a dead one. */
import { Restarted } from './restarted';

/** A worker that the test plays: what it was asked, and what it says. */
class Played {
  static all: Played[] = [];
  readonly asked: unknown[] = [];
  ended = false;
  onmessage: ((event: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  onmessageerror: (() => void) | null = null;

  constructor() {
    Played.all.push(this);
  }

  postMessage(asked: unknown): void {
    this.asked.push(asked);
  }

  terminate(): void {
    this.ended = true;
  }
}

beforeEach(() => {
  Played.all = [];
});

function asking() {
  const heard: string[] = [];
  const broken: boolean[] = [];
  const worker = new Restarted<string>(
    () => new Played() as unknown as Worker,
    (said) => heard.push(said) > 0 && said.startsWith('answer'),
    (again) => {
      broken.push(again);
      if (again) worker.post('the same once more');
    },
  );
  return { worker, heard, broken };
}

test('it begins with the first question; after an error another one is asked what stands open', () => {
  const { worker, heard, broken } = asking();
  expect(Played.all).toHaveLength(0);
  worker.post('one');
  worker.post('two');
  const [first] = Played.all;
  expect(first!.asked).toEqual(['one', 'two']);
  first!.onmessage!({ data: 'answer to one' });
  first!.onerror!();
  expect(first!.ended).toBe(true);
  expect(Played.all[1]!.asked).toEqual(['the same once more']);
  Played.all[1]!.onmessage!({ data: 'answer to two' });
  expect(heard).toEqual(['answer to one', 'answer to two']);
  expect(broken).toEqual([true]);
});

test('twice in a row it is said; the next question begins another all the same, and an answer counts anew', () => {
  const { worker, heard, broken } = asking();
  const breaks = (at: number) => {
    Played.all[at]!.onmessage!({ data: 'half' });
    Played.all[at]!.onerror!();
  };
  worker.post('one');
  breaks(0);
  breaks(1);
  expect(Played.all).toHaveLength(2);
  expect(broken).toEqual([true, false]);
  worker.post('two');
  Played.all[2]!.onmessage!({ data: 'answer to two' });
  Played.all[2]!.onmessageerror!();
  expect(broken).toEqual([true, false, true]);
  expect(heard).toEqual(['half', 'half', 'answer to two']);
});

test('a program that cannot be fetched is fetched again for half a minute, then it is said', () => {
  jest.useFakeTimers();
  try {
    const { worker, broken } = asking();
    worker.post('one');
    for (let at = 0; at < 6; at++) {
      expect(Played.all).toHaveLength(at + 1);
      Played.all[at]!.onerror!();
      expect(Played.all).toHaveLength(at + 1);
      jest.advanceTimersByTime(16_000);
    }
    expect(broken).toEqual([true, true, true, true, true, false]);
  } finally {
    jest.useRealTimers();
  }
});

test('what is asked while a program is waited for goes with all else that stands open', () => {
  jest.useFakeTimers();
  try {
    const open: string[] = [];
    const worker = new Restarted<string>(
      () => new Played() as unknown as Worker,
      () => true,
      () => {
        for (const one of open) worker.post(one);
      },
    );
    const ask = (question: string) => {
      open.push(question);
      worker.post(question);
    };
    ask('one');
    Played.all[0]!.onerror!();
    ask('two');
    expect(Played.all).toHaveLength(1);
    jest.advanceTimersByTime(1000);
    expect(Played.all[1]!.asked).toEqual(['one', 'two']);
  } finally {
    jest.useRealTimers();
  }
});

test('one that was ended is not heard any more, and its error is nobody’s', () => {
  const { worker, heard, broken } = asking();
  worker.post('one');
  worker.end();
  Played.all[0]!.onmessage!({ data: 'too late' });
  Played.all[0]!.onerror!();
  expect([heard, broken]).toEqual([[], []]);
});
