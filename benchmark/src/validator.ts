import validate from '../../core/src/project/validate.generated.js';

Object.assign(globalThis, { validate });
