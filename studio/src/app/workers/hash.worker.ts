import { expose } from 'comlink';
import { sha256OfLarge } from '@kaizen/core';
import type { HashApi } from './hash-api';

expose({ sha256: sha256OfLarge } satisfies HashApi);
