import { jobPlace, wayTo } from './places';

const ID = '0a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c';
const OTHER = '1a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c';

test('a work view is one of a job, by an id of the right form', () => {
  expect(jobPlace(`/jobs/${ID}`)).toEqual({ jobId: ID, view: 'job' });
  expect(jobPlace(`/jobs/${ID}/trace`)).toEqual({ jobId: ID, view: 'trace' });
  expect(jobPlace(`/jobs/${ID.toUpperCase()}/sheet/`)).toEqual({ jobId: ID, view: 'sheet' });
  const none = ['/', '/jobs', '/jobs/new', `/jobs/${ID}/cards`, `/jobs/${ID}0`, `/api/jobs/${ID}`, '/job'];
  for (const path of none) expect([path, jobPlace(path)]).toEqual([path, null]);
});

test.each([
  ['among the views of a job', `/jobs/${ID}`, `/jobs/${ID}/trace`, 'address'],
  ['to a place of the same view', `/jobs/${ID}`, '#repair', 'address'],
  ['to another job', `/jobs/${ID}/trace`, `/jobs/${OTHER}#prove`, 'address'],
  ['from the document as it was built', '/job', `/jobs/${ID}`, 'address'],
  ['out of a job', `/jobs/${ID}`, '/vehicles', 'load'],
  ['into a job', '/', `/jobs/${ID}/trace`, 'load'],
  ['among pages', '/vehicles?after=1', '/jobs?list=closed', 'router'],
  ['to the form for a new job', '/', '/jobs/new?vehicle=1', 'router'],
  ['to a file', `/jobs/${ID}/sheet`, `/api/jobs/${ID}/file`, 'load'],
])('%s', (_words, from, to, way) => {
  expect(wayTo(from, to)).toBe(way);
});
