import { isolationGate, lookAlikes, STEPS, TASKS, tagProblem } from './isolation';

describe('the gate before work on a box', () => {
  test('lifting a box is blocked without isolation, pulling a fuse with its load off is not', () => {
    expect(isolationGate('lift-box', [])).toMatchObject({
      allowed: false,
      missing: ['key-off', 'earthed-pole-off'],
    });
    expect(isolationGate('lift-box', ['key-off']).sentence).toContain('earthed pole');
    expect(isolationGate('lift-box', ['key-off', 'earthed-pole-off']).allowed).toBe(true);
    for (const task of ['pull-fuse', 'probe', 'cover-off'] as const)
      expect(isolationGate(task, []).allowed).toBe(true);
  });
  test('cutting wants a dead reading as well; a module plug wants the sleep', () => {
    expect(isolationGate('cut-or-solder', ['key-off', 'earthed-pole-off']).missing).toEqual(['dead-reading']);
    expect(isolationGate('module-plug', ['key-off']).missing).toEqual(['slept']);
  });
  test('near a restraint an unknown waiting time means stop, whatever was done', () => {
    expect(isolationGate('near-restraint', [...STEPS]).allowed).toBe(false);
    expect(isolationGate('near-restraint', [...STEPS]).sentence).toContain('stop');
    expect(isolationGate('near-restraint', [...STEPS], 10).allowed).toBe(true);
    expect(isolationGate('near-restraint', ['key-off', 'earthed-pole-off'], 10).allowed).toBe(false);
  });
  test('more isolation never closes a gate that was open', () => {
    for (const task of TASKS) {
      for (let count = 0; count < STEPS.length; count++) {
        const before = isolationGate(task, STEPS.slice(0, count), 10).allowed;
        if (before) expect(isolationGate(task, STEPS.slice(0, count + 1), 10).allowed).toBe(true);
      }
    }
  });
});

describe('plugs', () => {
  const plugs = [
    { id: 'a', name: 'Plug A', shape: 'grey 12' },
    { id: 'b', name: 'Plug B', shape: 'grey 12' },
    { id: 'c', name: 'Plug C', shape: 'black 4' },
  ];
  test('two of equal shape need different tags; another shape may bear the same', () => {
    const tags = [{ plug: 'a', tag: 'upper' }];
    expect(tagProblem(plugs, tags, 'b', 'Upper')).toContain('two equal plugs need different tags');
    expect(tagProblem(plugs, tags, 'b', 'lower')).toBeNull();
    expect(tagProblem(plugs, tags, 'c', 'upper')).toBeNull();
    expect(tagProblem(plugs, tags, 'a', 'upper')).toBeNull();
    expect(tagProblem(plugs, tags, 'b', '  ')).toContain('Write what stands');
  });
  test('look-alikes are named together', () => {
    expect(lookAlikes(plugs)).toEqual([['Plug A', 'Plug B']]);
  });
});
