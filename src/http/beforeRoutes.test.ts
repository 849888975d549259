import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { standBeforeRoutes } from './beforeRoutes';

function asked(port: number, method: string): Promise<{ status?: number; allow?: string }> {
  return new Promise((resolve, reject) => {
    const request = http.request({ port, method, host: '127.0.0.1' }, (response) => {
      response.resume();
      response.on('end', () => resolve({ status: response.statusCode, allow: response.headers.allow }));
    });
    request.on('error', reject);
    request.end();
  });
}

test('TRACE and what nobody asks for are refused before the program sees them; all others come through', async () => {
  standBeforeRoutes();
  const seen: (string | undefined)[] = [];
  const server = http.createServer((request, response) => {
    seen.push(request.method);
    response.end();
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  try {
    for (const method of ['TRACE', 'PROPFIND', 'MKCOL', 'PURGE', 'SEARCH']) {
      expect(await asked(port, method)).toEqual({
        status: 405,
        allow: 'GET, HEAD, POST, PUT, PATCH, DELETE, OPTIONS',
      });
    }
    expect(seen).toEqual([]);
    for (const method of ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'])
      expect(await asked(port, method)).toMatchObject({ status: 200 });
    expect(seen).toHaveLength(7);
  } finally {
    await new Promise((resolve) => server.close(resolve));
  }
});
