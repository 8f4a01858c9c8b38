import { expose } from 'comlink';
import { meshWork } from './mesh-work';

expose(meshWork);
