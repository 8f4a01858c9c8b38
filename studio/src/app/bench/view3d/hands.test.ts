import '@angular/compiler';
import { curveOf } from '@kaizen/core';
import { PerspectiveCamera, Vector3 } from 'three';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import { KeyInserter } from '../key-inserter';
import { Poser } from '../poser';
import { AxisEntry } from './axis-entry';
import { GripChip } from './grip-chip';
import { toScreen, type Eye } from './grip-math';
import { trailBeads } from './trail';
import { TrailHands } from './trail-hands';
import { ViewControl } from './view-control';

const RUN = 'wagon/translate.x';

/** An eye ten metres before the origin, looking at it. */
function eye(): Eye {
  const camera = new PerspectiveCamera(40, 2, 0.1, 100);
  camera.position.set(2, 0, 10);
  camera.lookAt(2, 0, 0);
  camera.updateMatrixWorld();
  camera.matrixWorldInverse.copy(camera.matrixWorld).invert();
  camera.updateProjectionMatrix();
  return { camera, width: 800, height: 400 };
}

function setUp() {
  const made = fakes(chartProject(), [
    ...[KeyInserter, Poser, AxisEntry, GripChip, TrailHands, ViewControl].map((each) => ({
      provide: each,
      useClass: each,
    })),
  ]);
  made.studio.pick({ parts: ['wagon'] });
  const { studio, stage } = made;
  return {
    ...made,
    hands: made.injector.get(TrailHands),
    entry: made.injector.get(AxisEntry),
    beads: () => trailBeads(studio.project()!, stage.program()!, 'wagon'),
    loose: () => studio.loose().map(({ channel, value }) => [channel, value]),
  };
}

describe('the trail under the hand', () => {
  it('finds the nearest bead, keys only where asked', () => {
    const { hands, beads } = setUp();
    const key = toScreen(eye(), new Vector3(2, 0, 0))!;
    expect(hands.beadAt(beads(), eye(), key.x + 3, key.y, true)).toMatchObject({ frame: 24, key: true });
    expect(hands.beadAt(beads(), eye(), key.x + 3, key.y + 20, false)).toBeNull();
    const between = toScreen(eye(), beads()[12]!.place)!;
    expect(hands.beadAt(beads(), eye(), between.x, between.y, true)).toBeNull();
    expect(hands.beadAt(beads(), eye(), between.x, between.y, false)).toMatchObject({ frame: 12 });
  });

  it('drags a key along the channels that have keys, shown meanwhile; Esc gives it up', () => {
    const { hands, beads, studio, stage } = setUp();
    const listeners = new Map<string, (event: object) => void>();
    Object.assign(globalThis, {
      addEventListener: (name: string, listener: (event: object) => void) => listeners.set(name, listener),
      removeEventListener: (name: string) => listeners.delete(name),
    });
    const corner = { left: 0, top: 0 } as DOMRect;
    const at = (x: number, y: number) => {
      const place = toScreen(eye(), new Vector3(x, y, 0))!;
      return { clientX: place.x, clientY: place.y } as PointerEvent;
    };
    const bead = beads().find(({ frame }) => frame === 24)!;
    hands.drag(bead, eye(), at(2, 0), corner);
    listeners.get('pointermove')!(at(2.5, 0.7));
    expect(curveOf(stage.preview()!, RUN)!.keys[1]!.value).toBeCloseTo(2.5, 6);
    listeners.get('keydown')!({ key: 'Escape', stopPropagation: () => undefined });
    expect(stage.preview()).toBeNull();
    expect(studio.labels).toEqual([]);
    hands.drag(bead, eye(), at(2, 0), corner);
    listeners.get('pointermove')!(at(1.5, 0));
    listeners.get('pointerup')!({});
    expect(curveOf(studio.project()!, RUN)!.keys[1]!.value).toBeCloseTo(1.5, 6);
    expect(studio.bench().keys).toEqual([{ channel: RUN, frame: 24 }]);
  });

  it('adds a key at a bead without changing the way', () => {
    const { hands, beads, studio } = setUp();
    hands.addKey(beads().find(({ frame }) => frame === 12)!);
    expect(curveOf(studio.project()!, RUN)!.keys.map(({ frame }) => frame)).toEqual([0, 12, 24, 48]);
    expect(studio.labels).toEqual(['Add a key at f 12 on the trail']);
  });
});

describe('nudges and typed amounts', () => {
  it('move, turn and size the chosen parts by a step', () => {
    const { entry, studio, loose } = setUp();
    studio.set({ steps: { on: false, length: 0.25, angle: 15 } });
    entry.nudge(1, 1);
    expect(loose()).toEqual([['wagon/translate.y', 0.25]]);
    studio.set({ tool: 'turn' });
    entry.nudge(2, -1);
    expect(loose()).toContainEqual(['wagon/rotate.z', -15]);
    studio.set({ tool: 'size' });
    entry.nudge(0, 1);
    expect(loose()).toContainEqual(['wagon/scale.x', 1.05]);
  });

  it('take several parts at once, those below another once', () => {
    const { entry, studio, loose } = setUp();
    studio.pick({ parts: ['wagon', 'hook', 'shed'] });
    studio.set({ tool: 'move' });
    entry.begin(1);
    entry.take('2');
    expect(loose()).toEqual([
      ['wagon/translate.y', 2],
      ['shed/translate.y', 2],
    ]);
  });

  it('turn about the point that is set', () => {
    const { entry, studio, loose, stage } = setUp();
    stage.frame.set(24);
    studio.set({ tool: 'turn', axes: 'world', turnPoint: [0, 0, 0] });
    entry.begin(1);
    expect(entry.title()).toBe('Turn Y, the world’s axis, by');
    entry.take('180');
    expect(loose()).toEqual([
      ['wagon/rotate.y', 180],
      [RUN, -2],
    ]);
  });
});
