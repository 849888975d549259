import { foreignRequest } from './origin';

const ask = (method: string, path: string, headers: Record<string, string>, known: string[] = []) =>
  foreignRequest({ method, path, header: (name) => headers[name] ?? null }, known);
const OURS = 'http://127.0.0.1:4012';
const HOST = '127.0.0.1:4012';
const own = { host: HOST, origin: OURS, 'sec-fetch-site': 'same-origin' };

test('our own pages read and write', () => {
  expect(ask('POST', '/api/events', own)).toBeNull();
  expect(ask('GET', '/jobs/x', { host: 'localhost:4012', 'sec-fetch-site': 'none' })).toBeNull();
  expect(ask('GET', '/', { host: '[::1]:4012' })).toBeNull();
  expect(ask('GET', '/', { host: 'bench.marrowby.lan' }, ['bench.marrowby.lan'])).toBeNull();
});

test('a frame without an origin, another origin and another port write nothing', () => {
  expect(ask('POST', '/api/events', { ...own, origin: 'null' })).not.toBeNull();
  expect(ask('POST', '/api/events', { ...own, origin: 'http://elsewhere.test' })).not.toBeNull();
  expect(ask('POST', '/api/events', { ...own, origin: 'http://127.0.0.1:5000' })).not.toBeNull();
  expect(ask('POST', '/api/events', { ...own, origin: 'file://127.0.0.1:4012' })).not.toBeNull();
});

test('a name that was made to point here reads nothing, although origin and host agree', () => {
  const rebound = { host: 'rebound.test:4012', origin: 'http://rebound.test:4012' };
  expect(ask('POST', '/api/events', rebound)).not.toBeNull();
  expect(ask('GET', '/', { host: 'rebound.test:4012' })).not.toBeNull();
  expect(ask('GET', '/', { host: '127.0.0.1.rebound.test:4012' })).not.toBeNull();
  expect(ask('GET', '/', {})).not.toBeNull();
});

test('a page elsewhere embeds nothing of ours and reads no data; a link of theirs opens a page', () => {
  const theirs = { host: HOST, 'sec-fetch-site': 'cross-site' };
  const link = { ...theirs, 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };
  expect(
    ask('GET', '/api/photos/1', { ...theirs, 'sec-fetch-mode': 'no-cors', 'sec-fetch-dest': 'image' }),
  ).not.toBeNull();
  expect(
    ask('GET', '/jobs/x', { ...theirs, 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'iframe' }),
  ).not.toBeNull();
  expect(
    ask('GET', '/jobs/x', { ...theirs, 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors' }),
  ).not.toBeNull();
  expect(ask('GET', '/jobs/x', link)).toBeNull();
  expect(ask('GET', '/api/jobs/x/file', link)).not.toBeNull();
  expect(ask('POST', '/jobs/x', link)).not.toBeNull();
});
