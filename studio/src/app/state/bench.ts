import { createAction, createFeature, createReducer, on, props } from '@ngrx/store';
import type {
  ChannelKind,
  AreaLock,
  HandleRef,
  KeyRef,
  Leg,
  RulerMoves,
  SideMode,
  SlopesKeep,
  Vec3,
} from '@kaizen/core';
import { documentActions } from './document';
import type { Pointers } from './pointers';

export type Density = 'ticks' | 'curves' | 'rates';
export type Tool = 'select' | 'move' | 'turn' | 'size';
export type Axes = 'own' | 'parent' | 'world' | 'view';
export type PlayMode = 'once' | 'loop' | 'forth';
export type RowFilter = 'all' | 'keyed' | 'selected' | 'off';

export interface Capture {
  readonly on: boolean;
  readonly startNew: boolean;
  /** The first key of a channel away from the range's start brings one with the old value there. */
  readonly markStart: boolean;
  readonly scope: readonly ChannelKind[];
  /** The parts it takes; null: all. */
  readonly parts: readonly string[] | null;
}

/** How edits of time are done: on what, what becomes of set slopes, and what goes along. */
export interface TimeSettings {
  readonly scope: 'chosen' | 'all';
  /** What becomes of set slopes on legs that a push or gap makes longer or shorter, and on those that are stretched. */
  readonly pushedSlopes: SlopesKeep;
  readonly slopes: SlopesKeep;
  readonly rest: 'follows' | 'stays';
  /** Frames that a push moves, a gap has, a wait lasts. */
  readonly amount: number;
  readonly mirrorAbout: 'first' | 'zero' | 'playhead';
  readonly moves: RulerMoves;
}

/** Rows of the Chart that are kept together under a name. */
export interface RowSet {
  readonly name: string;
  readonly channels: readonly string[];
}

/** How new keys begin: how the curve meets them, and the leg after a key that comes into no leg. */
export interface NewKeys {
  readonly mode: SideMode;
  readonly leg: Leg;
}

/** How shapes are looked at and worked on in the Chart. */
export interface Shaping {
  /** The third rate, beside speed and acceleration. */
  readonly jerk: boolean;
  readonly lock: AreaLock;
  /** Fitting leaves the scales of value alone. */
  readonly valueLock: boolean;
  /** The strip of pictures of eases and laws. */
  readonly pictures: boolean;
  /** A box around the chosen keys, to be scaled by its handles. */
  readonly box: boolean;
  /** Dragging a handle makes the key's other handle as much longer or shorter. */
  readonly together: boolean;
  /** The second takes of the drawn channels, beside what plays. */
  readonly takes: boolean;
  /** Curves as they are before their treatments, beside what shows. */
  readonly untreated: boolean;
  /** Treatments as lanes under the curve they lie over. */
  readonly lanes: boolean;
  /** Metres against metres: the path that two place channels draw, at one scale. */
  readonly path: boolean;
}

/** What is chosen and how it is looked at. Not history, kept with the project in this browser. */
export interface BenchState extends Pointers {
  /** The frame where the playhead stopped last. */
  readonly frame: number;
  readonly density: Density;
  /** The Chart split in two halves over one time; the lower one has a density of its own. */
  readonly split: { readonly on: boolean; readonly density: Density };
  readonly tool: Tool;
  readonly axes: Axes;
  readonly collapsed: readonly string[];
  readonly filter: RowFilter;
  readonly everyChannel: boolean;
  readonly rowSets: readonly RowSet[];
  /** The set that is all that shows; null: all rows. */
  readonly rowSet: string | null;
  readonly capture: Capture;
  readonly playMode: PlayMode;
  readonly playSpeed: number;
  readonly playEveryFrame: boolean;
  readonly playAll: boolean;
  readonly wholeFrames: boolean;
  /** Frames that the arrow keys move the playhead by. */
  readonly frameStep: number;
  readonly steps: { readonly on: boolean; readonly length: number; readonly angle: number };
  /** A point of the world about which parts turn and size instead of their pivots. */
  readonly turnPoint: Vec3 | null;
  readonly trail: boolean;
  /** Width to height of the frame that is drawn when a camera is looked through. */
  readonly shotFrame: number;
  /** While it plays the view goes along with what is chosen. */
  readonly keepInSight: boolean;
  readonly ghosts: boolean;
  readonly sheet: Sheet;
  readonly time: TimeSettings;
  /** Besides whole frames, what keys, stakes and the playhead snap to. */
  readonly snap: { readonly markers: boolean; readonly keys: boolean };
  /** Summary pegs of a part stand for its own keys, or for those of all below it too. */
  readonly summary: 'own' | 'below';
  /** The kinds of channels that have rows. */
  readonly kinds: readonly ChannelKind[];
  readonly newKeys: NewKeys;
  readonly shaping: Shaping;
}

export const SHEETS = ['key', 'curve', 'part', 'time', 'pose', 'ruler'] as const;
export type Sheet = (typeof SHEETS)[number];

export const ALL_KINDS: readonly ChannelKind[] = ['place', 'turn', 'size', 'squash', 'look', 'custom'];

export const initialBench: BenchState = {
  parts: [],
  channels: [],
  keys: [],
  handles: [],
  frame: 0,
  density: 'curves',
  split: { on: false, density: 'ticks' },
  tool: 'select',
  axes: 'own',
  collapsed: [],
  filter: 'all',
  everyChannel: false,
  rowSets: [],
  rowSet: null,
  only: null,
  lane: null,
  capture: { on: false, startNew: false, markStart: true, scope: ALL_KINDS, parts: null },
  playMode: 'loop',
  playSpeed: 1,
  playEveryFrame: false,
  playAll: false,
  wholeFrames: true,
  frameStep: 1,
  steps: { on: false, length: 0.1, angle: 15 },
  turnPoint: null,
  trail: true,
  shotFrame: 16 / 9,
  keepInSight: false,
  ghosts: false,
  sheet: 'part',
  time: {
    scope: 'chosen',
    pushedSlopes: 'speed',
    slopes: 'shape',
    rest: 'follows',
    amount: 24,
    mirrorAbout: 'first',
    moves: { range: true, markers: true, sounds: false },
  },
  stakes: [],
  held: { on: false, released: null },
  snap: { markers: false, keys: false },
  summary: 'own',
  kinds: ALL_KINDS,
  pinned: [],
  newKeys: { mode: 'smooth', leg: { kind: 'curve' } },
  shaping: {
    jerk: false,
    lock: 'places',
    valueLock: false,
    pictures: false,
    box: false,
    together: false,
    takes: false,
    untreated: false,
    lanes: true,
    path: false,
  },
};

export interface Picked {
  readonly parts?: readonly string[];
  readonly channels?: readonly string[];
  readonly keys?: readonly KeyRef[];
  readonly handles?: readonly HandleRef[];
}

export const benchActions = {
  picked: createAction('[Bench] Picked', props<{ picked: Picked }>()),
  set: createAction('[Bench] Set', props<{ change: Partial<Omit<BenchState, keyof Picked>> }>()),
  restored: createAction('[Bench] Restored', props<{ bench: Partial<BenchState> }>()),
};

export const benchReducer = createReducer(
  initialBench,
  on(documentActions.opened, (_, { snapshot }): BenchState => ({
    ...initialBench,
    frame: snapshot.project.range.start,
  })),
  on(documentActions.closed, (): BenchState => initialBench),
  on(documentActions.edited, (state, { pointers }): BenchState => ({ ...state, ...pointers.after })),
  on(documentActions.undone, documentActions.redone, (state, { back }): BenchState => ({
    ...state,
    ...back,
  })),
  on(benchActions.picked, (state, { picked }): BenchState => ({ ...state, ...picked })),
  on(benchActions.set, (state, { change }): BenchState => ({ ...state, ...change })),
  on(benchActions.restored, (state, { bench }): BenchState => ({ ...state, ...bench })),
);

export const benchFeature = createFeature({ name: 'bench', reducer: benchReducer });
