import { expose } from 'comlink';
import { loadDecoders } from '@kaizen/core';
import { readWork } from './read-work';

/** The decoders are fetched once the page has had time for what it needs first. */
const LATER_MS = 4000;

expose(readWork);
setTimeout(() => void loadDecoders(), LATER_MS);
