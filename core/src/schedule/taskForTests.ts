import type { Task } from './task.ts';

/** A task of somebody's hands that asks for nothing but its minutes. */
export const BARE_TASK: Omit<Task, 'id' | 'board' | 'minutes' | 'after'> = {
  stay: 0,
  wait: 0,
  cure: 0,
  unbroken: false,
  people: 1,
  person: null,
  machines: [],
  setting: null,
  holds: [],
  notBefore: 0,
  pinned: null,
};
