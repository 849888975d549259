/**
 * What stands before the application in the network: TLS, and one page over plain HTTP. It passes on what it is asked as it
 * comes, without holding it back, and says of the client what it knows itself and nothing that the client said.
 */
import http from 'node:http';
import http2 from 'node:http2';
import { portWords } from '../lib/ports.mjs';
import { Halt } from '../lib/shell.mjs';
import { trustPage } from './trustPage.mjs';

/**
 * One connection for everything a browser asks, as HTTP/2 has it. By six, requests that hang in a link that was cut hold
 * them all, and the stream of news one: what waits on the phone would have to wait for them. Who cannot is served by 1.1.
 */
const TLS = { allowHTTP1: true, minVersion: 'TLSv1.2' };

/** Headers of one connection, and those by which somebody might pretend to be the front. */
const NOT_PASSED = new Set([
  'connection',
  'keep-alive',
  'proxy-authenticate',
  'proxy-authorization',
  'proxy-connection',
  'te',
  'trailer',
  'transfer-encoding',
  'upgrade',
  'forwarded',
  'via',
  'x-real-ip',
  'x-every-trace-front',
]);
const isPassed = (name) => !NOT_PASSED.has(name) && !name.startsWith('x-forwarded-') && !name.startsWith(':');
/** A name is believed to be secure for a week; only the one of our own, which nothing else answers to. */
const HSTS = 'max-age=604800';
const AWAY =
  'The workshop’s program does not answer at the moment. It is asked again when you load this page.';

/**
 * A connection for each request: the application lets go of idle ones, and a request that is sent in that moment would be
 * lost. On loopback a new one costs next to nothing.
 */
const EACH_ITS_OWN = new http.Agent({ keepAlive: false });

const plainAddress = (address) => (address ?? '').replace(/^::ffff:/, '');

/**
 * Opens both servers. `now` gives the certificate, the hosts and the rest as they are at the moment. `app`: port of the
 * application on loopback; `secret`: by which it knows the front.
 */
export async function openFront({ app, secret, port, plainPort, now }) {
  const { cert, key } = now().leaf;
  const secure = http2.createSecureServer({ ...TLS, cert, key }, (request, response) =>
    passOn(request, response, { app, secret, stable: now().stable }),
  );
  const plain = http.createServer((request, response) => overPlain(request, response, now()));
  const open = new Set();
  for (const server of [secure, plain]) {
    server.requestTimeout = 300_000;
    server.headersTimeout = 20_000;
    server.on('clientError', (_error, socket) => socket.destroy());
    server.on('connection', (socket) => {
      open.add(socket);
      socket.on('close', () => open.delete(socket));
    });
  }
  secure.on('tlsClientError', (_error, socket) => socket.destroy());
  secure.on('sessionError', (_error, session) => session.destroy());
  await listen(secure, port, 'SHARE_PORT');
  try {
    await listen(plain, plainPort, 'SHARE_PLAIN_PORT');
  } catch (error) {
    secure.close();
    throw error;
  }
  return {
    /** Shows another certificate from now on; connections that are open stay. */
    show: (leaf) => secure.setSecureContext({ ...TLS, cert: leaf.cert, key: leaf.key }),
    stop: async () => {
      const closed = [secure, plain].map((server) => new Promise((resolve) => server.close(resolve)));
      for (const socket of open) socket.destroy();
      await Promise.all(closed);
    },
  };
}

function listen(server, port, name) {
  return new Promise((resolve, reject) => {
    server.once('error', (error) => {
      const words = portWords(error.code, port, name);
      reject(words ? new Halt(words) : error);
    });
    server.listen(port, '0.0.0.0', resolve);
  });
}

function passOn(request, response, { app, secret, stable }) {
  const headers = Object.fromEntries(Object.entries(request.headers).filter(([name]) => isPassed(name)));
  // HTTP/2 calls it the authority.
  const asked = request.authority ?? request.headers.host ?? '';
  const upstream = http.request(
    {
      agent: EACH_ITS_OWN,
      host: '127.0.0.1',
      port: app,
      method: request.method,
      path: request.url,
      headers: {
        ...headers,
        host: asked,
        'x-forwarded-for': plainAddress(request.socket.remoteAddress),
        'x-forwarded-proto': 'https',
        'x-forwarded-host': asked,
        'x-every-trace-front': secret,
      },
    },
    (answer) => {
      const kept = Object.entries(answer.headers).filter(([name]) => !NOT_PASSED.has(name));
      if (asked.split(':')[0].toLowerCase() === stable) kept.push(['strict-transport-security', HSTS]);
      response.writeHead(answer.statusCode ?? 502, Object.fromEntries(kept));
      response.flushHeaders();
      answer.pipe(response);
      answer.on('error', () => response.destroy());
    },
  );
  upstream.on('error', () => {
    if (response.headersSent) response.destroy();
    else
      response.writeHead(503, { 'Content-Type': 'text/plain; charset=utf-8', 'Retry-After': '5' }).end(AWAY);
  });
  response.on('close', () => upstream.destroy());
  // Gone before it had all.
  response.on('error', () => upstream.destroy());
  request.pipe(upstream);
}

/** The page that says how to trust, and the authority itself; everything else is over TLS. */
function overPlain(request, response, { machine, authority, fingerprint, hosts, port, stable }) {
  const headers = {
    'X-Content-Type-Options': 'nosniff',
    'X-Frame-Options': 'DENY',
    'Referrer-Policy': 'no-referrer',
    'Cache-Control': 'no-store',
  };
  const asked = (request.url ?? '/').split('?')[0];
  const host = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
  // A name that somebody made point here gets nothing, as with the application.
  if (!hosts.some((one) => one.replace(/:\d+$/, '') === host)) {
    response.writeHead(403, { ...headers, 'Content-Type': 'text/plain; charset=utf-8' });
    response.end('This address does not belong to the application.');
    return;
  }
  const secure = `https://${host}:${port}`;
  if (request.method !== 'GET' && request.method !== 'HEAD') {
    response.writeHead(405, headers).end();
  } else if (asked === '/') {
    response.writeHead(200, {
      ...headers,
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy':
        "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    });
    response.end(
      trustPage({ machine, named: `https://${stable}:${port}/`, secure: `${secure}/`, fingerprint }),
    );
  } else if (asked === '/authority.crt') {
    response.writeHead(200, {
      ...headers,
      'Content-Type': 'application/x-x509-ca-cert',
      'Content-Disposition': 'attachment; filename="every-trace-authority.crt"',
    });
    response.end(authority.pem);
  } else {
    response.writeHead(308, { ...headers, Location: `${secure}${request.url}` }).end();
  }
}
