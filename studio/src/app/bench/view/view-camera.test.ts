import { PerspectiveCamera, Vector3 } from 'three';
import { toScreen } from './grip-math';
import { ViewCamera } from './view-camera';

/** What the controls need of the element that they listen at. */
const element = () => {
  const target = new EventTarget();
  return Object.assign(target, { style: {}, getRootNode: () => target, ownerDocument: target });
};

describe('the working view', () => {
  it('knows where things are on the screen as soon as it tells that it moved', () => {
    const camera = new PerspectiveCamera(40, 2, 0.05, 2000);
    const middle = new Vector3(1, 2, 3);
    const told: (readonly number[] | null)[] = [];
    const view = new ViewCamera(camera, element() as unknown as HTMLElement, () =>
      told.push(toScreen({ camera, width: 800, height: 400 }, middle)?.toArray() ?? null),
    );
    view.open([new Vector3(0, 1, 2), new Vector3(2, 3, 4)]);
    view.lookFrom(new Vector3(1, 0, 0));
    expect(told.length).toBe(2);
    for (const at of told) {
      expect(at![0]).toBeCloseTo(400, 6);
      expect(at![1]).toBeCloseTo(200, 6);
    }
  });
});
