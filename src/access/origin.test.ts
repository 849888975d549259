/** Whose tries are counted together: behind a proxy of one's own, behind none, and against whoever makes headers up. */
import { clientAddress } from './origin';

const before = process.env.EVERY_TRACE_PROXY;
afterEach(() => {
  if (before === undefined) delete process.env.EVERY_TRACE_PROXY;
  else process.env.EVERY_TRACE_PROXY = before;
});

const from = (chain: string) => clientAddress(new Headers({ 'x-forwarded-for': chain }));

test('without a named proxy nobody is believed', () => {
  delete process.env.EVERY_TRACE_PROXY;
  expect([from('203.0.113.7'), from('203.0.113.8')]).toEqual(['this machine', 'this machine']);
  for (const nobody of ['the one in the cellar', '10.0.0.0/99', '10.0.0.0/half', '/8']) {
    process.env.EVERY_TRACE_PROXY = nobody;
    expect(from('203.0.113.7')).toBe('this machine');
  }
});

test('what the named proxy has written counts, and not what stood there before it', () => {
  process.env.EVERY_TRACE_PROXY = '127.0.0.1';
  expect(from('203.0.113.7')).toBe('203.0.113.7');
  expect(from('198.51.100.1, 203.0.113.7')).toBe('203.0.113.7');
  expect(from('2001:db8::7')).toBe('2001:db8::7');
});

test('several proxies in a row, by address and by network', () => {
  process.env.EVERY_TRACE_PROXY = '192.0.2.10, 10.20.0.0/16, 2001:db8:5::/48';
  expect(from('203.0.113.7, 192.0.2.10')).toBe('203.0.113.7');
  expect(from('198.51.100.1, 203.0.113.7, 10.20.3.4, ::ffff:192.0.2.10, 127.0.0.1')).toBe('203.0.113.7');
  expect(from('203.0.113.7, 10.21.0.1')).toBe('10.21.0.1');
  expect(from('203.0.113.7, 2001:db8:5::1')).toBe('203.0.113.7');
});
