import { scriptsOf } from './diagnosisAhead';

test('the scripts of a worker are read from its address; another form gives none', () => {
  const params = encodeURIComponent(JSON.stringify([['/a.js', '/b.js', { path: '/c.js' }], '', '/_next/']));
  expect(scriptsOf(`http://workshop.local/worker.js#params=${params}`)).toEqual(['/a.js', '/b.js']);
  expect(scriptsOf('http://workshop.local/worker.js#params=%7B%22a%22%3A1%7D')).toEqual([]);
  expect(scriptsOf('http://workshop.local/worker.js#other')).toEqual([]);
  expect(scriptsOf('no address')).toEqual([]);
});
