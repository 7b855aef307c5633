import type { BoardSize } from '../features/groove.ts';

/** What a machine is told about what lies under it. */
export interface Setup {
  machine: 'router' | 'engraver';
  size: BoardSize;
  /** How far the middle of the tool may stand outside the board, mm. */
  beyond: number;
  /** Deepest it may go below the face, mm: the thickness, and what the sacrificial board beneath allows. */
  deepest: number;
}

export interface Move {
  rapid: boolean;
  from: { x: number; y: number; z: number };
  to: { x: number; y: number; z: number };
}

/** What a run of a job file came to; `refused` lines stand in the way of running it. */
export interface Run {
  moves: Move[];
  minutes: number;
  cutLength: number;
  deepest: number;
  refused: { line: number; what: string }[];
}

/** Speed of a rapid move, mm a minute. */
const RAPID = 3000;
/** More complaints than this nobody reads. */
const MOST_REFUSED = 20;
const KNOWN = new Set(['G0', 'G00', 'G1', 'G01', 'G17', 'G21', 'G90', 'M3', 'M03', 'M5', 'M05', 'M2', 'M02', 'M30']);

/**
 * The machine that ships with Cadenza: it reads a job file as a router or an engraver would, moves for move, and refuses what would collide: travelling through the wood, cutting outside the board or
 * deeper than allowed, moving sideways in the wood with the spindle off, no unit, an unknown word.
 */
export function runGcode(text: string, { machine, size, beyond, deepest }: Setup): Run {
  const run: Run = { moves: [], minutes: 0, cutLength: 0, deepest: 0, refused: [] };
  let at = { x: 0, y: 0, z: machine === 'router' ? 5 : 0 };
  let [motion, feed, on, metric, absolute, ended] = ['', 0, false, false, false, false];
  text.split(/\r?\n/).forEach((raw, i) => {
    const refuse = (what: string) => {
      if (run.refused.length < MOST_REFUSED) run.refused.push({ line: i + 1, what });
    };
    const code = raw
      .replace(/\([^)]*\)/g, '')
      .replace(/;.*/, '')
      .trim()
      .toUpperCase();
    if (code === '' || code === '%' || ended) return;
    const words = [...code.matchAll(/([A-Z])\s*([-+]?\d*\.?\d+)/g)];
    if (
      words
        .map((w) => w[0])
        .join('')
        .replace(/\s/g, '') !== code.replace(/\s/g, '')
    )
      refuse(`"${code.slice(0, 40)}" cannot be read.`);
    const to = { ...at };
    let moves = false;
    for (const [, letter, figure] of words) {
      const value = Number(figure);
      if (letter === 'G' || letter === 'M') {
        const word = `${letter}${figure}`;
        if (!KNOWN.has(word)) refuse(`${word} is not known to this machine.`);
        if (letter === 'G' && (value === 0 || value === 1)) motion = value === 0 ? 'rapid' : 'cut';
        if (word === 'G21') metric = true;
        if (word === 'G90') absolute = true;
        if (letter === 'M' && (value === 3 || value === 5)) on = value === 3;
        if (letter === 'M' && (value === 2 || value === 30)) ended = true;
      } else if (letter === 'F') feed = value;
      else if (letter === 'X' || letter === 'Y' || letter === 'Z') {
        moves = true;
        to[letter.toLowerCase() as 'x' | 'y' | 'z'] = value;
      } else if (letter !== 'S' && letter !== 'T' && letter !== 'N')
        refuse(`${letter}${figure} is not known to this machine.`);
    }
    if (!moves) return;
    if (!metric || !absolute) refuse('It moves before it says millimetres (G21) and absolute (G90).');
    if (motion === '') refuse('It moves before it says how (G0 or G1).');
    const rapid = motion === 'rapid';
    const distance = Math.hypot(to.x - at.x, to.y - at.y, to.z - at.z);
    const sideways = Math.hypot(to.x - at.x, to.y - at.y) > 1e-9;
    const inWood = machine === 'router' ? Math.min(at.z, to.z) < -1e-9 : on;
    if (!rapid && feed <= 0) refuse('It cuts without a feed.');
    if (rapid && inWood && (sideways || to.z < at.z))
      refuse(`It would travel through the wood, ${Math.abs(Math.min(at.z, to.z)).toFixed(1)} mm deep.`);
    if (!rapid && machine === 'router' && inWood && !on) refuse('It would go into the wood with the spindle off.');
    const out =
      to.x < -beyond - 1e-6 ||
      to.y < -beyond - 1e-6 ||
      to.x > size.length + beyond + 1e-6 ||
      to.y > size.width + beyond + 1e-6;
    if (out && !rapid) refuse(`X${to.x} Y${to.y} lies outside the board.`);
    if (to.z < -deepest - 1e-6) refuse(`Z${to.z} is deeper than ${deepest.toFixed(1)} mm.`);
    run.moves.push({ rapid, from: at, to });
    run.minutes += distance / (rapid ? RAPID : Math.max(1, feed));
    if (!rapid && sideways) run.cutLength += distance;
    run.deepest = Math.max(run.deepest, -to.z);
    at = to;
  });
  if (!ended)
    run.refused.push({ line: text.split('\n').length, what: 'It has no end (M30): the file may be cut off.' });
  return run;
}
