import { createAction, createFeature, createReducer, on, props } from '@ngrx/store';
import type { ChannelKind, HandleRef, KeyRef } from '@kaizen/core';
import { documentActions } from './document';

export type Density = 'ticks' | 'curves';
export type Tool = 'select' | 'move' | 'turn' | 'size';
export type Axes = 'own' | 'parent' | 'world';
export type PlayMode = 'once' | 'loop' | 'forth';
export type RowFilter = 'all' | 'keyed' | 'selected';

export interface Capture {
  readonly on: boolean;
  readonly startNew: boolean;
  readonly scope: readonly ChannelKind[];
}

/** What is chosen and how it is looked at. Not history, kept with the project in this browser. */
export interface BenchState {
  readonly parts: readonly string[];
  readonly channels: readonly string[];
  readonly keys: readonly KeyRef[];
  readonly handles: readonly HandleRef[];
  /** The frame where the playhead stopped last. */
  readonly frame: number;
  readonly density: Density;
  readonly tool: Tool;
  readonly axes: Axes;
  readonly collapsed: readonly string[];
  readonly filter: RowFilter;
  readonly everyChannel: boolean;
  readonly only: string | null;
  readonly capture: Capture;
  readonly playMode: PlayMode;
  readonly playSpeed: number;
  readonly playEveryFrame: boolean;
  readonly playAll: boolean;
  readonly wholeFrames: boolean;
  readonly steps: { readonly on: boolean; readonly length: number; readonly angle: number };
  readonly trail: boolean;
  readonly ghosts: boolean;
  readonly sheet: 'key' | 'part';
}

export const ALL_KINDS: readonly ChannelKind[] = ['place', 'turn', 'size', 'squash', 'look', 'custom'];

export const initialBench: BenchState = {
  parts: [],
  channels: [],
  keys: [],
  handles: [],
  frame: 0,
  density: 'curves',
  tool: 'select',
  axes: 'own',
  collapsed: [],
  filter: 'all',
  everyChannel: false,
  only: null,
  capture: { on: false, startNew: false, scope: ALL_KINDS },
  playMode: 'loop',
  playSpeed: 1,
  playEveryFrame: false,
  playAll: false,
  wholeFrames: true,
  steps: { on: false, length: 0.1, angle: 15 },
  trail: true,
  ghosts: false,
  sheet: 'part',
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
  on(benchActions.picked, (state, { picked }): BenchState => ({ ...state, ...picked })),
  on(benchActions.set, (state, { change }): BenchState => ({ ...state, ...change })),
  on(benchActions.restored, (state, { bench }): BenchState => ({ ...state, ...bench })),
);

export const benchFeature = createFeature({ name: 'bench', reducer: benchReducer });
