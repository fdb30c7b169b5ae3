import { openStore } from '../apps/server/src/store/index.ts';
import { eraseDue } from '../apps/server/src/studio/index.ts';

/** Erases whoever is due in the book that DATABASE_URL names, as the server does now and then. */
const store = openStore(process.env['DATABASE_URL'] ?? '');
await eraseDue(store, new Date(), process.env['BACKUP_FOLDER']);
await store.close();
