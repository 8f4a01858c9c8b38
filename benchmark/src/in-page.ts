// the state of the Bench is a store of NgRx, which asks for it
import '@angular/compiler';
import { chartCurves } from './chart-curves';
import { allCurves } from './all-curves';
import { edits } from './edits';
import { playedBoxes } from './played-boxes';

/** What has to be measured on a real canvas, and edits as a user's page has them: run in a page, the results left for whoever opened it. */
const canvas = document.createElement('canvas');
canvas.width = 1000;
canvas.height = 600;
const pen = canvas.getContext('2d');
if (!pen) throw new Error('no canvas');
Object.assign(globalThis, {
  measured: [...chartCurves(pen), ...(await allCurves(pen)), ...playedBoxes(), ...(await edits())],
});
