import { AS_IT_LIES, NO_CUTTING_WISHES, UNDECIDED } from '../board/board.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import { USUAL_GLUES } from '../shop/gluing.ts';
import { USUAL_SCHOOLS } from '../shop/schools.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { PLAIN_CONDITION } from '../stock/piece.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';

type Json = Record<string, unknown>;

/**
 * Steps from version 1 to 2 of what is stored and written to files: pieces got a condition, boards their cutting wishes, the shop its other saws and
 * the weights of the cut plan. Each fills in what version 1 took for granted, and leaves alone what is there already.
 */
export function upgradePieceTo2(piece: Json): Json {
  const offcut = /^(offcut|slat)/i.test(typeof piece.note === 'string' ? piece.note : '');
  return {
    ...PLAIN_CONDITION, ...(offcut ? { origin: { kind: 'offcut', of: '' } } : {}), ...piece,
    surface: piece.surface === 'surfaced' ? 'twoFaces' : piece.surface,
  };
}

export function upgradeBoardTo2(board: Json): Json {
  return { ...board, cutting: board.cutting ?? NO_CUTTING_WISHES };
}

export function upgradeShopTo2(shop: Json): Json {
  const saw = shop.saw as { kerf?: number } | undefined;
  return {
    // One kerf served every saw in version 1.
    crosscutSaw: { kerf: saw?.kerf ?? DEFAULT_SHOP.crosscutSaw.kerf }, bandSaw: DEFAULT_SHOP.bandSaw, cutting: DEFAULT_SHOP.cutting, ...shop,
    planer: { leastWidth: DEFAULT_SHOP.planer!.leastWidth, leastThickness: DEFAULT_SHOP.planer!.leastThickness, ...(shop.planer as Json | undefined) },
  };
}

export function upgradeFileTo2(file: Json): Json {
  const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
  return {
    ...file, version: 2,
    ...(isRecord(file.board) ? { board: upgradeBoardTo2(file.board) } : {}), ...(isRecord(file.shop) ? { shop: upgradeShopTo2(file.shop) } : {}),
    rack: list(file.rack).map((piece: unknown) => (isRecord(piece) ? upgradePieceTo2(piece) : piece)),
  };
}

/**
 * Steps from version 2 to 3: strips can be turned over, rolled and locked, boards have versions and seasons, species move and have cautions.
 */
export function upgradeBoardTo3(board: Json): Json {
  const strips = Array.isArray(board.strips) ? board.strips.map((strip: unknown) => (isRecord(strip) ? { ...AS_IT_LIES, ...strip } : strip)) : board.strips;
  return { seasons: null, versions: [], ...board, strips };
}

export function upgradeShopTo3(shop: Json): Json {
  return { seasons: DEFAULT_SHOP.seasons, ...shop, ...(isRecord(shop.habits) ? { habits: { edgeTreatment: DEFAULT_SHOP.habits.edgeTreatment, ...shop.habits } } : {}) };
}

/** A species that Cadenza knows gets its figures; one entered by hand has none yet. */
export function upgradeSpeciesTo3(species: Json): Json {
  const known = HANDBOOK_SPECIES.find((s) => s.code === species.code);
  const { radial = null, tangential = null, dust = 'usual', bleeds = false, foodNote = '', sapColour = species.colour, movementSource = '', cautionSource = '' } = known ?? {};
  return { radial, tangential, dust, bleeds, foodNote, sapColour, movementSource, cautionSource, ...species };
}

export function upgradeFileTo3(file: Json): Json {
  return {
    ...file, version: 3,
    ...(isRecord(file.board) ? { board: upgradeBoardTo3(file.board) } : {}), ...(isRecord(file.shop) ? { shop: upgradeShopTo3(file.shop) } : {}),
    ...(Array.isArray(file.species) ? { species: file.species.map((s: unknown) => (isRecord(s) ? upgradeSpeciesTo3(s) : s)) } : {}),
  };
}

/**
 * Steps from version 3 to 4: the shop's machines, clamps, glues, hours and schools became things of their own; a board may differ from its shop, and says how it is
 * glued, how a batch is cut from panels, and which stops it goes on with.
 */
export function upgradeShopTo4(shop: Json): Json {
  const planer = isRecord(shop.planer) ? shop.planer : null;
  const glue = isRecord(shop.glue) ? shop.glue : null;
  const { jointer, drumSander, routerSled, handTools, clamps, glues, hours, room, schools } = DEFAULT_SHOP;
  // One glue with one assembly time until now; half of it is taken as its open time, as on most bottles.
  const own = glue && typeof glue.assemblyMinutes === 'number' ? [{ ...USUAL_GLUES[0]!, id: 'own', name: glue.name, openMinutes: glue.assemblyMinutes / 2, closedMinutes: glue.assemblyMinutes, clampMinutes: glue.clampMinutes }] : [];
  return {
    // One machine served as jointer and planer.
    jointer: planer ? { ...jointer, width: planer.width, passDepth: planer.passDepth, leastLength: planer.leastLength } : jointer, drumSander, routerSled, handTools, clamps, hours, room, schools,
    glues: [...own, ...glues], ...shop,
    saw: isRecord(shop.saw) ? { kind: DEFAULT_SHOP.saw.kind, ...shop.saw } : shop.saw, crosscutSaw: isRecord(shop.crosscutSaw) ? { kind: DEFAULT_SHOP.crosscutSaw.kind, ...shop.crosscutSaw } : shop.crosscutSaw,
    planer: planer ? { head: DEFAULT_SHOP.planer!.head, ...planer } : shop.planer, glue: own[0]?.id ?? shop.glue ?? DEFAULT_SHOP.glue,
    habits: isRecord(shop.habits) ? { ripFat: DEFAULT_SHOP.habits.ripFat, ...shop.habits } : shop.habits,
    pace: isRecord(shop.pace) ? { clampInset: DEFAULT_SHOP.pace.clampInset, helperShare: DEFAULT_SHOP.pace.helperShare, work: DEFAULT_SHOP.pace.work, ...shop.pace } : shop.pace,
  };
}

export function upgradeBoardTo4(board: Json): Json {
  const { differs, gluing, perPanel, accepted } = UNDECIDED;
  return { differs, gluing, perPanel, accepted, ...board };
}

export function upgradeFileTo4(file: Json): Json {
  return {
    ...file, version: 4, ...(isRecord(file.board) ? { board: upgradeBoardTo4(file.board) } : {}), ...(isRecord(file.shop) ? { shop: upgradeShopTo4(file.shop) } : {}),
  };
}

/** Step from version 4 to 5: a router of its own. */
export function upgradeShopTo5(shop: Json): Json {
  return { router: DEFAULT_SHOP.router, ...shop };
}

export function upgradeFileTo5(file: Json): Json {
  return { ...file, version: 5, ...(isRecord(file.shop) ? { shop: upgradeShopTo5(file.shop) } : {}) };
}

/** Step from version 5 to 6: what is worked into a flat board, with the habits and questions it brings. */
export function upgradeShopTo6(shop: Json): Json {
  const { leaveBeneath, leaveBeside } = DEFAULT_SHOP.habits;
  const { grooveOrder, engraving, endGrain } = USUAL_SCHOOLS;
  return {
    ...shop, ...(isRecord(shop.habits) ? { habits: { leaveBeneath, leaveBeside, ...shop.habits } } : {}), ...(isRecord(shop.schools) ? { schools: { grooveOrder, engraving, endGrain, ...shop.schools } } : {}),
  };
}

export function upgradeBoardTo6(board: Json): Json {
  return { worked: NOTHING_WORKED, ...board };
}

export function upgradeFileTo6(file: Json): Json {
  return { ...file, version: 6, ...(isRecord(file.board) ? { board: upgradeBoardTo6(file.board) } : {}), ...(isRecord(file.shop) ? { shop: upgradeShopTo6(file.shop) } : {}) };
}

/**
 * Step from version 6 to 7: grits of the shop's own, none so far; strips say whether their maker chose the side that shows, which who turned one did; a stop
 * that was gone on with was so wherever it stood.
 */
export function upgradeShopTo7(shop: Json): Json {
  return { grits: null, ...shop };
}

export function upgradeBoardTo7(board: Json): Json {
  const strips = (list: unknown): unknown => (Array.isArray(list) ? list.map((s: unknown) => (isRecord(s) ? { sideKept: s.turned === true, ...s } : s)) : list);
  return {
    ...board, ...('strips' in board ? { strips: strips(board.strips) } : {}),
    ...(Array.isArray(board.versions) ? { versions: board.versions.map((v: unknown) => (isRecord(v) ? { ...v, strips: strips(v.strips) } : v)) } : {}),
    ...(Array.isArray(board.accepted) ? { accepted: board.accepted.map((a: unknown) => (isRecord(a) ? { strips: null, ...a } : a)) } : {}),
  };
}

export function upgradeFileTo7(file: Json): Json {
  return { ...file, version: 7, ...(isRecord(file.board) ? { board: upgradeBoardTo7(file.board) } : {}), ...(isRecord(file.shop) ? { shop: upgradeShopTo7(file.shop) } : {}) };
}

function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
