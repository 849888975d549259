/** When a page is at rest: nothing that is looked at and nothing fetched ahead is on its way, whoever waits for that. */
type AtRest = typeof import('./atRest');

const drawing = 16;
let root: { dataset: { atRest?: string } };
let page: AtRest;
beforeEach(() => {
  jest.useFakeTimers();
  root = { dataset: {} };
  Object.assign(globalThis, {
    document: { documentElement: root },
    requestAnimationFrame: (draw: () => void) => setTimeout(draw, drawing),
  });
  jest.isolateModules(() => {
    page = jest.requireActual<AtRest>('./atRest');
  });
});
afterEach(() => jest.useRealTimers());

const later = (ms = 200) => jest.advanceTimersByTimeAsync(ms);
const isAtRest = () => root.dataset.atRest !== undefined;

test('at rest once what is looked at and what is ahead has ended, in whatever order', async () => {
  const ends = [page.onItsWay('looked at'), page.onItsWay('ahead')];
  await later();
  ends[1]!();
  await later();
  expect(isAtRest()).toBe(false);
  ends[0]!();
  await later();
  expect(isAtRest()).toBe(true);
  page.onItsWay('ahead');
  expect(isAtRest()).toBe(false);
});

test('who waits and begins nothing keeps no page from rest, also where everything ends just then', async () => {
  const end = page.onItsWay('ahead');
  end();
  // Between the end and the drawing after it.
  let told = false;
  void page.whenShown().then(() => {
    told = true;
  });
  await later();
  expect(told).toBe(true);
  expect(isAtRest()).toBe(true);
});

test('what begins once everything is shown keeps the page from rest until it ends', async () => {
  let end: () => void = () => undefined;
  const shown = page.onItsWay('looked at');
  void page.whenShown().then(() => {
    end = page.onItsWay('ahead');
  });
  await later();
  expect(isAtRest()).toBe(false);
  shown();
  await later();
  expect(isAtRest()).toBe(false);
  end();
  await later();
  expect(isAtRest()).toBe(true);
});
