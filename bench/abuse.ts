/**
 * `npm run abuse`: one workshop does what could keep all others from working, and another records readings meanwhile. Printed
 * is how long its appends take beside those of the same server left alone. Server and database are of its own.
 */
import { randomUUID } from 'node:crypto';
import http from 'node:http';
import sharp from 'sharp';
import { openApp } from '../e2e/app';
import { ensurePackages, POSTGRES } from '../scripts/lib/setUp.mjs';
import { bin, run } from '../scripts/lib/shell.mjs';
import { openTestBed } from '../scripts/lib/testBed.mjs';
import { demoCircuit } from '../testing/circuits';
import { longJobBodies } from '../testing/longJob';

/** So long each attack goes on, and the server is left alone before. */
const SECONDS = 12;
const EVERY_MS = 150;
/** Appends may take so many times what they take on the server left alone. */
const WANTED = 3;
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };

interface Answer {
  readonly status: number;
  readonly ms: number;
  readonly cookies: string;
  /** The beginning of what was answered. */
  readonly text: string;
}

interface Asked {
  readonly body?: unknown;
  readonly type?: string;
  readonly cookie?: string;
  readonly agent: http.Agent;
}

function ask(url: string, { body, type = 'application/json', cookie, agent }: Asked): Promise<Answer> {
  const began = performance.now();
  const bytes = body === undefined ? null : Buffer.isBuffer(body) ? body : JSON.stringify(body);
  return new Promise((resolve, reject) => {
    const request = http.request(
      url,
      {
        agent,
        method: bytes === null ? 'GET' : 'POST',
        headers: {
          ...(bytes === null ? {} : { 'content-type': type }),
          ...(cookie ? { cookie } : {}),
        },
      },
      (response) => {
        let text = '';
        response.on('data', (part: Buffer) => {
          if (text.length < 300) text += part.toString('latin1').slice(0, 300);
        });
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            ms: performance.now() - began,
            text,
            cookies: (response.headers['set-cookie'] ?? [])
              .map((one) => one.split(';')[0]!)
              .filter((one) => !one.endsWith('='))
              .join('; '),
          }),
        );
      },
    );
    request.on('error', reject);
    request.end(bytes);
  });
}

/** What is asked and then left: nothing of the answer is taken. Gives what ends it. */
function askAndLeave(url: string, cookie: string): () => void {
  const request = http.get(url, { agent: false, headers: { cookie } }, (response) => response.pause());
  request.on('error', () => undefined);
  return () => request.destroy();
}

/** A picture of few colours: small as a file, large when it is decoded. */
function widePicture(side: number): Promise<Buffer> {
  const create = { width: side, height: side, channels: 3, background: 'white' } as const;
  return sharp({ create, limitInputPixels: false }).png({ palette: true, colours: 2 }).toBuffer();
}

const at = (values: readonly number[], share: number) => {
  const sorted = values.slice().sort((one, other) => one - other);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN;
};

const entry = (jobId: string, clientOrder: number, body: unknown) => ({
  id: randomUUID(),
  jobId,
  madeAt: new Date().toISOString(),
  clientOrder,
  body,
});

type Attack = (again: () => boolean) => Promise<readonly number[]>;

async function abuse(): Promise<void> {
  ensurePackages([POSTGRES]);
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const bed = await openTestBed();
  const agents = [new http.Agent({ keepAlive: true, maxSockets: 400 }), new http.Agent({ keepAlive: true })];
  const [theirs, own] = agents as [http.Agent, http.Agent];
  try {
    Object.assign(process.env, await bed.prepareBrowser());
    const app = await openApp();
    app.mayFail(/./);
    const { url } = app;
    const job = await app.job('Proving-cabinet fan dead');
    const jobId = job.slice(-36);
    const begun = await ask(`${url}/api/access/begin`, {
      agent: own,
      body: {
        shop: 'Harl Marine',
        town: 'Harl',
        owner: 'Ines Harl',
        name: 'ines',
        password: 'seven brass lanterns',
      },
    });
    const cookie = begun.cookies;
    // Who attacks is the owner of the demo.
    const [owner] = await app.query<{ id: string }>(
      "select p.id from people p join shops s on s.id = p.shop_id where s.demo and p.role = 'owner' limit 1",
    );
    const demo = `every-trace.demo=${owner!.id}`;
    const ownJob = randomUUID();
    const opened = await ask(`${url}/api/jobs`, {
      agent: own,
      cookie,
      body: {
        id: ownJob,
        title: 'Bilge lamp dead',
        vehicleId: randomUUID(),
        vehicleName: 'Launch',
        nominalVolts: 12,
      },
    });
    if (begun.status !== 200 || opened.status !== 200)
      throw new Error(`The other workshop could not begin: ${begun.status} ${opened.status} ${opened.text}`);
    const circuit = demoCircuit('van-proving-cabinet');
    const bodies = longJobBodies({ circuit, complaint: FAN, readings: 1300, notes: 699 }).slice(1);
    for (let from = 0; from < bodies.length; from += 50) {
      const events = bodies
        .slice(from, from + 50)
        .map((body, index) => entry(jobId, 1000 + from + index, body));
      const kept = await ask(`${url}/api/events`, { agent: theirs, cookie: demo, body: { events } });
      if (kept.status !== 200) throw new Error(`The long job could not be made: ${kept.status}.`);
    }

    let order = 1;
    /** Appends of the other workshop while something goes on; milliseconds. */
    const appends = async (going: () => boolean) => {
      const times: number[] = [];
      const wrong: number[] = [];
      while (going()) {
        const body = { kind: 'note', words: `Reading ${order}` };
        const kept = await ask(`${url}/api/events`, {
          agent: own,
          cookie,
          body: { events: [entry(ownJob, order++, body)] },
        });
        times.push(kept.ms);
        if (kept.status !== 200) wrong.push(kept.status);
        await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
      }
      return { times, wrong };
    };
    const picture = await widePicture(10_900);
    /** So many at a time, again and again. */
    const crowd =
      (count: number, one: () => Promise<Answer>): Attack =>
      async (again) => {
        const all: number[] = [];
        await Promise.all(
          Array.from({ length: count }, async () => {
            while (again()) all.push((await one().catch(() => ({ status: 0 }))).status);
          }),
        );
        return all;
      };
    /** Connections that stay and of which nothing is read. */
    const held =
      (count: number, place: () => string): Attack =>
      async (again) => {
        const ends = Array.from({ length: count }, () => askAndLeave(`${url}${place()}`, demo));
        while (again()) await new Promise((resolve) => setTimeout(resolve, 100));
        for (const end of ends) end();
        return [];
      };
    const attacks: Readonly<Record<string, Attack>> = {
      nothing: async (again) => {
        while (again()) await new Promise((resolve) => setTimeout(resolve, 100));
        return [];
      },
      '50 sheets of 2,000 entries at once': crowd(50, () =>
        ask(`${url}/api/jobs/${jobId}/sheet`, { agent: theirs, cookie: demo }),
      ),
      '12 backups that nobody reads': held(12, () => '/api/shop/backup'),
      '12 pictures of 119 million pixels at once': crowd(12, () =>
        ask(`${url}/api/photos?id=${randomUUID()}&job=${jobId}`, {
          agent: theirs,
          cookie: demo,
          body: picture,
          type: 'image/png',
        }),
      ),
      '200 live connections on one job': held(200, () => `/api/jobs/${jobId}/live?page=${randomUUID()}`),
      '300 questions after the health at once': crowd(300, () =>
        ask(`${url}/api/health`, { agent: theirs, cookie: demo }),
      ),
      '20 wrong passwords at once': crowd(20, () =>
        ask(`${url}/api/access/sign-in`, {
          agent: theirs,
          cookie: demo,
          body: { name: 'ines', password: randomUUID() },
        }),
      ),
    };
    let alone = Number.NaN;
    let worst = 0;
    let errors = 0;
    for (const [name, attack] of Object.entries(attacks)) {
      const until = performance.now() + SECONDS * 1000;
      const again = () => performance.now() < until;
      const [answers, { times, wrong }] = await Promise.all([attack(again), appends(again)]);
      const p95 = at(times, 0.95);
      if (name === 'nothing') alone = p95;
      const ratio = p95 / alone;
      worst = Math.max(worst, ratio);
      errors += wrong.length;
      const statuses = [...new Set(answers)].map(
        (one) => `${answers.filter((other) => other === one).length} × ${one}`,
      );
      console.log(
        `${name}: ${times.length} appends of another workshop, p50 ${at(times, 0.5).toFixed(0)} ms, p95 ${p95.toFixed(0)} ms, ratio ${ratio.toFixed(1)}; ${wrong.length} errors${statuses.length > 0 ? `; the attack was answered ${statuses.join(', ')}` : ''}`,
      );
    }
    console.log(
      `worst ratio ${worst.toFixed(1)} (at most ${WANTED}), ${errors} errors of the other workshop`,
    );
    await app.end();
    await app.close(null).catch(() => undefined);
    if (worst > WANTED || errors > 0) process.exitCode = 1;
  } finally {
    for (const agent of agents) agent.destroy();
    bed.close(false);
  }
}

await abuse();
process.exit();
