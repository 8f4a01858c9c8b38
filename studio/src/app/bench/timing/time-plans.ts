import {
  closeGap,
  curveOf,
  curvesOf,
  hasNoBackwards,
  mirrorValues,
  moveStakes,
  NOTHING_MOVED,
  openGap,
  push,
  reverseTime,
  shiftFrame,
  stretch,
  type KeyRef,
  type Project,
  type SlopesKeep,
  type Span,
  type TimeEdit,
  type TimeKnot,
} from '@kaizen/core';
import type { TimeSettings } from '../../state/bench';
import { shownFrame } from '../../ui/amount';
import type { TimeScope } from './time-scope';

/** An edit of time before it happens: what it does, on which part of time, and in words. */
export interface TimePlan {
  /** What it is called. */
  readonly title: string;
  /** The name of the undo step. */
  readonly label: string;
  /** What happens, after "5 keys on 2 channels". */
  readonly does: string;
  /** The part of time that is affected; open ends reach to the end of time. */
  readonly affected: { readonly first: number; readonly last: number };
  edit(project: Project): TimeEdit;
  /** What becomes of set slopes; null where no leg changes its length. */
  readonly slopes: SlopesKeep | null;
  /** What has to be said besides, once it is done. */
  readonly aside?: (project: Project) => string;
}

export type TimeToolId = 'push-after' | 'push-before' | 'open-gap' | 'close-gap' | 'reverse' | 'mirror';

/** What a tool needs to know besides the project. */
export interface TimeAsk {
  readonly scope: TimeScope;
  readonly settings: TimeSettings;
  readonly frame: number;
  /** A channel's value at the playhead. */
  readonly valueAt: (channel: string) => number;
}

const frames = (count: number) => `${shownFrame(Math.abs(count))} f`;

const PLANS: Readonly<Record<TimeToolId, (ask: TimeAsk) => TimePlan | null>> = {
  'push-after': ({ scope, settings, frame }) => {
    const by = settings.amount;
    return {
      title: 'Push after',
      label: `Push everything after f ${shownFrame(frame)}`,
      does: `after f ${shownFrame(frame)} ${by >= 0 ? 'later' : 'earlier'} by ${frames(by)}`,
      affected: { first: frame, last: Infinity },
      edit: (project) => push(project, scope.channels, frame, by, 'after', settings.pushedSlopes),
      slopes: settings.pushedSlopes,
    };
  },
  'push-before': ({ scope, settings, frame }) => {
    const by = -settings.amount;
    return {
      title: 'Push before',
      label: `Push everything before f ${shownFrame(frame)}`,
      does: `before f ${shownFrame(frame)} ${by <= 0 ? 'earlier' : 'later'} by ${frames(by)}`,
      affected: { first: -Infinity, last: frame },
      edit: (project) => push(project, scope.channels, frame, by, 'before', settings.pushedSlopes),
      slopes: settings.pushedSlopes,
    };
  },
  'open-gap': ({ scope, settings, frame }) => {
    const by = Math.abs(settings.amount);
    return {
      title: 'Open gap',
      label: `Open a gap at f ${shownFrame(frame)}`,
      does: `from f ${shownFrame(frame)} on later by ${frames(by)}`,
      affected: { first: frame, last: Infinity },
      edit: (project) => openGap(project, scope.channels, frame, by, settings.pushedSlopes),
      slopes: settings.pushedSlopes,
    };
  },
  'close-gap': ({ scope, settings, frame }) => {
    const end = shiftFrame(frame, Math.abs(settings.amount));
    return {
      title: 'Close gap',
      label: `Close the gap f ${shownFrame(frame)} to ${shownFrame(end)}`,
      does: `f ${shownFrame(frame)} to ${shownFrame(end)} cut out, the rest earlier`,
      affected: { first: frame, last: end },
      edit: (project) => closeGap(project, scope.channels, frame, end, settings.pushedSlopes),
      slopes: settings.pushedSlopes,
    };
  },
  reverse: ({ scope }) => {
    const { span } = scope;
    if (!span) return null;
    return {
      title: 'Reverse time',
      label: 'Reverse time',
      does: `f ${shownFrame(span.start)} to ${shownFrame(span.end)} backwards`,
      affected: { first: span.start, last: span.end },
      edit: (project) => reverseTime(project, scope.channels, span),
      aside: (project) => {
        const curves = curvesOf(project, scope.channels);
        return curves.some(hasNoBackwards) ? '; noise and “every n-th frame” stay as they run' : '';
      },
      slopes: null,
    };
  },
  mirror: ({ scope, settings, valueAt }) => {
    const { span } = scope;
    if (!span) return null;
    const words = { first: 'the first key’s value', zero: '0', playhead: 'the value at the playhead' };
    return {
      title: 'Mirror values',
      label: 'Mirror values',
      does: `upside down about ${words[settings.mirrorAbout]}`,
      affected: { first: span.start, last: span.end },
      edit: (project) => {
        const refs = keysWithin(project, scope, span);
        const about = (channel: string) => {
          if (settings.mirrorAbout === 'zero') return 0;
          if (settings.mirrorAbout === 'playhead') return valueAt(channel);
          return curveOf(project, channel)?.keys[0]?.value ?? 0;
        };
        const next = mirrorValues(project, refs, about);
        const channels = scope.channels.length;
        return { project: next, mapping: NOTHING_MOVED, channels, keys: refs.length, refused: [] };
      },
      slopes: null,
    };
  },
};

export function planOf(tool: TimeToolId, ask: TimeAsk): TimePlan | null {
  return PLANS[tool](ask);
}

/** The chosen keys, or all keys of the scope within its span. */
function keysWithin(project: Project, scope: TimeScope, span: Span): readonly KeyRef[] {
  if (scope.refs.length > 0) return scope.refs;
  return scope.channels.flatMap((channel) =>
    (curveOf(project, channel)?.keys ?? [])
      .filter(({ frame }) => frame >= span.start && frame <= span.end)
      .map(({ frame }) => ({ channel, frame })),
  );
}

/** Stretching the scope's span to another one. */
export function stretchPlan(
  { scope, settings }: Pick<TimeAsk, 'scope' | 'settings'>,
  to: Span,
): TimePlan | null {
  const { span } = scope;
  if (!span) return null;
  const follows = settings.rest === 'follows';
  return {
    title: 'Stretch',
    label: 'Stretch time',
    does: `f ${shownFrame(span.start)} to ${shownFrame(span.end)} stretched to f ${shownFrame(to.start)} to ${shownFrame(to.end)}`,
    affected: {
      first: Math.min(span.start, to.start),
      last: follows ? Infinity : Math.max(span.end, to.end),
    },
    edit: (project) => stretch(project, scope.channels, span, to, settings.rest, settings.slopes),
    slopes: settings.slopes,
  };
}

/** Stakes applied: each interval between two of them stretched. */
export function stakesPlan(
  { scope, settings }: Pick<TimeAsk, 'scope' | 'settings'>,
  stakes: readonly TimeKnot[],
): TimePlan | null {
  if (stakes.length < 2) return null;
  const knots = [...stakes].sort((a, b) => a.from - b.from);
  return {
    title: 'Stakes',
    label: `Stretch between ${stakes.length} Stakes`,
    does: knots
      .map(({ from, to }) =>
        from === to ? `f ${shownFrame(from)}` : `f ${shownFrame(from)} → ${shownFrame(to)}`,
      )
      .join(', '),
    affected: {
      first: Math.min(knots[0]!.from, knots[0]!.to),
      last: Math.max(knots.at(-1)!.from, knots.at(-1)!.to),
    },
    edit: (project) => moveStakes(project, scope.channels, knots, settings.slopes),
    slopes: settings.slopes,
  };
}
