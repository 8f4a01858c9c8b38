import '@angular/compiler';
import { newPart, newProject, spaceAxes, type Project } from '@kaizen/core';
import { jest } from '@jest/globals';
import { fakes } from '../../testing/fake-studio';
import { Stage } from '../stage/stage';
import { ViewControl } from '../stage/view-control';
import { Fly } from './fly';
import { ShotLook } from './shot-look';

const FOCUS = 5;
const HEIGHT = 800;

/** A camera ten metres before the origin, a metre above the floor, looking along −Z. */
function withCamera(): Project {
  const camera = newPart('camera', 'Quay camera');
  if (camera.kind !== 'camera') throw new Error('a camera was asked for');
  const rest = { ...camera.rest, translate: [0, 1, 10] as const, rotate: [0, 0, 0] as const };
  const lens = { ...camera.camera, focusDistance: FOCUS };
  return { ...newProject('p', 'P'), parts: [{ ...camera, id: 'cam', rest, camera: lens }] };
}

function setUp() {
  const made = fakes(withCamera());
  const { studio, injector } = made;
  studio.set({ fly: true });
  injector.get(ViewControl).shot.set('cam');
  const look = injector.get(ShotLook);
  look.size.set({ width: 1280, height: HEIGHT });
  look.take(injector.get(Stage).now()!, look.part()!);
  const fly = injector.get(Fly);
  const kept: string[] = [];
  const event = <T extends Event>(more: Partial<T>) =>
    ({
      preventDefault: () => kept.push('default'),
      stopPropagation: () => kept.push('way'),
      ...more,
    }) as unknown as T;
  const press = (key: string, more: Partial<KeyboardEvent> = {}) =>
    fly.press(event<KeyboardEvent>({ key, ...more }));
  const roll = (deltaY: number) => fly.roll(event<WheelEvent>({ deltaY }));
  const loose = () => Object.fromEntries(studio.loose().map(({ channel, value }) => [channel, value]));
  return { ...made, look, press, roll, loose, kept };
}

describe('flying the camera that is looked through', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('a notch of the wheel goes a twentieth of the focus distance along the sight', () => {
    const { roll, loose, studio, kept } = setUp();
    roll(-100);
    expect(loose()).toEqual({});
    jest.advanceTimersByTime(300);
    expect(loose()).toEqual({ 'cam/translate.z': 10 - 0.05 * FOCUS });
    expect(studio.labels).toHaveLength(0);
    expect(kept).toEqual(['default', 'way']);
  });

  it('what comes within a moment is one flight, however it was flown', () => {
    const { press, roll, loose } = setUp();
    press('PageUp');
    jest.advanceTimersByTime(200);
    roll(-3);
    jest.advanceTimersByTime(200);
    press('PageDown');
    jest.advanceTimersByTime(299);
    expect(loose()).toEqual({});
    jest.advanceTimersByTime(1);
    expect(loose()).toEqual({ 'cam/translate.z': 9.75 });
  });

  it('arrows look about as a drag of sixteen pixels does', () => {
    const aside = setUp();
    aside.press('ArrowRight');
    aside.press('ArrowRight');
    jest.advanceTimersByTime(300);
    expect(aside.loose()).toEqual({ 'cam/rotate.y': -2 * 16 * 0.12 });
    const up = setUp();
    up.press('ArrowUp');
    jest.advanceTimersByTime(300);
    expect(up.loose()).toEqual({ 'cam/rotate.x': 16 * 0.12 });
  });

  it('the horizon stays level, however it is looked about', () => {
    const { press, loose } = setUp();
    for (const key of ['ArrowRight', 'ArrowUp', 'ArrowUp', 'ArrowLeft', 'ArrowUp', 'ArrowRight']) press(key);
    jest.advanceTimersByTime(300);
    const values = loose();
    const turn = (['x', 'y', 'z'] as const).map((axis) => values[`cam/rotate.${axis}`] ?? 0);
    // The camera’s own right, the first of its axes, has no height; its sight, the third, has.
    const axes = spaceAxes('own', null, 'XYZ', turn as [number, number, number]);
    expect(axes[1]).toBeCloseTo(0, 7);
    expect(-axes[7]!).toBeCloseTo(Math.sin((3 * 16 * 0.12 * Math.PI) / 180), 7);
  });

  it('with Shift they shift the camera so far that what is in focus goes by as many pixels', () => {
    const { press, loose, look } = setUp();
    press('ArrowRight', { shiftKey: true });
    press('ArrowUp', { shiftKey: true });
    jest.advanceTimersByTime(300);
    const metres = (2 * Math.tan((look.camera.fov * Math.PI) / 360) * FOCUS) / HEIGHT;
    expect(loose()['cam/translate.x']).toBeCloseTo(16 * metres, 6);
    expect(loose()['cam/translate.y']).toBeCloseTo(1 + 16 * metres, 6);
  });

  it('any letter takes what was flown before it means something else; keys with Ctrl do not fly', () => {
    const { press, loose, kept } = setUp();
    press('PageDown');
    kept.length = 0;
    press('d');
    expect(loose()).toEqual({ 'cam/translate.z': 10.25 });
    press('ArrowRight', { ctrlKey: true });
    jest.advanceTimersByTime(1000);
    expect(loose()).toEqual({ 'cam/translate.z': 10.25 });
    expect(kept).toEqual([]);
  });

  it('flies no camera that may not be changed, plays, or is not looked through', () => {
    const { press, roll, loose, studio, stage, injector, kept } = setUp();
    const nothing = () => {
      press('PageUp');
      roll(-1);
      jest.advanceTimersByTime(300);
      expect(loose()).toEqual({});
      expect(kept).toEqual([]);
    };
    studio.readOnly.set(true);
    nothing();
    studio.readOnly.set(false);
    stage.playing.set(true);
    nothing();
    stage.playing.set(false);
    injector.get(ViewControl).shot.set(null);
    nothing();
    injector.get(ViewControl).shot.set('cam');
    studio.set({ fly: false });
    nothing();
  });

  it('makes a key of it while Capture is on', () => {
    const { press, studio, loose } = setUp();
    studio.set({ capture: { ...studio.bench().capture, on: true, startNew: true } });
    press('PageUp');
    jest.advanceTimersByTime(300);
    expect(loose()).toEqual({});
    expect(studio.labels).toEqual(['Fly Quay camera']);
    const curve = studio.project()!.clips[0]!.curves[0]!;
    expect(curve.channel).toBe('cam/translate.z');
    expect(curve.keys.map(({ frame, value }) => [frame, value])).toEqual([[0, 9.75]]);
  });
});
