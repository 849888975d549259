/** No route and no page without the one door: found by walking all of them. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const APP = path.resolve(__dirname, '../src/app');

function files(folder: string, name: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const inside = path.join(folder, entry.name);
    return entry.isDirectory() ? files(inside, name) : entry.name === name ? [inside] : [];
  });
}

const METHOD =
  /export (?:const|async function|function|let|var) (GET|HEAD|POST|PUT|PATCH|DELETE|OPTIONS)\b([^\n]*)/g;
const DOOR = /^ = (door(<[^>]*>)?\(\s*'(see|work|lead|own)'|door(<[^>]*>)?\($|open(<[^>]*>)?\()/;

/** What a file of a route offers without a door; a file that hands methods on from elsewhere is one of them. */
function withoutDoor(text: string): string[] {
  const found = [...text.matchAll(METHOD)]
    .filter(([, , rest]) => !DOOR.test(rest ?? ''))
    .map(([, method]) => method!);
  return /export (\*|\{[^}]*\b(GET|POST|PUT|PATCH|DELETE)\b)/.test(text) ? [...found, 'handed on'] : found;
}

const routes = files(APP, 'route.ts');

test('every method of every route goes through the door, or says why it is open', () => {
  expect(routes.length).toBeGreaterThan(40);
  expect(
    routes.flatMap((file) => withoutDoor(readFileSync(file, 'utf8')).map((one) => `${file} ${one}`)),
  ).toEqual([]);
});

test('a method without a door is seen', () => {
  for (const planted of [
    'export function GET() {}',
    'export async function POST(request: Request) {}',
    'export const DELETE = async () => new Response();',
    "export { GET } from './elsewhere';",
    "export * from './elsewhere';",
  ]) {
    expect([planted, withoutDoor(planted).length > 0]).toEqual([planted, true]);
  }
  expect(withoutDoor("export const GET = door('see', async () => new Response());")).toEqual([]);
});

test('every page of a shop asks who looks; those that do not are before the door, or show nothing of a shop', () => {
  const pages = files(path.join(APP, '(pages)'), 'page.tsx');
  const asking = (file: string) => readFileSync(file, 'utf8').includes('pageActor(');
  const open = pages.filter((file) => !asking(file)).map((file) => path.relative(APP, file));
  // Its frame asks for them all; these hold nothing that is not the same for everybody.
  expect(open.sort()).toEqual([
    '(pages)/[...nowhere]/page.tsx',
    '(pages)/controls/page.tsx',
    '(pages)/sums/[[...sum]]/page.tsx',
  ]);
  expect(asking(path.join(APP, '(pages)/layout.tsx'))).toBe(true);
});

test('there are no server actions: each would be a door of its own', () => {
  const every = readdirSync(path.resolve(APP, '..'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name))
    .map((entry) => path.join(entry.parentPath, entry.name));
  expect(every.filter((file) => /^['"]use server['"]/m.test(readFileSync(file, 'utf8')))).toEqual([]);
});
