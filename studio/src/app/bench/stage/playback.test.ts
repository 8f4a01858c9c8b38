import { advance } from './playback';

const span = { first: 10, last: 19 };
const at = (place: number, direction: 1 | -1 = 1) => ({ place, direction });

describe('playing', () => {
  it('in a loop shows each frame as long, the last one too', () => {
    expect(advance(at(19.5), 0.6, span, 'loop').place).toBeCloseTo(10.1);
    expect(advance(at(10), 25, span, 'loop').place).toBe(15);
  });
  it('once stops on the last frame after showing it', () => {
    expect(advance(at(18.5), 1, span, 'once')).toEqual({ place: 19.5, direction: 1, done: false });
    expect(advance(at(19), 1, span, 'once')).toEqual({ place: 19, direction: 1, done: true });
  });
  it('once stops too when it goes on by less than a frame at a time', () => {
    let playing = advance(at(18.5), 0.4, span, 'once');
    let steps = 1;
    for (; !playing.done && steps < 20; steps++) playing = advance(playing, 0.4, span, 'once');
    expect([playing.place, playing.done, steps]).toEqual([19, true, 4]);
  });
  it('forth and back turns round at both ends', () => {
    expect(advance(at(18), 2, span, 'forth')).toEqual({ place: 18, direction: -1, done: false });
    expect(advance(at(11, -1), 2, span, 'forth')).toEqual({ place: 11, direction: 1, done: false });
  });
  it('begins inside the span wherever the playhead stood', () => {
    expect(advance(at(500), 1, span, 'loop').place).toBe(11);
    expect(advance(at(-5), 1, span, 'once').place).toBe(11);
  });
});
