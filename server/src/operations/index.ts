import { benchOperations } from './benchOperations.ts';
import { deviceOperations } from './deviceOperations.ts';
import { boardOperations } from './boardOperations.ts';
import { glueRunOperations } from './glueRunOperations.ts';
import { logOperations } from './logOperations.ts';
import { moneyOperations } from './moneyOperations.ts';
import { rackOperations } from './rackOperations.ts';
import { sawOperations } from './sawOperations.ts';
import { scheduleOperations } from './scheduleOperations.ts';
import { shopOperations } from './shopOperations.ts';

/** Everything the API can be asked for: served, described and carried out from this one list. */
export const operations = [
  ...shopOperations,
  ...rackOperations,
  ...sawOperations,
  ...glueRunOperations,
  ...boardOperations,
  ...benchOperations,
  ...logOperations,
  ...scheduleOperations,
  ...moneyOperations,
  ...deviceOperations,
];
