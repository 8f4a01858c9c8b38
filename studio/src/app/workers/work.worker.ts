import { expose } from 'comlink';
import { loadDecoders, sha256OfLarge } from '@kaizen/core';
import { exportWork } from './export-work';
import { meshWork } from './mesh-work';
import { readWork } from './read-work';
import { shapeWork } from './shape-work';
import type { WorkApi } from './work-api';

/** The decoders are fetched once the page has had time for what it needs first. */
const LATER_MS = 4000;

expose({ ...readWork, ...exportWork, ...shapeWork, ...meshWork, sha256: sha256OfLarge } satisfies WorkApi);
setTimeout(() => void loadDecoders(), LATER_MS);
