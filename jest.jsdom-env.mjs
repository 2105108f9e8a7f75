// jsdom does not expose structuredClone and a few observers that the interface asks for.
import * as jsdomEnv from 'jest-environment-jsdom';

const Base = jsdomEnv.TestEnvironment ?? jsdomEnv.default;
export default class extends Base {
  async setup() {
    await super.setup();
    this.global.structuredClone = structuredClone;
    this.global.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
  }
}
