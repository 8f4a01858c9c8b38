import '@angular/compiler';
import {
  addTreatment,
  curveOf,
  newTreatment,
  setTreatment,
  weightChannel,
  weightCurve,
  type Project,
} from '@kaizen/core';
import { chartProject } from '../../../testing/chart-project';
import { fakes } from '../../../testing/fake-studio';
import { NAMED_INK, recordingPen } from '../../../testing/recording-pen';
import { windowPointer } from '../../../testing/window-pointer';
import { ChartModel } from '../../plot/chart-model';
import { TreatmentTools } from '../treatment-tools';
import { drawLanes, hairFrames, weightAt, weightY } from './draw-lanes';
import { LaneHands } from './lane-hands';
import { Lanes } from './lanes';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const noise = { ...newTreatment('noise', 0.5), period: 7 } as const;
const clamp = { ...newTreatment('clamp', 1), max: 3 } as const;

function treated(): Project {
  return [noise, clamp].reduce((project, each) => addTreatment(project, RUN, each), chartProject());
}

function setUp(project = treated()) {
  const made = fakes(project);
  const model = made.injector.get(ChartModel);
  model.size.set({ width: 1000, height: 300 });
  model.axis.set({ first: 0, last: 100 });
  return {
    ...made,
    model,
    lanes: made.injector.get(Lanes),
    hands: made.injector.get(LaneHands),
    tools: made.injector.get(TreatmentTools),
  };
}

describe('which curve shows its lanes', () => {
  it('is the chosen channel’s, also where its keys or its weight are chosen; else the only one drawn that has treatments', () => {
    const { studio, lanes } = setUp();
    expect(lanes.curve()?.channel).toBe(RUN);
    studio.pick({ channels: [LIFT] });
    expect(lanes.curve()).toBeNull();
    studio.pick({ keys: [{ channel: RUN, frame: 24 }] });
    expect(lanes.curve()?.channel).toBe(RUN);
    studio.pick({ keys: [{ channel: weightChannel(RUN, 0), frame: 0 }] });
    expect(lanes.curve()?.channel).toBe(RUN);
  });

  it('is none while lanes are not wanted', () => {
    const { studio, lanes } = setUp();
    studio.set({ shaping: { ...studio.bench().shaping, lanes: false } });
    expect(lanes.curve()).toBeNull();
  });
});

describe('lanes', () => {
  it('lie below each other, the chosen one higher, a muted one lower, each with its amount', () => {
    const { studio, lanes, tools } = setUp();
    expect(lanes.lanes().map(({ name, amount, top, height }) => [name, amount, top, height])).toEqual([
      ['Noise', '0.500 m', 0, 31],
      ['Clamp', '≤ 3.000 m', 31, 31],
    ]);
    lanes.choose(lanes.lanes()[1]!);
    tools.mute(RUN, 0);
    expect(lanes.lanes().map(({ state, height }) => [state, height])).toEqual([
      ['muted', 28],
      ['chosen', 46],
    ]);
    expect(lanes.height()).toBe(74);
    expect(studio.bench().sheet).toBe('curve');
  });

  it('tell the values at the playhead: as keyed, after the chosen lane, what comes out; and each its own change', () => {
    const { stage, lanes } = setUp(addTreatment(chartProject(), RUN, clamp));
    stage.frame.set(48);
    expect(lanes.legend()).toEqual([
      { name: 'keyed', value: '4.000' },
      { name: 'result', value: '3.000' },
    ]);
    expect(lanes.change(lanes.lanes()[0]!, 48)).toBe('−1.000 m');
  });

  it('go along with the chosen one where the order changes', () => {
    const { studio, lanes, tools } = setUp();
    lanes.choose(lanes.lanes()[0]!);
    tools.move(RUN, 0, 1);
    expect(studio.bench().lane).toBe(weightChannel(RUN, 1));
    expect(lanes.lanes().map(({ name, isChosen }) => [name, isChosen])).toEqual([
      ['Clamp', false],
      ['Noise', true],
    ]);
    tools.remove(RUN, 1);
    expect(studio.bench().lane).toBeNull();
  });
});

describe('drawing the lanes', () => {
  it('stands one hair on each frame, fewer where frames are too near', () => {
    expect(hairFrames({ first: 0.5, last: 4 }, 100)).toEqual([1, 2, 3, 4]);
    expect(hairFrames({ first: 0, last: 1000 }, 1000).slice(0, 3)).toEqual([0, 4, 8]);
  });

  it('puts a weight between the foot and the top line, and reads it back', () => {
    const lane = { top: 31, height: 46 };
    expect(weightY(lane, 0)).toBe(76);
    expect(weightY(lane, 1)).toBe(36);
    expect(weightAt(lane, weightY(lane, 0.3))).toBeCloseTo(0.3, 12);
  });

  it('draws hairs for what changes, none for a lane that is passed by, and keys of the chosen weight', () => {
    const weight = weightCurve(1, 0, 48);
    const { lanes, tools } = setUp(setTreatment(treated(), RUN, 0, { ...noise, weight }));
    lanes.choose(lanes.lanes()[0]!);
    tools.mute(RUN, 1);
    const { pen, strokes } = recordingPen();
    drawLanes(pen, {
      width: 1000,
      axis: { first: 0, last: 48 },
      ink: NAMED_INK,
      lanes: lanes.lanes(),
      frame: 10,
      chosenOf: () => new Set([48]),
      change: (lane, at) => lanes.change(lane, at),
    });
    const hairs = strokes.filter(({ method, args }) => method === 'fillRect' && args[2] === 1.7);
    expect(hairs.length).toBeGreaterThan(30);
    expect(hairs.every(({ args }) => (args[1] as number) < 46)).toBe(true);
    const keys = strokes.filter(({ method }) => method === 'arc');
    expect(keys).toHaveLength(2);
    expect(
      strokes
        .filter(({ method }) => method === 'fill')
        .slice(-3, -1)
        .map(({ fill }) => fill),
    ).toEqual(['sheet', 'select']);
    expect(strokes.some(({ method, args }) => method === 'fillText' && args[0] === 'muted: passed by')).toBe(
      true,
    );
  });
});

describe('a double click in a lane', () => {
  const at = (x: number, y: number) => ({ offsetX: x, offsetY: y, ctrlKey: false }) as MouseEvent;

  it('keys its weight there, which becomes a curve where it was a number', () => {
    const { studio, hands } = setUp();
    hands.addKey(at(240, 10));
    const { weight } = curveOf(studio.project()!, RUN)!.treatments[0]!;
    expect(typeof weight === 'number' ? [] : weight.keys.map(({ frame }) => frame)).toEqual([0, 24, 48]);
    expect(studio.bench().keys).toEqual([{ channel: weightChannel(RUN, 0), frame: 24 }]);
  });

  it('does nothing in a lane that is passed by, or below the lanes', () => {
    const { studio, hands, tools } = setUp();
    tools.mute(RUN, 0);
    const before = studio.project();
    hands.addKey(at(240, 10));
    hands.addKey(at(240, 400));
    expect(studio.project()).toBe(before);
  });
});

describe('a weight under the hand', () => {
  const canvas = { focus: () => undefined, setPointerCapture: () => undefined } as unknown as HTMLElement;
  const event = (x: number, y: number) =>
    ({ offsetX: x, offsetY: y, button: 0, pointerId: 1, preventDefault: () => undefined }) as PointerEvent;
  const weightOf = ({ studio }: ReturnType<typeof setUp>) =>
    curveOf(studio.project()!, RUN)!.treatments[0]!.weight;
  const chosen = (project?: Project) => {
    const made = setUp(project);
    made.lanes.choose(made.lanes.lanes()[0]!);
    return { ...made, lane: () => made.lanes.lanes()[0]! };
  };

  it('that is one number is dragged up and down, no higher than 1; Esc gives it up', () => {
    const made = chosen();
    const { hands, lane, studio } = made;
    const level = weightY(lane(), 1);
    expect(hands.cursorAt(500, level)).toBe('ns-resize');
    expect(hands.cursorAt(500, weightY(lane(), 0))).toBe('crosshair');
    const pointer = windowPointer();
    hands.press(event(500, level), canvas);
    pointer.move(event(500, weightY(lane(), 0.25)));
    pointer.escape();
    expect([weightOf(made), studio.labels]).toEqual([1, []]);
    hands.press(event(500, level), canvas);
    pointer.move(event(500, weightY(lane(), 0.4)));
    pointer.up();
    expect(weightOf(made)).toBeCloseTo(0.4, 2);
    hands.press(event(500, weightY(lane(), 0.4)), canvas);
    pointer.move(event(500, -90));
    pointer.up();
    expect(weightOf(made)).toBe(1);
  });

  it('that is a curve is dragged by its keys, in frames and weight', () => {
    const curve = weightCurve(1, 0, 48);
    const made = chosen(setTreatment(treated(), RUN, 0, { ...noise, weight: curve }));
    const { hands, lane, studio } = made;
    const last = [480, weightY(lane(), 1)] as const;
    expect(hands.cursorAt(...last)).toBe('grab');
    const pointer = windowPointer();
    hands.press(event(...last), canvas);
    pointer.move(event(400, weightY(lane(), 0.5)));
    pointer.up();
    const weight = weightOf(made);
    expect(typeof weight === 'number' ? [] : weight.keys.map(({ frame, value }) => [frame, value])).toEqual([
      [0, 1],
      [40, expect.closeTo(0.5, 6)],
    ]);
    expect(studio.bench().keys).toEqual([{ channel: weightChannel(RUN, 0), frame: 40 }]);
  });

  it('of a lane that is not chosen is chosen first, and left as it is', () => {
    const made = chosen();
    const { hands, lanes } = made;
    const second = lanes.lanes()[1]!;
    hands.press(event(500, weightY(second, 1)), canvas);
    expect([lanes.lanes().map(({ isChosen }) => isChosen), weightOf(made)]).toEqual([[false, true], 1]);
  });
});
