import type { Migration } from './migration.ts';
import { people } from './001-people.ts';
import { songs } from './002-songs.ts';
import { pieces } from './003-pieces.ts';
import { service } from './004-service.ts';
import { scope } from './005-scope.ts';
import { form } from './006-form.ts';
import { hands } from './007-hands.ts';
import { plans } from './008-plans.ts';
import { series } from './009-series.ts';
import { house } from './010-house.ts';
import { week } from './011-week.ts';
import { trust } from './012-trust.ts';
import { words } from './013-words.ts';
import { positions } from './014-positions.ts';
import { moves } from './015-moves.ts';
import { secondEdition } from './016-second-edition.ts';
import { formats } from './017-formats.ts';
import { ownStudio } from './018-own-studio.ts';
import { safeBook } from './019-safe-book.ts';
import { sounds } from './020-sounds.ts';

export type { Migration } from './migration.ts';

/** Every migration, in order. */
export const migrations: readonly Migration[] = [
  people,
  songs,
  pieces,
  service,
  scope,
  form,
  hands,
  plans,
  series,
  house,
  week,
  trust,
  words,
  positions,
  moves,
  secondEdition,
  formats,
  ownStudio,
  safeBook,
  sounds,
];
