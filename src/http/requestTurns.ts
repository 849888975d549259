/**
 * How many requests of one sender are worked on at once. The rest of them wait in line, so that a sender who asks for hundreds
 * of things takes as much of the server from the others as one who asks for a few.
 *
 * Whoever asks for more at once than a page does is worked on one at a time, with as long a rest after each as it took: every
 * request that is worked on makes each other wait, as all of them share one thread.
 *
 * A sender is a session, or without one an address; the sessions of one address have a limit together, as a session can be
 * made up. A request is worked on until its answer begins or its connection ends, and at most for `TURN_MS`: what takes longer
 * waits for something that has turns of its own (sheets, backups), or stays open (live connections).
 */
import { AsyncResource } from 'node:async_hooks';
import type http from 'node:http';
import { setTimeout as after } from 'node:timers/promises';
import PQueue from 'p-queue';
import { clientAddress } from '@/access';

/** Worked on at once for one sender: what a page asks for when it opens. */
const OF_SENDER = 4;
/**
 * Whoever has more than so many waiting beside those is no page at work. One that opens over HTTP/2 asks for all its files at
 * once, and loses nothing by it: they are short.
 */
const CROWD = 4;
/** Worked on at once for one address, behind which a whole workshop may work. */
const OF_ADDRESS = 12;
/** Requests of one sender that may wait. */
const MOST_WAITING = 500;
/** Milliseconds after which the next of the same sender begins in any case. */
const TURN_MS = 1000;
/** The longest rest, milliseconds. */
const MOST_REST_MS = 200;
const AGAIN_SECONDS = 5;

const SESSION = /(?:^|;\s*)(?:__Secure-)?every-trace\.(?:session_token|demo)=([^;]+)/;

/** Who sends: the address, and the session if there is one. */
export function senderOf(headers: http.IncomingHttpHeaders): {
  readonly address: string;
  readonly session: string;
} {
  const get = (name: string) => {
    const said = headers[name];
    return Array.isArray(said) ? said.join(', ') : (said ?? null);
  };
  return { address: clientAddress({ get }), session: SESSION.exec(headers.cookie ?? '')?.[1] ?? '' };
}

/** Ends when the answer begins, the connection ends, or the turn is over. */
function turnOf(response: http.ServerResponse, turnMs: number): Promise<void> {
  return new Promise((resolve) => {
    const over = setTimeout(end, turnMs);
    function end(): void {
      clearTimeout(over);
      resolve();
    }
    response.once('close', end);
    const { writeHead } = response;
    response.writeHead = function (this: http.ServerResponse, ...told: unknown[]) {
      end();
      return (writeHead as (...all: unknown[]) => http.ServerResponse).apply(this, told);
    } as typeof writeHead;
  });
}

const isCrowd = (own: PQueue) => own.size > CROWD;

function narrow(own: PQueue): void {
  const atOnce = isCrowd(own) ? 1 : OF_SENDER;
  if (own.concurrency !== atOnce) own.concurrency = atOnce;
}

export class RequestTurns {
  private readonly lines = new Map<string, PQueue>();

  constructor(private readonly turnMs = TURN_MS) {}

  /** Lets `work` begin when it is the turn of this request; answers 503 where too many of the sender wait already. */
  take(request: http.IncomingMessage, response: http.ServerResponse, work: () => void): void {
    const { address, session } = senderOf(request.headers);
    const own = this.line(`${address} ${session}`, OF_SENDER);
    if (own.size >= MOST_WAITING) {
      response.writeHead(503, {
        'Retry-After': String(AGAIN_SECONDS),
        'Content-Type': 'application/json; charset=utf-8',
      });
      response.end(
        JSON.stringify({
          message: 'Too many requests wait already. Nothing is lost; ask again in a moment.',
        }),
      );
      return;
    }
    // A request that begins when another ends is not a part of that other.
    const begin = AsyncResource.bind(work);
    void own.add(async () => {
      narrow(own);
      const took = await this.line(address, OF_ADDRESS).add(async () => {
        // Whoever has gone meanwhile needs no answer.
        if (response.destroyed) return 0;
        const began = performance.now();
        const turn = turnOf(response, this.turnMs);
        begin();
        await turn;
        return performance.now() - began;
      });
      if (isCrowd(own)) await after(Math.min(took, MOST_REST_MS));
    });
    narrow(own);
  }

  /** Requests that wait or are worked on have a line; without any of them there is none. */
  private line(name: string, concurrency: number): PQueue {
    const there = this.lines.get(name);
    if (there) return there;
    const line = new PQueue({ concurrency });
    line.on('idle', () => this.lines.delete(name));
    this.lines.set(name, line);
    return line;
  }

  /** Senders and addresses of whom something waits or is worked on. */
  get senders(): number {
    return this.lines.size;
  }
}
