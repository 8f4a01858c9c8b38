import { jest } from '@jest/globals';
import type { WebGLRenderer } from 'three';
import { ViewScreen, type DrawnSoFar } from './view-screen';

const SIGNALED = 1;

/** A screen whose drawings are finished when the test says so, and what happened on it, in order. */
function screen(name = 'SwiftShader', soFar: () => DrawnSoFar = () => 'drawn') {
  const did: string[] = [];
  let finished = false;
  const gl = {
    getExtension: () => null,
    getParameter: () => name,
    fenceSync: () => ({}),
    flush: () => did.push('flush'),
    isContextLost: () => false,
    getSyncParameter: () => (finished ? SIGNALED : 0),
    deleteSync: () => undefined,
    SIGNALED,
  };
  const shown = {
    width: 1,
    height: 1,
    seen: '',
    dataset: {} as Record<string, string>,
    getContext: () => ({ drawImage: () => did.push('copy') }),
  };
  const drawn = { width: 8, height: 4 };
  const made = new ViewScreen(
    { getContext: () => gl } as unknown as WebGLRenderer,
    drawn as OffscreenCanvas,
    shown as unknown as HTMLCanvasElement,
    () => did.push('prepare'),
    soFar,
    (soFar) => (shown.seen = soFar),
  );
  return { made, did, shown, finish: (is: boolean) => (finished = is) };
}

describe('the screen of the view', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    globalThis.requestAnimationFrame = (run) => Number(setTimeout(() => run(0), 16));
  });
  afterEach(() => jest.useRealTimers());
  const pass = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

  it('copies a drawing only when the processor has finished it, and takes its size then', async () => {
    const { made, did, shown, finish } = screen();
    finish(true);
    made.show(() => {
      did.push('draw');
      finish(false);
    });
    await pass(100);
    expect([did.slice(2), shown.width, shown.dataset['state']]).toEqual([['draw', 'flush'], 1, 'drawing']);
    expect(shown.dataset).toHaveProperty('empty');
    finish(true);
    await pass(10);
    expect([did.at(-1), shown.width, shown.height, shown.dataset['state']]).toEqual(['copy', 8, 4, 'drawn']);
    expect(shown.dataset).not.toHaveProperty('empty');
  });

  it('says that it is drawn only when all has come that is to be drawn', async () => {
    let soFar: DrawnSoFar = 'faces';
    const { made, did, shown } = screen('A graphics card', () => soFar);
    made.show(() => undefined);
    await pass(20);
    expect([did.at(-1), shown.dataset['state'], shown.seen]).toEqual(['copy', 'faces', 'faces']);
    soFar = 'drawn';
    made.show(() => undefined);
    await pass(20);
    expect(shown.dataset['state']).toBe('drawn');
  });

  it('draws at once with a graphics card', async () => {
    const { made, did } = screen('A graphics card');
    made.show(() => did.push('draw'));
    await pass(20);
    expect(did).toEqual(['prepare', 'draw', 'copy']);
  });

  it('lets the page finish its frame first where the processor draws', async () => {
    for (const [name, inFrame] of [
      ['SwiftShader', []],
      ['A graphics card', ['prepare', 'draw', 'copy']],
    ] as const) {
      let frame: FrameRequestCallback | undefined;
      globalThis.requestAnimationFrame = (run) => {
        frame = run;
        return 1;
      };
      const { made, did, finish } = screen(name);
      finish(true);
      made.show(() => did.push('draw'));
      frame?.(0);
      expect(did).toEqual(inFrame);
      await pass(20);
      expect(did).toContain('draw');
    }
  });

  it('draws only the last of what is asked for meanwhile, and pictures after it', async () => {
    const { made, did, finish } = screen();
    const draw = (name: string) => () => did.push(name);
    finish(true);
    made.show(() => {
      draw('first')();
      finish(false);
    });
    await pass(40);
    made.take(draw('picture'), () => did.push('taken'));
    for (const name of ['second', 'third']) made.show(draw(name));
    finish(true);
    await pass(100);
    expect(did.filter((name) => name !== 'flush' && name !== 'prepare')).toEqual([
      'first',
      'copy',
      'third',
      'copy',
      'picture',
      'taken',
    ]);
  });

  it('has what the first drawing needs made ready before it, and draws nothing once it was left', async () => {
    const { made, did, finish } = screen();
    made.show(() => did.push('draw'));
    await pass(100);
    expect(did).toEqual(['prepare', 'flush']);
    made.leave();
    finish(true);
    await pass(100);
    expect(did).toEqual(['prepare', 'flush']);
  });
});
