import '@angular/compiler';
import { curveOf, type Project } from '@kaizen/core';
import { PerspectiveCamera, Vector3 } from 'three';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import { windowPointer } from '../../testing/window-pointer';
import { AmountStrip } from './amount-strip';
import { HandledParts } from './handled-parts';
import { toScreen, type Eye } from './grip-math';
import { trailBeads } from './trail';
import { TrailKey } from './draggable/trail-key';
import { ViewGrips } from './view-grips';

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

/** The project of the Chart's tests, where the shed is a box. */
function withBox(): Project {
  const project = chartProject();
  const material = { baseColor: [1, 1, 1, 1], roughness: 1, metallic: 0, emissive: [0, 0, 0] } as const;
  const box = { kind: 'mesh', geometry: { shape: 'box', size: [1, 1, 1] }, material, morphs: [] } as const;
  return {
    ...project,
    parts: project.parts.map((part) => (part.id === 'shed' ? { ...part, ...box } : part)),
  };
}

function setUp(chosen = 'wagon') {
  const made = fakes(withBox());
  made.studio.pick({ parts: [chosen] });
  const { studio, stage } = made;
  return {
    ...made,
    trail: made.injector.get(TrailKey),
    grips: made.injector.get(ViewGrips),
    parts: made.injector.get(HandledParts),
    strip: made.injector.get(AmountStrip),
    beads: () => trailBeads(studio.project()!, stage.program()!, 'wagon'),
    loose: () => studio.loose().map(({ channel, value }) => [channel, value]),
  };
}

/** Where a place of the world is in the view. */
const at = (x: number, y: number) => toScreen(eye(), new Vector3(x, y, 0))!;

interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** Takes hold of what lies at a place of the view, and goes on by hand. */
function held(grips: ViewGrips, from: Pixel) {
  const pointer = windowPointer();
  const event = ({ x, y }: Pixel) => ({ clientX: x, clientY: y }) as PointerEvent;
  let left = 0;
  grips.grab(event(from), { left: 0, top: 0 } as DOMRect, eye(), () => (left += 1));
  return {
    left: () => left,
    move: (to: Pixel) => pointer.move(event(to)),
    up: (to: Pixel) => pointer.up(event(to)),
    escape: pointer.escape,
  };
}

describe('the trail under the hand', () => {
  it('finds the nearest bead, keys only where asked, nothing where it does not show', () => {
    const { trail, beads, studio } = setUp();
    const key = at(2, 0);
    studio.set({ trail: false });
    expect(trail.beadAt(eye(), { x: key.x + 3, y: key.y }, true)).toBeNull();
    studio.set({ trail: true });
    expect(trail.beadAt(eye(), { x: key.x + 3, y: key.y }, true)).toMatchObject({ frame: 24, key: true });
    expect(trail.beadAt(eye(), { x: key.x + 3, y: key.y + 20 }, false)).toBeNull();
    const between = toScreen(eye(), beads()[12]!.place)!;
    expect(trail.hit(eye(), between)).toBeNull();
    expect(trail.beadAt(eye(), between, false)).toMatchObject({ frame: 12 });
  });

  it('drags a key along the channels that have keys, shown meanwhile; Esc gives it up', () => {
    const { grips, studio, stage } = setUp();
    studio.set({ trail: true });
    const given = held(grips, at(2, 0));
    given.move(at(2.5, 0.7));
    expect(curveOf(stage.proposed()!, RUN)!.keys[1]!.value).toBeCloseTo(2.5, 6);
    given.escape();
    expect([stage.proposed(), studio.labels, given.left()]).toEqual([null, [], 1]);
    const kept = held(grips, at(2, 0));
    kept.move(at(1.5, 0));
    kept.up(at(1.5, 0));
    expect(curveOf(studio.project()!, RUN)!.keys[1]!.value).toBeCloseTo(1.5, 6);
    expect(studio.bench().keys).toEqual([{ channel: RUN, frame: 24 }]);
  });

  it('adds a key at a bead without changing the way', () => {
    const { trail, beads, studio } = setUp();
    trail.addKey(beads().find(({ frame }) => frame === 12)!);
    expect(curveOf(studio.project()!, RUN)!.keys.map(({ frame }) => frame)).toEqual([0, 12, 24, 48]);
    expect(studio.labels).toEqual(['Add a key at f 12 on the trail']);
  });
});

describe('grips in the view', () => {
  const named = (grips: ViewGrips) => grips.draw(eye()).flatMap(({ found }) => found?.name ?? []);
  /** The badge of a grip: where its letter stands. */
  const badge = (grips: ViewGrips, name: string) => {
    const drawn = grips.draw(eye()).find(({ found }) => found?.name === name)!;
    return { x: drawn.letter!.x, y: drawn.letter!.y - 4 };
  };

  it('stand on the chosen part while a tool is in hand, and are found so near as they are drawn', () => {
    const { grips, studio, stage } = setUp();
    expect(named(grips)).toEqual([]);
    stage.frame.set(24);
    studio.set({ tool: 'move' });
    expect(named(grips)).toEqual(expect.arrayContaining(['X', 'Y', 'all']));
    const arm = badge(grips, 'X');
    const middle = at(2, 0);
    expect(grips.hit(eye(), arm)?.name).toBe('X');
    expect(grips.hit(eye(), { x: (arm.x + middle.x) / 2, y: arm.y + 5 })?.name).toBe('X');
    expect(grips.hit(eye(), { x: (arm.x + middle.x) / 2, y: arm.y + 8 })).toBeNull();
    expect(grips.hit(eye(), { x: middle.x + 6, y: middle.y })?.name).toBe('all');
    studio.set({ tool: 'turn' });
    expect(grips.hit(eye(), middle)?.name).not.toBe('all');
  });

  it('move the part along one axis, shown meanwhile, in one step to undo', () => {
    const { grips, studio, stage, loose } = setUp();
    stage.frame.set(24);
    studio.set({ tool: 'move' });
    const up = badge(grips, 'Y');
    const metre = at(2, 0).y - at(2, 1).y;
    const drag = held(grips, up);
    drag.move({ x: up.x, y: up.y - metre });
    expect(stage.posing()).toMatchObject([{ channel: 'wagon/translate.y', value: expect.closeTo(1, 2) }]);
    drag.up({ x: up.x, y: up.y - metre });
    expect(loose()).toEqual([['wagon/translate.y', expect.closeTo(1, 2)]]);
  });

  it('open the fields for exact amounts where an axis is pressed and not dragged', () => {
    const { grips, studio, strip } = setUp();
    studio.set({ tool: 'size' });
    const press = held(grips, badge(grips, 'Y'));
    press.up(badge(grips, 'Y'));
    expect(strip.open()).toBe(1);
  });

  it('turn about a point that is dragged itself, and comes back by Esc', () => {
    const { grips, studio } = setUp();
    studio.set({ tool: 'turn', turnPoint: [1, 0, 0] });
    expect(grips.hit(eye(), at(1, 0))?.name).toBe('point');
    const drag = held(grips, at(1, 0));
    drag.move(at(1.5, 0.5));
    expect(studio.bench().turnPoint).toEqual([
      expect.closeTo(1.5, 1),
      expect.closeTo(0.5, 1),
      expect.any(Number),
    ]);
    drag.escape();
    expect(studio.bench().turnPoint).toEqual([1, 0, 0]);
  });

  it('change the lengths of a shape, and leave what is pressed only as it is', () => {
    const { grips, studio, stage } = setUp('shed');
    studio.set({ shapeGrips: true });
    const [first] = grips.draw(eye()).flatMap(({ found }) => found ?? []);
    const [grip] = first!.line;
    held(grips, grip!).up(grip!);
    expect(studio.labels).toEqual([]);
    const drag = held(grips, grip!);
    drag.move({ x: grip!.x + 10, y: grip!.y });
    expect(stage.proposed()).not.toBeNull();
    drag.up({ x: grip!.x + 10, y: grip!.y });
    expect(studio.labels).toEqual([`Change ${first!.name}`]);
  });

  it('let the pivot be found first, and nothing while another tab has the project', () => {
    const { grips, studio, stage } = setUp();
    stage.frame.set(24);
    studio.set({ tool: 'move', pivotGrip: true });
    expect(grips.hit(eye(), at(2, 0))?.name).toBe('pivot');
    studio.readOnly.set(true);
    expect(named(grips)).toEqual([]);
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
