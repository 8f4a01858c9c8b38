import validate from '../../core/src/file/validate.generated.js';

Object.assign(globalThis, { validate });
