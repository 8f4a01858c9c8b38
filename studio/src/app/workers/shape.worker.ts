import { expose } from 'comlink';
import { shapeWork } from './shape-work';

expose(shapeWork);
