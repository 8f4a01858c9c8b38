import { writeFileSync } from 'node:fs';
import { lastShownFrame, readProject, writeProject, type Project } from '@kaizen/core';
import { boomCamera } from './boom-camera';
import { brineWheel } from './brine-wheel';
import { jibCrane } from './jib-crane';
import { mouldTable } from './mould-table';
import { pumpHouse } from './pump-house';
import { quay } from './quay';
import { quayCrane } from './quay-crane';
import { rakeCarriage } from './rake-carriage';
import { skip } from './skip';
import { sluice } from './sluice';

/** The sample projects with what their cards say. One line a sample. */
const SAMPLES = [
  { project: brineWheel(), about: 'Loop with a lead-in, slider-crank', topics: ['Loops', 'Mechanisms'] },
  { project: skip(), about: 'Runs, limits, drum and rope', topics: ['Loops', 'Weight'] },
  {
    project: quay(),
    about: 'Blocked, not yet shaped: hops, jitter, an uneven run',
    topics: ['Shapes', 'Weight'],
  },
  {
    project: jibCrane(),
    about: 'Arms that reach for a mark, a load handed over',
    topics: ['Contact', 'Mechanisms'],
  },
  {
    project: quayCrane(),
    about: 'An arm planted, a float squashed, target shapes',
    topics: ['Contact', 'Cameras'],
  },
  {
    project: mouldTable(),
    about: 'Geneva and cams, kept in step by one angle',
    topics: ['Loops', 'Mechanisms'],
  },
  {
    project: pumpHouse(),
    about: 'Gears, two pumps on one pin, valves in phase',
    topics: ['Loops', 'Mechanisms'],
  },
  {
    project: sluice(),
    about: 'A board on its screw, a skip that waits for it',
    topics: ['Interlocks', 'Mechanisms'],
  },
  {
    project: rakeCarriage(),
    about: 'Wheels that never slip, four bars that rock two rakes',
    topics: ['Mechanisms', 'Loops'],
  },
  {
    project: boomCamera(),
    about: 'A wagon on its track, a camera that goes along',
    topics: ['Cameras', 'Mechanisms'],
  },
];

/** `loop`, or how long it plays. */
function lengthOf({ range, rate }: Project): string {
  if (range.loop) return 'loop';
  return `${(((lastShownFrame(range) - range.start) * rate.per) / rate.frames).toFixed(1)} s`;
}

const folder = process.argv[2] ?? 'samples';
for (const { project } of SAMPLES) {
  const text = writeProject(project);
  const read = readProject(text);
  if (!read.ok) throw new Error(`${project.id}: ${JSON.stringify(read.problems[0])}`);
  writeFileSync(`${folder}/${project.id}.kaizen.json`, text);
}
const index = SAMPLES.map(({ project, about, topics }) => ({
  id: project.id,
  name: project.name,
  about,
  length: lengthOf(project),
  topics,
}));
writeFileSync(`${folder}/index.json`, JSON.stringify(index, null, 1) + '\n');
