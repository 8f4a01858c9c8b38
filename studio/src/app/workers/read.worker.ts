import { expose } from 'comlink';
import { readWork } from './read-work';

expose(readWork);
