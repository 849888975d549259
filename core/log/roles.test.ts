import { type EventBody, ROLES } from '../format';
import { may, type Need, whyNot, whyNotRecorded } from './roles';

const NEEDS: readonly Need[] = ['see', 'work', 'lead', 'own'];
const state = (to: 'open' | 'asked' | 'closed') => ({ kind: 'state', state: to }) as EventBody;

test('whoever may more may all that others may, and each role something that the next may not', () => {
  const counts = ROLES.map((role) => NEEDS.filter((need) => may(role, need)));
  expect(counts).toEqual([
    ['see', 'work', 'lead', 'own'],
    ['see', 'work', 'lead'],
    ['see', 'work'],
  ]);
});

test('a learner asks for a word and takes it back, and closes nothing; anybody records the rest', () => {
  expect(whyNotRecorded('learner', state('closed'))).toMatch(/asks for the word/);
  for (const body of [state('asked'), state('open'), { kind: 'note', words: 'Seen' } as EventBody]) {
    for (const role of ROLES) expect([role, body, whyNotRecorded(role, body)]).toEqual([role, body, null]);
  }
  expect([whyNotRecorded('technician', state('closed')), whyNotRecorded('owner', state('closed'))]).toEqual([
    null,
    null,
  ]);
  expect(whyNot('own')).toMatch(/owner/);
  expect(whyNot('lead')).toMatch(/technician or the owner/);
});
