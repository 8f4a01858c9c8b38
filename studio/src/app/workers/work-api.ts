import type { ExportApi } from './export-api';
import type { HashApi } from './hash-api';
import type { MeshApi } from './mesh-api';
import type { ReadApi } from './read-api';
import type { ShapeApi } from './shape-api';

/** All that is done away from the page: one script does it, so that one worker opened ahead is ready for whatever comes. */
export interface WorkApi extends ExportApi, HashApi, MeshApi, ReadApi, ShapeApi {}
