import fc from 'fast-check';
import { frameIn } from './shot-frame';

describe('the frame of a shot in the view', () => {
  it('has its own shape and is whole in sight, whatever the view’s', () => {
    const aspects = fc.double({ min: 0.2, max: 6, noNaN: true });
    fc.assert(
      fc.property(aspects, aspects, (view, frame) => {
        const { width, height, scale } = frameIn(view, frame);
        expect((width * view) / height).toBeCloseTo(frame, 9);
        expect(width).toBeLessThan(0.95);
        expect(height).toBeLessThan(0.79);
        expect(scale * height).toBeCloseTo(1, 12);
      }),
    );
  });
});
