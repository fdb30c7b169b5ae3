import type { Health } from '@jam-ledger/contract';
import { Router } from 'express';
import { newestMigration, type Store } from '../store/index.ts';

/** Whether the database answers and which migration it has: 200 when well, 503 when not. */
export function healthRouter(store: Store): Router {
  const router = Router();
  router.get('/', async (request, response) => {
    let health: Health;
    try {
      health = { database: 'up', migration: await newestMigration(store) };
    } catch (error) {
      request.log.error({ err: error }, 'the database does not answer');
      health = { database: 'down', migration: null };
    }
    response.status(health.database === 'up' ? 200 : 503).json(health);
  });
  return router;
}
