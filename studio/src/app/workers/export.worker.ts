import { expose } from 'comlink';
import { exportWork } from './export-work';

expose(exportWork);
