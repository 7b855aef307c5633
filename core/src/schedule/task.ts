import type { Opening } from './openings.ts';

/** Work of somebody's hands on one board without a wait inside, and the wait after it. All times in minutes. */
export interface Task {
  id: string;
  board: string;
  /** Hands are on it so long, with the machine still to be set. */
  minutes: number;
  /** Somebody must be in the shop so long after, inside the wait: squeezed-out glue is scraped then. */
  stay: number;
  /** Before what comes after it may begin. */
  wait: number;
  /** And so much longer until what it leaves may be used: a finish hardens. */
  cure: number;
  /** Begun only where it is done in one go. */
  unbroken: boolean;
  /** Ids of tasks whose waits must be over. */
  after: readonly string[];
  /** Pairs of hands. */
  people: number;
  /** Whose hands; null for anybody's. */
  person: string | null;
  /** In use while hands are on it. */
  machines: readonly string[];
  /** How the first of them is set, and what setting it takes of the minutes: whatever is done next with the same setting saves them. */
  setting: { key: string; minutes: number } | null;
  /** Held from the beginning and so many minutes after the hands are off: clamps, the bath, a place to dry. */
  holds: readonly { resource: string; amount: number; after: number }[];
  /** Not begun before, minutes since 1970; 0 for nothing to wait for. */
  notBefore: number;
  /** Begun exactly then, because somebody wants it so; null for whenever it is best. */
  pinned: number | null;
}

/** When a board is wanted, minutes since 1970: handled means dry to the touch, cured that it may be used. */
export interface Due {
  at: number;
  cured: boolean;
}

/** All that is to be done, and with what. */
export interface ScheduleProblem {
  /** Nothing begins before, minutes since 1970. */
  from: number;
  people: readonly { id: string; open: readonly Opening[] }[];
  /** How much there is of what tasks hold. */
  capacities: ReadonlyMap<string, number>;
  /** Each after those it depends on. */
  tasks: readonly Task[];
  /** What is held by what was begun before. */
  held: readonly { resource: string; amount: number; until: number }[];
  dues: ReadonlyMap<string, Due>;
}

/** A task in its place. Minutes since 1970. */
export interface Placed {
  task: Task;
  people: readonly string[];
  hands: readonly Opening[];
  /** When its wait is over. */
  until: number;
  /** The machine was left as the task before it had set it. */
  shared: boolean;
}

/** How a schedule is judged: first by what is late, then by when everything is done. Minutes. */
export interface Score {
  late: number;
  worst: number;
  /** From the beginning until the last wait is over. */
  length: number;
  /** Shop hours until the last hands are off: open minutes, nights and days away not counted. */
  open: number;
  /** The same board by board, on average. */
  average: number;
}

export interface BoardTimes {
  begun: number;
  /** Dry to the touch, and usable. */
  handled: number;
  used: number;
  /** Minutes after it is due; negative while there is time; null without a day. */
  late: number | null;
}

/** Every task in its place. */
export interface Schedule {
  placed: ReadonlyMap<string, Placed>;
  /** What could never be placed: nobody comes any more. */
  unplaced: readonly string[];
  /** Pins that could not be kept: what they wait for is over later, or nobody is there. */
  loose: readonly string[];
  /** Ids in the order in which they took their places. */
  order: readonly string[];
  boards: ReadonlyMap<string, BoardTimes>;
  score: Score;
}
