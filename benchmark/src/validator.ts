import validate from '../../core/src/project/validate.generated';

Object.assign(globalThis, { validate });
