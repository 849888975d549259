/** A backup brought back is the shop that it was taken from; a damaged one is not brought back at all. */
import { execFileSync } from 'node:child_process';
import { createHash, generateKeyPairSync, randomUUID, sign } from 'node:crypto';
import {
  createWriteStream,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { PassThrough } from 'node:stream';
import { eq, ne, sql } from 'drizzle-orm';
import pg from 'pg';
import sharp from 'sharp';
import yauzl from 'yauzl';
import yazl from 'yazl';
import type { Actor } from '@/access';
import { closeDatabase, database } from '@/db/client';
import { jobs, people, shops } from '@/db/schema';
import { SHOP_TABLES } from '@/db/shopTables';
import { appendEvents, keepPhoto, renewFeed } from '@/features/jobs/server';
import { demoActor, migrate, stranger, withDatabase } from '../../../testing/database';
import { oldDatabase } from '../../../testing/oldDatabase';
import { shopRows } from '../../../testing/shopRows';
import { so } from '../../../testing/whole';
import {
  AlreadyHere,
  backUpTo,
  backUpTonight,
  backupsIn,
  Damaged,
  openBackup,
  ownCode,
  restoreBackup,
} from './server';

withDatabase();

/** As many as this program knows; the demo's database has been through all of them. */
const MIGRATIONS = readdirSync('src/db/migrations').filter((name) => name.endsWith('.sql')).length;
let folder: string;
let actor: Actor;
let origin: string;
let file: string;
let code: string;

const admin = () => process.env.TEST_DATABASE_URL!;

/** Works on another database than the one that the backup is of; comes back to it. */
async function within<T>(url: string, work: () => Promise<T>): Promise<T> {
  const before = process.env.DATABASE_URL;
  await closeDatabase();
  process.env.DATABASE_URL = url;
  try {
    return await work();
  } finally {
    await closeDatabase();
    process.env.DATABASE_URL = before;
  }
}

const named = (name: string) => admin().replace(/\/[^/]*$/, `/${name}`);
let template: string | null = null;

/** An empty database, in the newest form: a copy of the first that was made. */
async function emptyDatabase(): Promise<string> {
  const name = `empty_${randomUUID().slice(0, 8)}`;
  if (template === null) {
    template = `${name}_template`;
    migrate(false, named(template));
  }
  const client = new pg.Client({ connectionString: admin() });
  await client.connect();
  await client.query(`create database ${name} template ${template}`);
  await client.end();
  return named(name);
}

async function note(words: string, id = randomUUID()): Promise<void> {
  const [job] = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(eq(jobs.shopId, actor.shopId))
    .limit(1);
  const body = { kind: 'note' as const, words };
  const made = { id, jobId: job!.id, version: 1, madeAt: new Date().toISOString(), clientOrder: 5000, body };
  const result = await appendEvents(actor, [made]);
  expect(result).toMatchObject({ ok: true });
}

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'every-trace-backup-'));
  actor = await demoActor();
  origin = process.env.DATABASE_URL!;
  const [job] = await database().select({ id: jobs.id }).from(jobs).limit(1);
  for (const color of ['#96441a', '#1a4496', '#449610']) {
    const picture = await sharp({ create: { width: 90, height: 60, channels: 3, background: color } })
      .jpeg()
      .toBuffer();
    expect(await keepPhoto(actor, job!.id, randomUUID(), picture)).toEqual({ ok: true });
  }
  // What is hard on a format of lines: ends of lines, quotes, signs beyond the first plane, what looks like an id.
  await note(`Two\nlines, "quoted", back\\slash, 😀, \u2028 and ${actor.shopId}`);
  await renewFeed(actor, randomUUID());
  file = await backUpTo(folder, { id: actor.shopId, name: actor.shopName }, 'asked');
  code = (await ownCode())!;
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('every table that belongs to a shop is known to the backup, each behind those that it points to', async () => {
  const { rows } = await database().execute<{ name: string }>(sql`
    select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'shop_id'`);
  expect(SHOP_TABLES.map(({ name }) => name).sort()).toEqual(
    [...rows.map(({ name }) => name), 'shops'].sort(),
  );
  const points = await database().execute<{ child: string; parent: string }>(sql`
    select conrelid::regclass::text as child, confrelid::regclass::text as parent from pg_constraint where contype = 'f'`);
  const at = (name: string) => SHOP_TABLES.findIndex((one) => one.name === name);
  const wrong = points.rows.filter(
    ({ child, parent }) => at(parent) >= 0 && at(child) >= 0 && at(parent) > at(child),
  );
  expect(wrong).toEqual([]);
});

test('brought back into an empty database it is equal, row by row and picture by picture', async () => {
  const url = await emptyDatabase();
  const restored = await within(url, async () => {
    const backup = await openBackup(file, { migrations: MIGRATIONS });
    try {
      return await restoreBackup(backup, { code });
    } finally {
      backup.close();
    }
  });
  expect(restored).toMatchObject({ shopId: actor.shopId, photos: 3, proved: true });
  const [before, after] = await Promise.all([shopRows(origin, actor.shopId), shopRows(url, actor.shopId)]);
  // The answers of the server that hold a secret address stay where they are.
  before.requests = before.requests!.filter((one) => !one.includes('follow-up-feed'));
  expect(after).toEqual(before);
  expect(Object.values(after).flat().length).toBeGreaterThan(400);
});

test('no secret is in the file', () => {
  const text = execFileSync('unzip', ['-p', file], { maxBuffer: 64 * 1024 * 1024 }).toString('latin1');
  expect(text).toContain('Josune Wray');
  for (const word of [
    'feed_token',
    'code_hash',
    'token_hash',
    'password',
    'key of backups',
    '/api/follow-ups/feed/',
  ]) {
    expect(text).not.toContain(word);
  }
  expect(statSync(file).mode & 0o077).toBe(0);
});

test('where the shop is already it is refused; beside it stands one of its own, and neither has the other’s rows', async () => {
  const before = await shopRows(origin, actor.shopId);
  const backup = await openBackup(file, { migrations: MIGRATIONS });
  await expect(restoreBackup(backup)).rejects.toThrow(AlreadyHere);
  const { shopId } = await restoreBackup(backup, { beside: true });
  backup.close();
  expect(shopId).not.toBe(actor.shopId);
  const [shop] = await database().select().from(shops).where(eq(shops.id, shopId));
  expect(shop).toMatchObject({ demo: false, name: `${actor.shopName} (from a backup)` });
  const [own, other] = await Promise.all([shopRows(origin, actor.shopId), shopRows(origin, shopId)]);
  expect(own).toEqual(before);
  for (const [name, rows] of Object.entries(other)) {
    const left =
      name === 'requests' ? before[name]!.filter((one) => !one.includes('follow-up-feed')) : before[name];
    expect([name, rows.length]).toEqual([name, left!.length]);
  }
  // Every id that names a row is another; one that a person typed stays.
  const ids = new Set(own.job_events!.map((one) => (JSON.parse(one) as { id: string }).id));
  expect(other.job_events!.filter((one) => [...ids].some((id) => one.includes(id)))).toEqual([]);
  // Corrections still say what they correct.
  const struck = other.job_events!.map(
    (one) => JSON.parse(one) as { id: string; body: { kind: string; of?: string } },
  );
  const made = new Set(struck.map(({ id }) => id));
  for (const { body } of struck) if (body.kind === 'correction') expect(made.has(body.of!)).toBe(true);
});

test('taken while others work it is one moment: no entry without those before it', async () => {
  let stop = false;
  const working = (async () => {
    for (let round = 0; !stop; round++) await note(`under load ${round}`);
  })();
  const taken: string[] = [];
  for (let round = 0; round < 3; round++) {
    taken.push(await backUpTo(folder, { id: actor.shopId, name: `Load ${round}` }, 'asked'));
  }
  stop = true;
  await working;
  for (const one of taken) {
    const url = await emptyDatabase();
    await within(url, async () => {
      const backup = await openBackup(one, { migrations: MIGRATIONS });
      await restoreBackup(backup);
      backup.close();
      const { rows } = await database().execute<{ gaps: string; behind: string }>(sql`
        select (select count(*) from (select job_id, max(seq) - count(*) as gap from job_events group by job_id) as g where gap <> 0) as gaps,
          (select count(*) from jobs where last_seq <> coalesce((select max(seq) from job_events where job_id = jobs.id), 0)) as behind`);
      expect(rows[0]).toEqual({ gaps: '0', behind: '0' });
    });
  }
});

test('the database of the version before is backed up as it is, brought up, and comes back from that backup too', async () => {
  const url = await oldDatabase(admin(), `old_${randomUUID().slice(0, 8)}`);
  const home = mkdtempSync(path.join(tmpdir(), 'every-trace-old-'));
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const events = 'select id, seq, kind, body::text, person_id, arrived_at from job_events order by id';
  const before = (await client.query(events)).rows;
  process.env.EVERY_TRACE_BACKUPS = home;
  try {
    migrate(true, url);
  } finally {
    delete process.env.EVERY_TRACE_BACKUPS;
  }
  // Nothing of it has moved, the demo is known as one, an apprentice is a learner.
  expect((await client.query(events)).rows).toEqual(before);
  expect((await client.query('select name, demo from shops order by name')).rows).toEqual([
    { name: 'Pellow & Wray Auto-Electric', demo: true },
    { name: 'Zander Marine', demo: false },
  ]);
  expect((await client.query(`select role from people where name = 'Ned Orrin'`)).rows).toEqual([
    { role: 'learner' },
  ]);
  await client.end();
  const made = readdirSync(home);
  expect(made.length).toBe(2);
  const whose = made.find((name) => name.startsWith('pellow'))!;
  const fresh = await emptyDatabase();
  await within(fresh, async () => {
    const backup = await openBackup(path.join(home, whose), { migrations: MIGRATIONS });
    expect(backup.manifest).toMatchObject({ migration: 16, version: 1 });
    // Nothing was signed then: a code cannot prove it, and entries say from where they come.
    await expect(restoreBackup(backup, { code })).rejects.toThrow(/not signed/);
    expect(await restoreBackup(backup)).toMatchObject({ proved: false });
    backup.close();
    const [ned] = await database().select().from(people).where(eq(people.name, 'Ned Orrin'));
    expect(ned?.role).toBe('learner');
  });
  const [one, other] = await Promise.all([shopRows(url, actor.shopId), shopRows(fresh, actor.shopId)]);
  const bare = ({ job_events: entries }: typeof one) =>
    entries!.map((row) => ({ ...JSON.parse(row), person_id: null, person_name: null }));
  expect(bare(other)).toEqual(bare(one));
  expect(other.people).toEqual(expect.arrayContaining([...one.people!]));
  for (const name of ['photos', 'jobs', 'vehicles', 'stock_moves', 'circuit_versions', 'job_summaries']) {
    expect([name, other[name]]).toEqual([name, one[name]]);
  }
  rmSync(home, { recursive: true, force: true });
});

test('each night one is made by one of the processes, and only so many are kept', async () => {
  const home = mkdtempSync(path.join(tmpdir(), 'every-trace-night-'));
  const clock = path.join(home, 'clock');
  process.env.EVERY_TRACE_CLOCK = clock;
  const own = (await stranger()).shopId;
  await database().update(shops).set({ demo: true }).where(ne(shops.id, own));
  await database().execute(sql`delete from installation where key = 'last nightly backup'`);
  try {
    const noon = new Date();
    noon.setHours(12, 0, 0, 0);
    for (let night = 0; night < 17; night++) {
      writeFileSync(clock, String(noon.getTime() - Date.now() + night * 86_400_000));
      const made = await Promise.all([backUpTonight(home), backUpTonight(home), backUpTonight(home)]);
      // The demo is not kept each night; a shop of one's own is.
      expect(made.flat()).toEqual([expect.stringContaining(own.slice(0, 8))]);
    }
    expect((await backupsIn(home)).length).toBe(14);
    // Nor does anything unfinished lie about.
    expect(readdirSync(home).filter((name) => name !== 'clock').length).toBe(14);
  } finally {
    delete process.env.EVERY_TRACE_CLOCK;
    rmSync(home, { recursive: true, force: true });
  }
}, 120_000);

test('one that is broken off leaves nothing that looks like a backup', async () => {
  const before = readdirSync(folder).length;
  const stopping = new AbortController();
  const making = backUpTo(folder, { id: actor.shopId, name: 'Broken off' }, 'asked', {
    signal: stopping.signal,
    onProgress: ({ done }) => {
      if (done > 50) stopping.abort(new Error('stopped'));
    },
  });
  await expect(making).rejects.toThrow('stopped');
  expect(readdirSync(folder).length).toBe(before);
  // What a browser had saved of it by then is refused.
  const half = path.join(folder, 'half.zip');
  writeFileSync(half, readFileSync(file).subarray(0, statSync(file).size / 2));
  await expect(openBackup(half, { migrations: MIGRATIONS })).rejects.toThrow(/no whole zip/);
});

test('bringing one back that is stopped in the middle leaves nothing', async () => {
  const url = await emptyDatabase();
  await within(url, async () => {
    const backup = await openBackup(file, { migrations: MIGRATIONS });
    const stopping = new AbortController();
    const seen: number[] = [];
    const bringing = restoreBackup(backup, {
      signal: stopping.signal,
      onProgress: (done, of) => {
        seen.push(done);
        if (done > of / 2) stopping.abort(new Error('stopped'));
      },
    });
    await expect(bringing).rejects.toThrow('stopped');
    backup.close();
    expect(seen.length).toBeGreaterThan(3);
    const { rows } = await database().execute(sql`select count(*)::integer as of from people`);
    expect(rows).toEqual([{ of: 0 }]);
  });
});

/** The files of a zip, as it holds them. */
function filesOf(zipFile: string): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    yauzl.open(zipFile, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error);
      const files = new Map<string, Buffer>();
      zip.on('entry', (entry: yauzl.Entry) => {
        zip.openReadStream(entry, (failed, stream) => {
          if (failed) return reject(failed);
          const chunks: Buffer[] = [];
          stream.on('data', (chunk: Buffer) => chunks.push(chunk));
          stream.on('end', () => {
            files.set(entry.fileName, Buffer.concat(chunks));
            zip.readEntry();
          });
        });
      });
      zip.on('end', () => resolve(files));
      zip.readEntry();
    });
  });
}

/** Writes files as a zip that is whole as a zip. */
function zipped(files: ReadonlyMap<string, Buffer>, to: string): Promise<void> {
  return new Promise((resolve) => {
    const zip = new yazl.ZipFile();
    for (const [name, bytes] of files) zip.addBuffer(bytes, name);
    zip.end();
    (zip.outputStream as unknown as PassThrough).pipe(createWriteStream(to)).on('finish', () => resolve());
  });
}

/** The files of a backup with some of them changed, signed anew by somebody with a key of theirs. */
function forged(files: ReadonlyMap<string, Buffer>, changes: readonly (readonly [string, Buffer])[]) {
  const { privateKey, publicKey } = generateKeyPairSync('ed25519');
  const changed = new Map([...files, ...changes]);
  const signature = {
    algorithm: 'Ed25519',
    publicKey: publicKey.export({ type: 'spki', format: 'der' }).toString('base64'),
    signature: sign(null, changed.get('manifest.json')!, privateKey).toString('base64'),
  };
  return changed.set('signature.json', Buffer.from(JSON.stringify(signature)));
}

test('three hundred damaged backups: each is refused in words, and nothing of any is brought back', async () => {
  const url = await emptyDatabase();
  const bytes = readFileSync(file);
  const files = await filesOf(file);
  const names = [...files.keys()];
  const damaged = path.join(folder, 'damaged.zip');
  // The same damage in each run.
  let state = 20_261_130;
  const random = (below: number) => {
    state = (Math.imul(state, 1_103_515_245) + 12_345) & 0x7fffffff;
    return state % below;
  };
  const rows = [...files.entries()].filter(([name, text]) => name.endsWith('.jsonl') && text.length > 0);
  const ways: readonly (() => Promise<void> | void)[] = [
    // A bit turned over, somewhere in the file.
    () => {
      const copy = Buffer.from(bytes);
      const at = random(copy.length);
      copy[at]! ^= 1 << random(8);
      writeFileSync(damaged, copy);
    },
    // Broken off.
    () => writeFileSync(damaged, bytes.subarray(0, random(bytes.length))),
    // A stretch written over.
    () => {
      const copy = Buffer.from(bytes);
      const from = random(copy.length - 40);
      for (let at = from; at < from + 40; at++) copy[at]! ^= 1 + random(255);
      writeFileSync(damaged, copy);
    },
    // Whole as a zip, and a file in it missing, twice as long, or changed in one byte.
    () => {
      const gone = names[random(names.length)];
      return zipped(new Map([...files].filter(([name]) => name !== gone)), damaged);
    },
    () => {
      const [name, text] = rows[random(rows.length)]!;
      return zipped(new Map([...files, [name, Buffer.concat([text, text])]]), damaged);
    },
    () => {
      const [name, text] = rows[random(rows.length)]!;
      const copy = Buffer.from(text);
      copy[random(copy.length)]! ^= 1;
      return zipped(new Map([...files, [name, copy]]), damaged);
    },
    // A file more, and a manifest that says something else.
    () =>
      zipped(new Map([...files, ['tables/../../evil.jsonl', Buffer.from('{}')]]), damaged).catch(
        () => undefined,
      ),
    () => {
      const manifest = JSON.parse(files.get('manifest.json')!.toString()) as Record<string, unknown>;
      const changes = [
        { version: 3 },
        { madeAt: '2026-01-01T00:00:00.000Z' },
        { migration: MIGRATIONS + 1 },
        { format: 'something else' },
        { tables: [] },
        { photos: { count: 1, bytes: 5 } },
      ];
      const changed = { ...manifest, ...changes[random(changes.length)] };
      return zipped(new Map([...files, ['manifest.json', Buffer.from(JSON.stringify(changed))]]), damaged);
    },
  ];
  const said = new Set<string>();
  const times = so(2400, 300);
  let unharmed = 0;
  const byWay = ways.map(() => 0);
  await within(url, async () => {
    for (let round = 0; round < times; round++) {
      writeFileSync(damaged, '');
      await ways[round % ways.length]!();
      try {
        const backup = await openBackup(damaged, { migrations: MIGRATIONS });
        // What was turned over said nothing (a time in a header): it is the same backup, and comes back as such.
        expect(backup.manifest).toEqual(JSON.parse(files.get('manifest.json')!.toString()));
        backup.close();
        unharmed += 1;
        byWay[round % ways.length]! += 1;
      } catch (error) {
        expect(error).toBeInstanceOf(Damaged);
        said.add((error as Error).message.replace(/[0-9a-f-]{36}|\d+|\(.*\)/g, '…'));
      }
    }
    const { rows: left } = await database().execute(sql`select count(*)::integer as of from shops`);
    expect(left).toEqual([{ of: 0 }]);
  });
  console.log(
    `${times} damaged backups: ${times - unharmed} refused, ${unharmed} had lost nothing; ${said.size} reasons`,
  );
  // Only a bit of what a zip says twice may be turned over without harm.
  expect(byWay.slice(1)).toEqual(byWay.slice(1).map(() => 0));
  expect(byWay[0]).toBeLessThan(times / ways.length / 2);
}, 240_000);

const OTHER_SHOP = randomUUID();

test('lines that do not fit their table, though every checksum is right, take all of it back', async () => {
  const url = await emptyDatabase();
  const files = await filesOf(file);
  const last = (change: (line: string) => string) => (lines: readonly string[]) => [
    ...lines.slice(0, -1),
    change(lines.at(-1)!),
  ];
  const cases: readonly [
    what: string,
    why: RegExp,
    change: (lines: readonly string[]) => readonly string[],
    table?: string,
  ][] = [
    [
      'an entry of a job that is not there',
      /contradicts what is kept/,
      last((line) => line.replace(/"job_id":"[^"]+"/, `"job_id":"${randomUUID()}"`)),
    ],
    ['a line with a field more', /other fields/, last((line) => line.replace('{', '{"strange":1,'))],
    [
      'a field that no table has',
      /does not know: strange/,
      (lines) => lines.map((line) => line.replace('{', '{"strange":1,')),
    ],
    ['no row at all', /no row/, last(() => '[]')],
    ['an entry twice', /contradicts what is kept/, (lines) => [...lines.slice(0, -1), lines[0]!]],
    [
      'a vehicle of another shop, which is here',
      /vehicles.jsonl holds a row of another shop/,
      last((line) => line.replace(/"shop_id":"[^"]+"/, `"shop_id":"${OTHER_SHOP}"`)),
      'vehicles',
    ],
    [
      'people with an account that is here',
      /no backup has: user_id/,
      (lines) => lines.map((line) => line.replace('{', '{"user_id":"u",')),
      'people',
    ],
    [
      'an entry of a kind that nobody knows',
      /job_events\.jsonl holds an entry that cannot be read/,
      last((line) => line.replace(/"body":\{"kind":"[^"]+"/, '"body":{"kind":"conjured"')),
    ],
    [
      'an entry without its body',
      /job_events\.jsonl holds an entry that cannot be read/,
      last((line) => line.replace(/"body":\{.*\},"client_order"/, '"body":null,"client_order"')),
    ],
    [
      'an entry of no day',
      /job_events\.jsonl holds an entry that cannot be read/,
      last((line) => line.replace(/"made_at":"[^"]+"/, '"made_at":"yesterday"')),
    ],
    [
      'a circuit without parts',
      /circuit_versions\.jsonl holds a circuit that cannot be read/,
      last((line) => line.replace('"parts":', '"pieces":')),
      'circuit_versions',
    ],
    [
      'a box without holes',
      /panel_set_versions\.jsonl holds a box that cannot be read/,
      last((line) => line.replace('"panels":', '"boxes":')),
      'panel_set_versions',
    ],
    [
      'an item of the stock in a unit that nobody knows',
      /stock_items\.jsonl holds an item of the stock that cannot be read/,
      last((line) => line.replace(/"unit":"[^"]+"/, '"unit":"barrels"')),
      'stock_items',
    ],
    [
      'instruments and habits that are none',
      /people\.jsonl holds instruments and habits of somebody that cannot be read/,
      last((line) => line.replace(/"hand":(null|\{.*?\})/, '"hand":{"owns":"everything"}')),
      'people',
    ],
    [
      'a number that is none',
      /vehicles\.jsonl holds a row that cannot be kept/,
      last((line) => line.replace(/"nominal_volts":[^,]+/, '"nominal_volts":"many"')),
      'vehicles',
    ],
    [
      'a line that is longer than any row',
      /vehicles\.jsonl holds a line that is longer than any row/,
      last((line) => line.replace('{', `{"notes":"${'x'.repeat(40 * 1024 * 1024)}",`)),
      'vehicles',
    ],
  ];
  for (const [what, why, change, name = 'job_events'] of cases) {
    const text = files.get(`tables/${name}.jsonl`)!.toString().trimEnd().split('\n');
    const lines = Buffer.from(`${change(text).join('\n')}\n`);
    const manifest = JSON.parse(files.get('manifest.json')!.toString()) as {
      tables: { name: string; bytes: number; sha256: string }[];
    };
    const table = manifest.tables.find((one) => one.name === name)!;
    table.bytes = lines.length;
    table.sha256 = createHash('sha256').update(lines).digest('hex');
    const made = path.join(folder, 'unfit.zip');
    await zipped(
      forged(files, [
        [`tables/${name}.jsonl`, lines],
        ['manifest.json', Buffer.from(JSON.stringify(manifest))],
      ]),
      made,
    );
    await within(url, async () => {
      await database().execute(
        sql`insert into shops (id, name, town) values (${OTHER_SHOP}, 'Harl Marine', 'Harl') on conflict do nothing`,
      );
      const backup = await openBackup(made, { migrations: MIGRATIONS });
      const told = await restoreBackup(backup).then(
        () => 'brought back',
        (error: Error) => {
          expect([what, error instanceof Damaged]).toEqual([what, true]);
          return error.message;
        },
      );
      expect([what, told]).toEqual([what, expect.stringMatching(why)]);
      backup.close();
      const { rows } = await database().execute(
        sql`select (select count(*) from shops)::integer as shops, (select count(*) from job_events)::integer as entries`,
      );
      expect(rows).toEqual([{ shops: 1, entries: 0 }]);
    });
  }
});

test('a picture that is none is refused, though its checksum is right', async () => {
  const url = await emptyDatabase();
  const files = await filesOf(file);
  const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
  const page = Buffer.from('<html><script>alert(1)</script></html>');
  const [name, picture] = [...files].find(([one]) => one.startsWith('photos/'))!;
  const lines = files
    .get('tables/photos.jsonl')!
    .toString()
    .replace(sha256(picture), sha256(page))
    .replace(`"size":${picture.length}`, `"size":${page.length}`);
  const manifest = JSON.parse(files.get('manifest.json')!.toString());
  const table = manifest.tables.find((one: { name: string }) => one.name === 'photos');
  Object.assign(table, { bytes: Buffer.byteLength(lines), sha256: sha256(Buffer.from(lines)) });
  manifest.photos.bytes += page.length - picture.length;
  const made = path.join(folder, 'page.zip');
  const changed: [string, Buffer][] = [
    [name, page],
    ['tables/photos.jsonl', Buffer.from(lines)],
    ['manifest.json', Buffer.from(JSON.stringify(manifest))],
  ];
  await zipped(forged(files, changed), made);
  await within(url, async () => {
    const backup = await openBackup(made, { migrations: MIGRATIONS });
    await expect(restoreBackup(backup)).rejects.toThrow(/is no image\/jpeg/);
    backup.close();
    const { rows } = await database().execute(sql`select count(*)::integer as of from shops`);
    expect(rows).toEqual([{ of: 0 }]);
  });
});

test('who made an entry is kept where the key proves the backup; otherwise it says from a file', async () => {
  const files = await filesOf(file);
  const manifest = JSON.parse(files.get('manifest.json')!.toString());
  const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
  // Somebody has changed one entry, and signs with a key of theirs.
  const lines = Buffer.from(
    files.get('tables/job_events.jsonl')!.toString().replace('Two\\nlines', 'Six\\nlines'),
  );
  const table = manifest.tables.find((one: { name: string }) => one.name === 'job_events');
  table.sha256 = sha256(lines);
  const forgery = path.join(folder, 'forgery.zip');
  const changed: [string, Buffer][] = [
    ['tables/job_events.jsonl', lines],
    ['manifest.json', Buffer.from(JSON.stringify(manifest))],
  ];
  await zipped(forged(files, changed), forgery);
  // With the signature of the true one it is none of it.
  const passedOff = path.join(folder, 'passed-off.zip');
  await zipped(new Map([...files, ...changed]), passedOff);
  await expect(openBackup(passedOff, { migrations: MIGRATIONS })).rejects.toThrow(/signature does not match/);
  // Nor does it help to take the signature away.
  const stripped = path.join(folder, 'stripped.zip');
  const first = Buffer.from(JSON.stringify({ ...manifest, version: 1 }));
  await zipped(
    new Map(
      [...files, ...changed, ['manifest.json', first]].filter(([name]) => name !== 'signature.json') as [
        string,
        Buffer,
      ][],
    ),
    stripped,
  );
  const authors = () =>
    database()
      .execute<{ said: string | null; by: string; left: boolean }>(
        sql`select distinct person_name as said, people.name as by, left_at is not null as left
            from job_events join people on people.id = person_id order by 1, 2`,
      )
      .then(({ rows }) => rows);
  const there = await authors();
  expect(there.every(({ said }) => said === null)).toBe(true);
  for (const made of [forgery, stripped, file]) {
    await within(await emptyDatabase(), async () => {
      const backup = await openBackup(made, { migrations: MIGRATIONS });
      if (made !== file) await expect(restoreBackup(backup, { code })).rejects.toThrow(Damaged);
      expect(await restoreBackup(backup)).toMatchObject({ proved: false });
      backup.close();
      const found = await authors();
      expect(found.map(({ said }) => said).sort()).toEqual([...new Set(there.map(({ by }) => by))].sort());
      for (const { by, left } of found) {
        expect(by).toMatch(/^the restore of \d+ \w+ \d{4}$/);
        expect(left).toBe(true);
      }
      // A closing that nobody here has signed is no word of the owner.
      const { rows } = await database().execute(
        sql`select 1 from job_events where kind = 'state' and person_name is null`,
      );
      expect(rows).toEqual([]);
    });
  }
  // The code is read as somebody types it.
  await within(await emptyDatabase(), async () => {
    const backup = await openBackup(file, { migrations: MIGRATIONS });
    const typed = code.toLowerCase().replaceAll('-', ' ');
    expect(await restoreBackup(backup, { code: typed })).toMatchObject({ proved: true });
    backup.close();
    expect(await authors()).toEqual(there);
  });
});
