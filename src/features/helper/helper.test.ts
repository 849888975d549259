/** The code for the person at the key: of its workshop alone, and not to be found by trying. */
import { eq } from 'drizzle-orm';
import { workshopDigits } from '@/access/secrets';
import { database } from '@/db/client';
import { jobs } from '@/db/schema';
import { demoActor, withDatabase } from '../../../testing/database';
import { changeHelper, helperNow, joinByCode } from './helper';

withDatabase();

const from = (address: string) => new Headers({ host: '127.0.0.1:4012', 'x-forwarded-for': address });
const ASK = { kind: 'ask' as const, card: 'volts|a', settings: ['Key: on'] };

async function open() {
  const actor = await demoActor();
  const [job] = await database().select().from(jobs).where(eq(jobs.shopId, actor.shopId)).limit(1);
  const { code } = await changeHelper(actor, job!.id, ASK);
  return { actor, job: job!.id, code: code! };
}

test('a code names its workshop, and lets one phone in', async () => {
  const { actor, job, code } = await open();
  expect(code).toMatch(/^\d{9}$/);
  expect(code.slice(0, 3)).toBe(workshopDigits(actor.shopId));
  const other = String((Number(code.slice(0, 3)) + 1) % 1000).padStart(3, '0');
  expect(await joinByCode(from('10.0.0.1'), other + code.slice(3), 'Ada')).toMatchObject({ status: 401 });
  expect(await joinByCode(from('10.0.0.1'), code, 'Ada')).toMatchObject({ ok: true });
  expect((await helperNow(actor, job)).name).toBe('Ada');
  expect(await joinByCode(from('10.0.0.1'), code, 'Bo')).toMatchObject({ status: 401 });
  await changeHelper(actor, job, { kind: 'end' });
});

test('guesses at the codes of one workshop are counted over all addresses; another workshop is not locked out by them', async () => {
  process.env.EVERY_TRACE_PROXY = '127.0.0.1';
  const { actor, job, code } = await open();
  const wrong = (digits: string) => digits + String((Number(code.slice(3)) + 1) % 1_000_000).padStart(6, '0');
  const statuses: number[] = [];
  for (let guess = 0; guess < 45; guess++) {
    const answer = await joinByCode(from(`10.0.${guess}.1`), wrong(code.slice(0, 3)), 'Eve');
    statuses.push(answer.ok ? 200 : answer.status);
  }
  expect(statuses.filter((status) => status === 401)).toHaveLength(39);
  expect(statuses.slice(-5)).toEqual([429, 429, 429, 429, 429]);
  const other = String((Number(code.slice(0, 3)) + 7) % 1000).padStart(3, '0');
  expect(await joinByCode(from('10.9.0.1'), wrong(other), 'Eve')).toMatchObject({ status: 401 });
  await changeHelper(actor, job, { kind: 'end' });
  delete process.env.EVERY_TRACE_PROXY;
});
