import type { Knex } from 'knex';
import * as first from './0001-people-brands-pieces.ts';
import * as second from './0002-deliveries.ts';
import * as third from './0003-words-of-posts.ts';
import * as fourth from './0004-media-terms.ts';
import * as fifth from './0005-uploads.ts';
import * as sixth from './0006-typefaces-templates.ts';
import * as seventh from './0007-many-pictures-of-posts.ts';
import * as eighth from './0008-films.ts';
import * as ninth from './0009-film-exports.ts';
import * as tenth from './0010-kinds-and-measures.ts';
import * as eleventh from './0011-documents.ts';
import * as twelfth from './0012-jobs.ts';
import * as thirteenth from './0013-portable-lists.ts';
import * as fourteenth from './0014-covering-lists.ts';
import * as fifteenth from './0015-schedule-requests.ts';
import * as sixteenth from './0016-piece-lists.ts';
import * as seventeenth from './0017-accounts.ts';
import * as eighteenth from './0018-kept-bytes.ts';
import * as nineteenth from './0019-words.ts';
import * as twentieth from './0020-plan.ts';
import * as twentyFirst from './0021-send.ts';
import * as twentySecond from './0022-learn.ts';
import * as twentyThird from './0023-ideas.ts';
import * as twentyFourth from './0024-packages.ts';
import * as twentyFifth from './0025-mentions.ts';
import * as twentySixth from './0026-follow-ups.ts';
import * as twentySeventh from './0027-outlines.ts';
import * as twentyEighth from './0028-uses-by-state.ts';
import * as twentyNinth from './0029-things.ts';

/** Migrations in order; a shipped one is never edited. */
const all: readonly { readonly name: string; readonly migration: Knex.Migration }[] = [
  { name: '0001-people-brands-pieces', migration: first },
  { name: '0002-deliveries', migration: second },
  { name: '0003-words-of-posts', migration: third },
  { name: '0004-media-terms', migration: fourth },
  { name: '0005-uploads', migration: fifth },
  { name: '0006-typefaces-templates', migration: sixth },
  { name: '0007-many-pictures-of-posts', migration: seventh },
  { name: '0008-films', migration: eighth },
  { name: '0009-film-exports', migration: ninth },
  { name: '0010-kinds-and-measures', migration: tenth },
  { name: '0011-documents', migration: eleventh },
  { name: '0012-jobs', migration: twelfth },
  { name: '0013-portable-lists', migration: thirteenth },
  { name: '0014-covering-lists', migration: fourteenth },
  { name: '0015-schedule-requests', migration: fifteenth },
  { name: '0016-piece-lists', migration: sixteenth },
  { name: '0017-accounts', migration: seventeenth },
  { name: '0018-kept-bytes', migration: eighteenth },
  { name: '0019-words', migration: nineteenth },
  { name: '0020-plan', migration: twentieth },
  { name: '0021-send', migration: twentyFirst },
  { name: '0022-learn', migration: twentySecond },
  { name: '0023-ideas', migration: twentyThird },
  { name: '0024-packages', migration: twentyFourth },
  { name: '0025-mentions', migration: twentyFifth },
  { name: '0026-follow-ups', migration: twentySixth },
  { name: '0027-outlines', migration: twentySeventh },
  { name: '0028-uses-by-state', migration: twentyEighth },
  { name: '0029-things', migration: twentyNinth },
];

export const migrations: Knex.MigrationSource<(typeof all)[number]> = {
  getMigrations: () => Promise.resolve([...all]),
  getMigrationName: (each) => each.name,
  getMigration: (each) => Promise.resolve(each.migration),
};
