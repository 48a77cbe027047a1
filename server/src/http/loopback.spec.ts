import { isLoopback } from './loopback.js';

// Source: RFC 1122 §3.2.1.3, RFC 4291 §2.5.3 and §2.5.5.2.
describe('isLoopback', () => {
  for (const [address, expected] of [
    ['127.0.0.1', true],
    ['127.9.8.7', true],
    ['::1', true],
    ['::ffff:127.0.0.1', true],
    ['10.0.0.1', false],
    ['::ffff:10.0.0.1', false],
    ['fe80::1', false],
    ['nowhere', false],
    [undefined, false],
  ] as const) {
    it(`${address}: ${expected}`, () => expect(isLoopback(address)).toBe(expected));
  }
});
