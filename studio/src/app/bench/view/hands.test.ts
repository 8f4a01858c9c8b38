import '@angular/compiler';
import { curveOf } from '@kaizen/core';
import { PerspectiveCamera, Vector3 } from 'three';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import { AmountStrip } from './amount-strip';
import { HandledParts } from './handled-parts';
import { toScreen, type Eye } from './grip-math';
import { trailBeads } from './trail';
import { TrailHands } from './trail-hands';

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
  const made = fakes(chartProject());
  made.studio.pick({ parts: ['wagon'] });
  const { studio, stage } = made;
  return {
    ...made,
    hands: made.injector.get(TrailHands),
    parts: made.injector.get(HandledParts),
    strip: made.injector.get(AmountStrip),
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
    expect(curveOf(stage.proposed()!, RUN)!.keys[1]!.value).toBeCloseTo(2.5, 6);
    listeners.get('keydown')!({
      key: 'Escape',
      stopPropagation: () => undefined,
      preventDefault: () => undefined,
    });
    expect(stage.proposed()).toBeNull();
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

describe('nudges', () => {
  it('move, turn and size the chosen parts by a step', () => {
    const { parts, studio, loose } = setUp();
    studio.set({ steps: { on: false, length: 0.25, angle: 15 } });
    parts.nudge(1, 1);
    expect(loose()).toEqual([['wagon/translate.y', 0.25]]);
    studio.set({ tool: 'turn' });
    parts.nudge(2, -1);
    expect(loose()).toContainEqual(['wagon/rotate.z', -15]);
    studio.set({ tool: 'size' });
    parts.nudge(0, 1);
    expect(loose()).toContainEqual(['wagon/scale.x', 1.05]);
  });
});

describe('the strip of exact amounts', () => {
  const opened = (tool: 'move' | 'turn' | 'size') => {
    const made = setUp();
    made.studio.set({ tool });
    made.strip.begin();
    return made;
  };

  it('puts a number into the part’s own channel, with arithmetic and units, and tells what it makes', () => {
    const { strip, loose } = opened('move');
    strip.type(1, '2.6/2');
    strip.type(2, '40 cm');
    expect(strip.fields().map(({ makes }) => makes)).toEqual(['', '= 1.300', '= 0.400']);
    expect(loose()).toEqual([]);
    strip.take();
    expect(loose()).toEqual([
      ['wagon/translate.y', 1.3],
      ['wagon/translate.z', 0.4],
    ]);
    expect(strip.open()).toBeNull();
  });

  it('moves several parts by an amount at once, those below another once', () => {
    const { strip, studio, loose } = setUp();
    studio.pick({ parts: ['wagon', 'hook', 'shed'] });
    studio.set({ tool: 'move' });
    strip.begin();
    strip.type(1, 'by 2');
    strip.take();
    expect(loose()).toEqual([
      ['wagon/translate.y', 2],
      ['shed/translate.y', 2],
    ]);
  });

  it('turns by an amount about the point that is set', () => {
    const { strip, studio, loose, stage } = setUp();
    stage.frame.set(24);
    studio.set({ tool: 'turn', axes: 'world', turnPoint: [0, 0, 0] });
    strip.begin(1);
    expect(strip.about()).toBe('“by” goes along the world’s axes about the point');
    strip.type(1, 'by 180');
    strip.take();
    expect(loose()).toEqual([
      ['wagon/rotate.y', 180],
      [RUN, -2],
    ]);
  });

  it('sizes by a factor', () => {
    const { strip, loose } = opened('size');
    strip.type(0, 'times 2');
    strip.take();
    expect(loose()).toEqual([['wagon/scale.x', 2]]);
  });

  it('stays where a number is none, and changes nothing when it is left', () => {
    const { strip, loose, notices, stage } = opened('move');
    strip.type(0, 'far');
    strip.take();
    expect([strip.open(), notices.said]).toEqual([0, expect.stringMatching(/is no number here/)]);
    strip.type(0, '3');
    expect(stage.posing()).toHaveLength(1);
    strip.end();
    expect(stage.posing()).toEqual([]);
    expect(loose()).toEqual([]);
  });
});
