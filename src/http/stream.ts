/** A stream of events to one page (`text/event-stream`): lasts until the page goes, or the server says no more. */

/** So often something is said although nothing happened, so that a page knows a stream that died from a quiet one. */
const BEAT_MS = 15_000;

export interface Stream {
  /** Says one event; nothing once the stream is over. */
  say(event: string, data: unknown): void;
  end(): void;
}

/** Opens a stream. `begin` says what there is, and gives what is done at each beat and when the stream is over. */
export function streamTo(
  request: Request,
  begin: (stream: Stream) => { readonly beat: () => void; readonly over: () => void },
): Response {
  const encoder = new TextEncoder();
  let stop: () => void = () => undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      let open = true;
      let timer: ReturnType<typeof setInterval> | undefined;
      let over: () => void = () => undefined;
      stop = () => {
        if (!open) return;
        open = false;
        clearInterval(timer);
        over();
        try {
          controller.close();
        } catch {
          // The page has gone already.
        }
      };
      const stream: Stream = {
        say: (event, data) => {
          if (!open) return;
          try {
            controller.enqueue(encoder.encode(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`));
          } catch {
            stop();
          }
        },
        end: () => stop(),
      };
      const { beat, over: ended } = begin(stream);
      over = ended;
      timer = setInterval(() => {
        stream.say('beat', {});
        beat();
      }, BEAT_MS);
      request.signal.addEventListener('abort', () => stop());
    },
    cancel: () => stop(),
  });
  return new Response(body, {
    headers: {
      'Content-Type': 'text/event-stream; charset=utf-8',
      // Nothing on the way may hold it back to pack it.
      'Cache-Control': 'no-store, no-transform',
      'X-Accel-Buffering': 'no',
    },
  });
}
