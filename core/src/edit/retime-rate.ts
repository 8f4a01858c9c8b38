import { changeFields, scaleFrames, type Project, type Rate } from '../project';
import { PROJECT } from '../file';
import { asEdited, type Edited } from './mapping';

/**
 * Changes the project's rate and keeps every second where it is: all that the description of the file counts in frames is scaled
 * (contract §9, `--fps`). `frame` in an expression can't be, and is reported by `expressionsCountingFrames`.
 */
export function changeRateKeepingSeconds(project: Project, rate: Rate): Edited {
  const factor = (rate.frames * project.rate.per) / (rate.per * project.rate.frames);
  if (factor === 1) return asEdited({ ...project, rate });
  const scaled = (frame: number) => frame * factor;
  return {
    project: { ...scaleFrames(PROJECT, project, factor), rate },
    mapping: { frame: scaled, time: scaled },
  };
}

/** Changes the project's rate and keeps every frame where it is: the shot gets shorter or longer in seconds. */
export function changeRateKeepingFrames(project: Project, rate: Rate): Project {
  return rate.frames * project.rate.per === rate.per * project.rate.frames ? project : { ...project, rate };
}

/** Ids of the drivers whose expression counts frames, and so means another time after a change of rate. */
export function expressionsCountingFrames(project: Project): string[] {
  return project.drivers
    .filter((driver) => driver.kind === 'expression' && /(?<![\w$])frame(?![\w$])/.test(driver.expression))
    .map((driver) => driver.id);
}

/** What is counted in whole frames and had to be rounded by a change of rate: the names of its fields with their new values. */
export function roundedFrames(project: Project, rate: Rate): readonly string[] {
  const factor = (rate.frames * project.rate.per) / (rate.per * project.rate.frames);
  const rounded: string[] = [];
  for (const list of ['drivers', 'constraints'] as const)
    for (const item of project[list])
      changeFields({ [list]: PROJECT[list]! }, { [list]: [item] }, (value, { wholeFrames }) => {
        const exact = Number(value) * factor;
        const whole = Math.max(1, Math.round(exact));
        if (wholeFrames && whole !== exact)
          rounded.push(`${item.id}: a loop of ${exact} frames was rounded to ${whole}`);
        return value;
      });
  return rounded;
}
