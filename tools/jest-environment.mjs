/**
 * Jest's environment for Node with an ordinary global object. In the one that Jest makes, each look at a global name, as `Math` in a
 * loop, goes through a proxy: tests of the mathematics took two to five times as long.
 */
import vm from 'node:vm';
import { TestEnvironment } from 'jest-environment-node';

export default class extends TestEnvironment {
  constructor(...config) {
    const { createContext } = vm;
    vm.createContext = () => createContext(vm.constants.DONT_CONTEXTIFY);
    try {
      super(...config);
    } finally {
      vm.createContext = createContext;
    }
  }
}
