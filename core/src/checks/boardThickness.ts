import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Boards thinner than this are too thin (common practice). */
export const LEAST_BOARD_THICKNESS = 15;

/** The thickness that comes out against what is wanted, and against what makes a board at all. */
export const boardThickness: Rule = (plan, input) => {
  const { board } = input;
  const findings: Found[] = [];
  const { shortBy, reached, limiting } = plan.ladders.thickness;
  if (shortBy > 0) {
    findings.push({
      rule: 'board-thickness',
      severity: 'stop',
      strips: [],
      what: say`The board comes out ${length(reached)} thick, ${length(shortBy)} short of ${length(board.thickness)}.`,
      why: limiting ? say`Limited by ${limiting}.` : say`The stock does not leave more.`,
      waysOut: [
        say`Use thicker stock for that strip.`,
        say`Make the board ${length(reached)} thick.`,
        say`Stand the strips on edge: then the rip decides the thickness.`,
      ],
    });
  }
  return [...findings, ...thinBoard(plan, input)];
};

/** What is too thin to be a board at all. */
export const thinBoard: Rule = (_plan, { board }) => {
  if (board.thickness >= LEAST_BOARD_THICKNESS) return [];
  return [
    {
      rule: 'thin-board',
      severity: 'caution',
      strips: [],
      what: say`${length(board.thickness)} is thin for a cutting board.`,
      why: say`Under ${length(LEAST_BOARD_THICKNESS)} a board warps and the joints have little to hold on.`,
      waysOut: [say`Make it at least ${length(LEAST_BOARD_THICKNESS)} thick.`],
    },
  ];
};
