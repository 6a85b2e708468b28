import { constants, createContext, runInContext } from 'node:vm';
import { TestEnvironment } from 'jest-environment-node';

// Jest's global object is a proxy, so that each `Math` or `Float32Array` in a loop is a call into it: reading the
// demo site takes 25 times as long there as in plain Node. This environment is Jest's own with a plain global object.
// What the proxy was for (clearing what one test file left on it) is not needed: each file gets a new one.
export default class PlainEnvironment extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    const jests = this.global;
    this.context = createContext(constants.DONT_CONTEXTIFY);
    this.global = runInContext('globalThis', this.context);
    const builtIn = new Set(Reflect.ownKeys(this.global));
    // Node hands out buffers of the outer realm, so these three must be the outer ones, as Jest has them.
    for (const name of ['Buffer', 'ArrayBuffer', 'Uint8Array']) builtIn.delete(name);
    for (const name of Reflect.ownKeys(jests)) {
      if (builtIn.has(name)) continue;
      const { enumerable } = Object.getOwnPropertyDescriptor(jests, name);
      Object.defineProperty(this.global, name, { value: jests[name], enumerable, writable: true, configurable: true });
    }
    this.global.global = this.global;
    this.global.Error.stackTraceLimit = 100;
    this.moduleMocker = new this.moduleMocker.constructor(this.global);
    this.fakeTimersModern = new this.fakeTimersModern.constructor({
      config: config.projectConfig,
      global: this.global,
    });
  }
}
