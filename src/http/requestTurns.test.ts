import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { RequestTurns, senderOf } from './requestTurns';

interface Waiting {
  readonly whose: string;
  readonly response: http.ServerResponse;
}

/** No turn is over before its answer, however slow the machine. */
const LONG_MS = 600_000;

/** A server whose answers the test gives, one by one. */
async function bench(turnMs?: number) {
  const turns = new RequestTurns(turnMs);
  const begun: Waiting[] = [];
  const server = http.createServer((request, response) =>
    turns.take(request, response, () => begun.push({ whose: request.headers.cookie ?? '', response })),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const agent = new http.Agent({ maxSockets: 2000 });
  const answers: number[] = [];
  const { port } = server.address() as AddressInfo;
  return {
    turns,
    begun,
    answers,
    ask: (whose: string, count = 1) =>
      Array.from({ length: count }, () => {
        const headers = whose === '' ? {} : { cookie: `every-trace.session_token=${whose}` };
        const request = http.get({ port, host: '127.0.0.1', agent, headers }, (response) => {
          answers.push(response.statusCode ?? 0);
          response.resume();
        });
        request.on('error', () => answers.push(0));
        return request;
      }),
    async until(holds: () => boolean) {
      for (let tries = 0; tries < 400 && !holds(); tries++)
        await new Promise((resolve) => setTimeout(resolve, 5));
      expect(holds()).toBe(true);
    },
    async close() {
      agent.destroy();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

const isOf = (whose: string) => (one: Waiting) => one.whose.endsWith(whose);

test('what a browser asks for at once is worked on four at a time', async () => {
  const { begun, ask, until, close } = await bench(LONG_MS);
  try {
    ask('page', 6);
    await until(() => begun.length === 4);
    begun[0]!.response.end();
    await until(() => begun.length === 5);
  } finally {
    await close();
  }
});

test('a sender who asks for 300 things is worked on one at a time, and another goes ahead of its line', async () => {
  const { turns, begun, answers, ask, until, close } = await bench(LONG_MS);
  try {
    ask('crowd', 300);
    // The first four came before anybody could know.
    await until(() => begun.length === 4);
    ask('other');
    await until(() => begun.some(isOf('other')));
    let most = 0;
    let open = begun.length;
    // Answered one after another, all of them come to their turn.
    for (let at = 0; at < 301; at++) {
      await until(() => begun.length > at);
      open = begun.length - at;
      if (at > 5 && at < 290) most = Math.max(most, open);
      begun[at]!.response.end();
    }
    expect(most).toBe(1);
    await until(() => answers.length === 301);
    expect(new Set(answers)).toEqual(new Set([200]));
    await until(() => turns.senders === 0);
  } finally {
    await close();
  }
});

test('sessions that are made up take no more than their address', async () => {
  const { begun, ask, until, close } = await bench(LONG_MS);
  try {
    for (let one = 0; one < 100; one++) ask(`made-up-${one}`);
    await until(() => begun.length === 12);
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(begun).toHaveLength(12);
  } finally {
    await close();
  }
});

test('what stays open, what takes long and what was given up keep nothing of the same sender back', async () => {
  const { begun, ask, until, close } = await bench();
  try {
    // Their answers begin and do not end.
    ask('page', 4);
    await until(() => begun.length === 4);
    for (const { response } of begun) response.write('data: \n\n');
    const given = ask('page', 4);
    await until(() => begun.length === 8);
    const late = ask('page', 4);
    for (const request of given) request.destroy();
    await until(() => begun.length === 12);
    // None of these is answered at all; the next begins after a second.
    expect(late.every((request) => !request.destroyed)).toBe(true);
    ask('page');
    await until(() => begun.length === 13);
  } finally {
    await close();
  }
});

test('too many that wait are refused with words and a time, and those before them are not', async () => {
  const { begun, answers, ask, until, close } = await bench(LONG_MS);
  try {
    ask('crowd', 600);
    await until(() => answers.length === 96);
    expect(new Set(answers)).toEqual(new Set([503]));
    expect(begun).toHaveLength(4);
    for (const { response } of begun.slice(0, 3)) response.end();
    await until(() => answers.length === 99);
    expect(begun).toHaveLength(4);
  } finally {
    await close();
  }
});

test('a request has no part of what the one before it knew', async () => {
  const { AsyncLocalStorage } = await import('node:async_hooks');
  const known = new AsyncLocalStorage<string>();
  const turns = new RequestTurns();
  const seen: (string | undefined)[] = [];
  const server = http.createServer((request, response) =>
    turns.take(request, response, () => {
      seen.push(known.getStore());
      known.run(`of ${request.url}`, () => setTimeout(() => response.end(), 5));
    }),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  try {
    await Promise.all(Array.from({ length: 12 }, (_, index) => fetch(`http://127.0.0.1:${port}/${index}`)));
    expect(seen).toEqual(Array.from({ length: 12 }, () => undefined));
  } finally {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  }
});

test('a sender is a session, of this machine and over TLS alike, or an address', () => {
  expect(senderOf({ cookie: 'a=1; every-trace.session_token=abc; b=2' }).session).toBe('abc');
  expect(senderOf({ cookie: '__Secure-every-trace.session_token=abc' }).session).toBe('abc');
  expect(senderOf({ cookie: 'every-trace.demo=def' }).session).toBe('def');
  expect(senderOf({ cookie: 'unknown=abc' })).toEqual(senderOf({}));
});
