// Jest's Node environment in a context with a plain global object. The usual one asks a proxy for every global name,
// and so `Math.max` in an inner loop took a hundred times as long as in the product.
import * as nodeEnv from 'jest-environment-node';
import vm from 'node:vm';

const Base = nodeEnv.TestEnvironment ?? nodeEnv.default;
export default class extends Base {
  constructor(...given) {
    const { createContext } = vm;
    // Since Node 20.18; before it, tests are merely slow.
    const plain = vm.constants?.DONT_CONTEXTIFY;
    if (plain) vm.createContext = () => createContext(plain);
    try {
      super(...given);
    } finally {
      vm.createContext = createContext;
    }
  }
}
