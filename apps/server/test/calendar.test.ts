import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { openDemo, type TestServer } from './studio.ts';

let server: TestServer;
beforeAll(async () => {
  server = await openDemo();
}, 120_000);
afterAll(() => server.close());
