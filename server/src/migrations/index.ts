import type { Knex } from 'knex';
import * as firstTables from './001-first-tables.ts';
import * as conditionAndCutting from './002-condition-and-cutting.ts';
import * as movementAndHistory from './003-movement-and-history.ts';
import * as millAndGlue from './004-mill-and-glue.ts';
import * as router from './005-router.ts';
import * as worked from './006-worked.ts';
import * as exact from './007-exact.ts';
import * as followed from './008-followed.ts';
import * as recipe from './009-recipe.ts';
import * as facts from './010-facts.ts';
import * as shopsAside from './011-shops-aside.ts';
import * as recut from './012-recut.ts';
import * as insert from './013-insert.ts';
import * as frame from './014-frame.ts';
import * as stack from './015-stack.ts';
import * as bench from './016-bench.ts';
import * as log from './017-log.ts';
import * as readings from './018-readings.ts';
import * as logAside from './019-log-aside.ts';
import * as finish from './020-finish.ts';
import * as shopInTime from './021-shop-in-time.ts';
import * as shared from './022-shared.ts';
import * as kept from './023-kept.ts';
import * as doorsClosed from './024-doors-closed.ts';

/** Every migration by name, run in the order of the names, each once. One that has landed is never edited: `checksums.json` holds that. */
export const migrations: Record<string, Knex.Migration> = {
  '001-first-tables': firstTables,
  '002-condition-and-cutting': conditionAndCutting,
  '003-movement-and-history': movementAndHistory,
  '004-mill-and-glue': millAndGlue,
  '005-router': router,
  '006-worked': worked,
  '007-exact': exact,
  '008-followed': followed,
  '009-recipe': recipe,
  '010-facts': facts,
  '011-shops-aside': shopsAside,
  '012-recut': recut,
  '013-insert': insert,
  '014-frame': frame,
  '015-stack': stack,
  '016-bench': bench,
  '017-log': log,
  '018-readings': readings,
  '019-log-aside': logAside,
  '020-finish': finish,
  '021-shop-in-time': shopInTime,
  '022-shared': shared,
  '023-kept': kept,
  '024-doors-closed': doorsClosed,
};
