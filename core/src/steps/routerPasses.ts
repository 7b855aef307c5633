import { passDepths } from '../features/routerPass.ts';

/** How many passes a router bit takes to a depth. @param bit across, mm @param depth mm */
export const routerPasses = (bit: number, depth: number): number => passDepths(depth, bit).length;
