import { PerspectiveCamera, Ray, Vector3 } from 'three';
import { alongAxis, angleAbout, metresPerPixel, onPlane, rayThrough, toScreen } from './grip-math';

function eyeAt(x: number, y: number, z: number) {
  const camera = new PerspectiveCamera(60, 2, 0.1, 100);
  camera.position.set(x, y, z);
  camera.lookAt(0, 0, 0);
  camera.updateMatrixWorld();
  return { camera, width: 800, height: 400 };
}

describe('grips', () => {
  it('a ray through the pixel of a place meets the place', () => {
    const eye = eyeAt(3, 4, 5);
    const place = new Vector3(0.7, -0.3, 0.2);
    const pixel = toScreen(eye, place)!;
    const ray = rayThrough(eye, pixel.x, pixel.y);
    expect(ray.distanceToPoint(place)).toBeLessThan(1e-6);
    expect(toScreen(eye, new Vector3(9, 12, 15))).toBeNull();
  });

  it('a metre shows as many pixels as the lens says', () => {
    const eye = eyeAt(0, 0, 10);
    const [a, b] = [toScreen(eye, new Vector3())!, toScreen(eye, new Vector3(1, 0, 0))!];
    expect(1 / a.distanceTo(b)).toBeCloseTo(metresPerPixel(eye, new Vector3()), 10);
    expect(metresPerPixel(eye, new Vector3())).toBeCloseTo((2 * 10 * Math.tan(Math.PI / 6)) / 400, 12);
  });

  it('finds how far along an axis the pointer is', () => {
    const ray = new Ray(new Vector3(2.5, 3, 8), new Vector3(0, 0, -1));
    expect(alongAxis(ray, new Vector3(1, 0, 0), new Vector3(1, 0, 0))).toBeCloseTo(1.5, 12);
    expect(alongAxis(ray, new Vector3(), new Vector3(0, 0, 1))).toBe(0);
  });

  it('turns are right-handed about their axis', () => {
    const y = new Vector3(0, 1, 0);
    expect(angleAbout(y, new Vector3(1, 0.4, 0), new Vector3(0, -2, -1))).toBeCloseTo(90, 10);
    expect(angleAbout(y, new Vector3(1, 0, 0), new Vector3(0, 0, 1))).toBeCloseTo(-90, 10);
  });

  it('meets a plane, but not one it runs along', () => {
    const ray = new Ray(new Vector3(0, 5, 0), new Vector3(0, -1, 0));
    expect(onPlane(ray, new Vector3(0, 1, 0), new Vector3(0, 1, 0))!.toArray()).toEqual([0, 1, 0]);
    expect(onPlane(ray, new Vector3(), new Vector3(1, 0, 0))).toBeNull();
  });
});
