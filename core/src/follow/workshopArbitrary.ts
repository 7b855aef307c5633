import fc from 'fast-check';
import { BOARD_SIDES, type Fact } from '../facts/fact.ts';
import { USUAL_FINISHES } from '../shop/finishes.ts';
import { NO_CUTTING_WISHES, type Board } from '../board/board.ts';
import type { EdgeCut } from '../features/edge.ts';
import type { Feature } from '../features/feature.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import { UNDRAWN } from '../features/feature.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { plainBoard, plainPiece } from '../plan/planArbitrary.ts';
import { QUESTION_IDS, QUESTIONS, type Schools } from '../shop/schools.ts';
import { BARE_SHOP, DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { defectKinds, USUAL_TREATMENT } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { AS_IT_LIES, flatRecipe } from '../board/recipe.ts';

const tenths = (least: number, greatest: number) =>
  fc.integer({ min: Math.round(least * 10), max: Math.round(greatest * 10) }).map((n) => n / 10);
/** Inch shops: whole thirty-seconds. */
const thirtySeconds = (least: number, greatest: number) =>
  fc
    .integer({ min: Math.ceil((least / 25.4) * 32), max: Math.floor((greatest / 25.4) * 32) })
    .map((n) => (n * 25.4) / 32);
const CODES = ['maple-hard', 'beech-european', 'walnut-black', 'padauk'];

const schoolsArbitrary = fc.record(
  Object.fromEntries(QUESTION_IDS.map((q) => [q, fc.constantFrom(...QUESTIONS[q].schools.map((s) => s.id))])),
) as unknown as fc.Arbitrary<Schools>;

/** Bare shops and rich ones, in mm and inch. */
const shopArbitrary: fc.Arbitrary<Shop> = fc
  .record({
    bare: fc.constantFrom(true, false, false),
    schools: schoolsArbitrary,
    kerf: fc.oneof(tenths(1.4, 4), thirtySeconds(1.6, 4)),
    saw: fc.constantFrom<Shop['saw']['kind']>('table', 'table', 'circular', 'hand'),
    crosscut: fc.constantFrom<Shop['crosscutSaw']['kind']>('sled', 'mitre', 'track', 'circular', 'hand'),
    cutDepth: tenths(40, 90),
    band: fc.boolean(),
    jointer: fc.boolean(),
    planer: fc.boolean(),
    drum: fc.boolean(),
    sled: fc.boolean(),
    planerWidth: tenths(150, 400),
    clamps: fc.integer({ min: 0, max: 14 }),
    planes: fc.boolean(),
    belt: fc.boolean(),
    orbital: fc.boolean(),
    temperature: fc.integer({ min: 4, max: 32 }),
    glue: fc.constantFrom('water-resistant', 'waterproof', 'long-open'),
  })
  .map((s): Shop => {
    const base = s.bare ? BARE_SHOP : DEFAULT_SHOP;
    return {
      ...base,
      schools: s.schools,
      saw: { kind: s.saw, kerf: s.kerf, cutDepth: s.cutDepth },
      crosscutSaw: { kind: s.crosscut, kerf: s.kerf },
      room: { ...base.room, temperature: s.temperature },
      glue: s.glue,
      ...(s.bare
        ? {}
        : {
            bandSaw: s.band ? DEFAULT_SHOP.bandSaw : null,
            jointer: s.jointer ? DEFAULT_SHOP.jointer : null,
            planer: s.planer ? { ...DEFAULT_SHOP.planer!, width: s.planerWidth } : null,
            drumSander: s.drum ? { width: 400, passDepth: 0.3, leastLength: 60 } : null,
            routerSled: s.sled ? { width: 600, bit: 30, passDepth: 1 } : null,
          }),
      handTools: { planes: s.planes, beltSander: s.belt, orbitalSander: s.orbital },
      clamps: s.clamps === 0 ? [] : [{ ...DEFAULT_SHOP.clamps[0]!, count: s.clamps }],
    };
  });

const featureArbitrary: fc.Arbitrary<Feature> = fc
  .oneof(
    fc.record({
      kind: fc.constant('groove' as const),
      face: fc.constantFrom('top' as const, 'bottom' as const),
      offset: tenths(15, 30),
      bit: tenths(6, 14),
      depth: tenths(2, 6),
      corner: tenths(0, 30),
      wells: fc.constantFrom(1 as const, 2 as const),
      spout: fc.constantFrom(null, 'left' as const),
      fall: tenths(0, 2),
    }),
    fc.record({
      kind: fc.constant('finger' as const),
      on: fc.constantFrom('ends' as const, 'sides' as const),
      shape: fc.constantFrom('cove' as const, 'bevel' as const),
      bit: tenths(10, 16),
      length: tenths(40, 90),
      depth: tenths(4, 9),
      up: tenths(8, 14),
    }),
    fc.record({
      kind: fc.constant('hole' as const),
      on: fc.constantFrom('ends' as const, 'sides' as const),
      length: tenths(30, 90),
      width: tenths(20, 30),
      inset: tenths(20, 40),
    }),
    fc.record({
      kind: fc.constant('handle' as const),
      on: fc.constantFrom('ends' as const, 'sides' as const),
      bores: fc.constantFrom(1 as const, 2 as const),
      spacing: tenths(40, 80),
      bore: tenths(5, 9),
      inset: tenths(20, 40),
      counterbore: tenths(12, 18),
      sinkTop: tenths(0, 4),
      sinkBottom: tenths(0, 4),
    }),
    fc.record({
      kind: fc.constant('feet' as const),
      count: fc.constantFrom(4 as const, 6 as const),
      inset: tenths(20, 40),
      bore: tenths(12, 22),
      boreDepth: tenths(0, 3),
      screw: tenths(3, 5),
      screwDepth: tenths(5, 12),
    }),
    fc
      .record({
        kind: fc.constant('mark' as const),
        face: fc.constantFrom('top' as const, 'bottom' as const, 'far' as const, 'near' as const, 'left' as const),
        name: fc.constant('Name'),
        method: fc.constantFrom('laser' as const, 'brand' as const, 'router' as const, 'inlay' as const),
        x: tenths(60, 80),
        y: tenths(10, 14),
        length: tenths(10, 40),
        width: tenths(4, 8),
        depth: tenths(0.3, 3),
      })
      .chain((m) => fc.constantFrom(UNDRAWN.plugStart, 0.2).map((plugStart) => ({ ...UNDRAWN, ...m, plugStart }))),
  )
  .map((f) => ({ ...f, id: 'f' }));

const defectArbitrary = fc.record({
  kind: fc.constantFrom(...defectKinds),
  face: fc.constantFrom('up' as const, 'down' as const, 'through' as const),
  usual: fc.constantFrom(true, true, true, false),
  from: fc.integer({ min: 0, max: 95 }),
  across: fc.integer({ min: 0, max: 95 }),
  long: tenths(4, 60),
  wide: tenths(4, 30),
});

/** Stock of all kinds: rough and ready, tapered, bowed, checked, nailed. */
const stockArbitrary = (thickness: fc.Arbitrary<number>) =>
  fc.record({
    species: fc.constantFrom(...CODES),
    length: tenths(400, 2600),
    width: tenths(60, 260),
    thickness,
    surface: fc.constantFrom<Piece['surface']>('rough', 'rough', 'oneFace', 'twoFaces', 'fourSides', 'ready'),
    straight: fc.constantFrom<Piece['straight']>('none', 'near', 'far', 'both'),
    count: fc.constantFrom(1, 1, 2),
    defects: fc.array(defectArbitrary, { maxLength: 2 }),
    taper: fc.option(fc.tuple(fc.integer({ min: 75, max: 110 }), fc.integer({ min: 85, max: 110 })), {
      nil: null,
      freq: 4,
    }),
    form: fc.option(fc.record({ bow: tenths(0, 8), cup: tenths(0, 2), crook: tenths(0, 5), twist: tenths(0, 3) }), {
      nil: null,
    }),
  });

/** Boards that a maker could want, from racks that mostly give them, in shops of every kind: what the blind maker is tried on. */
export const workshopArbitrary: fc.Arbitrary<PlanInput> = fc
  .record({
    construction: fc.constantFrom<Board['construction']>('edge', 'face'),
    length: fc.oneof(tenths(150, 600), thirtySeconds(150, 600)),
    thickness: fc.oneof(tenths(14, 50), thirtySeconds(14, 50)),
    count: fc.constantFrom(1, 1, 1, 2, 3),
    perPanel: fc.constantFrom(1, 2, 3),
    strips: fc.array(
      fc.record({
        species: fc.constantFrom(...CODES),
        width: fc.oneof(tenths(20, 60), tenths(3, 20), thirtySeconds(20, 60)),
        endForEnd: fc.boolean(),
        turned: fc.boolean(),
        rolled: fc.constantFrom(false, false, false, false, true),
      }),
      { minLength: 1, maxLength: 9 },
    ),
    one: fc.boolean(),
    edgeTrim: tenths(2, 20),
    rack: fc.array(stockArbitrary(tenths(25, 70)), { minLength: 2, maxLength: 9 }),
    shop: shopArbitrary,
    features: fc.array(featureArbitrary, { maxLength: 2 }),
    spares: fc.constantFrom(0, 0, 1),
    eitherWay: fc.boolean(),
    helper: fc.boolean(),
    groups: fc.constantFrom(null, null, 'all'),
    others: fc.constantFrom(0, 0, 1),
    finish: fc.option(
      fc.shuffledSubarray(
        USUAL_FINISHES.map((f) => f.id),
        { maxLength: 3 },
      ),
      { nil: null },
    ),
    pits: fc.array(
      fc.record({
        side: fc.constantFrom(...BOARD_SIDES),
        depth: fc.constantFrom(0.05, 0.3, 1.2),
        filled: fc.boolean(),
      }),
      { maxLength: 2 },
    ),
  })
  .map((b): PlanInput => {
    const species = b.one ? () => b.strips[0]!.species : (code: string) => code;
    const strips = b.strips.map((s, i) => ({ ...AS_IT_LIES, ...s, id: `s${i}`, species: species(s.species) }));
    const panel = strips.reduce((sum, s) => sum + s.width, 0);
    const board = plainBoard({
      construction: b.construction,
      length: b.length,
      width: Math.max(30, panel - b.edgeTrim),
      thickness: b.thickness,
      count: b.count,
      perPanel: b.perPanel,
      finish: b.finish,
      recipe: flatRecipe(strips),
      cutting: { ...NO_CUTTING_WISHES, spares: b.spares, eitherWay: b.eitherWay },
      gluing: { helper: b.helper, groups: b.groups === 'all' ? [strips.length] : null },
      worked: {
        ...NOTHING_WORKED,
        features: b.features.slice(0, 1),
        others: b.others > 0 ? [{ id: 'o1', name: 'Small one', length: 120, width: 60 }] : [],
      },
    });
    const rack = b.rack.map(({ taper, defects, ...piece }, i) =>
      plainPiece({
        ...piece,
        id: `p${i}`,
        mark: `P${i}`,
        species: species(piece.species),
        form: piece.surface === 'ready' ? null : piece.form,
        farEnd:
          taper && piece.surface !== 'ready'
            ? { width: (piece.width * taper[0]) / 100, thickness: (piece.thickness * taper[1]) / 100 }
            : null,
        defects: defects.map((d, k) => ({
          id: `d${k}`,
          kind: d.kind,
          face: d.face,
          treatment: d.usual ? USUAL_TREATMENT[d.kind] : 'harmless',
          from: Math.min((d.from * piece.length) / 100, piece.length - d.long),
          length: d.long,
          across: Math.min((d.across * piece.width) / 100, piece.width - d.wide),
          width: d.wide,
        })),
      }),
    );
    const facts = b.pits.flatMap(({ side, depth, filled }, i): Fact[] => {
      const at = new Date(Date.UTC(2026, 10, 27, 8, i)).toISOString();
      const spot = { id: `spot${i}`, x: 20, y: 20, length: 10, width: 10, what: 'pit' };
      const found: Fact = { kind: 'badPlace', id: `pit${i}`, at, thing: 'panel', copy: 1, spot, side, depth };
      const filling: Fact = { kind: 'decided', id: `fill${i}`, at, about: `pit${i}`, way: 'fill' };
      return filled ? [found, filling] : [found];
    });
    return { board, rack, shop: b.shop, species: HANDBOOK_SPECIES, ...(facts.length > 0 ? { facts } : {}) };
  });

const edgeCutArbitrary: fc.Arbitrary<EdgeCut> = fc.oneof(
  fc.constant({ kind: 'straight' as const }),
  fc.record({ kind: fc.constant('chamfer' as const), reach: tenths(1, 12), angle: fc.constantFrom(30, 45, 60) }),
  fc.record({ kind: fc.constant('roundOver' as const), radius: tenths(1, 10) }),
  fc.record({ kind: fc.constant('thumbnail' as const), reach: tenths(2, 12), drop: tenths(1, 6), step: tenths(0, 2) }),
);
const sideArbitrary = fc.record({ top: edgeCutArbitrary, bottom: edgeCutArbitrary });

/** The same boards with much worked into them: several features, edges of their own and shaped corners, so that one cut may spoil another. */
export const busyWorkshopArbitrary: fc.Arbitrary<PlanInput> = fc
  .record({
    input: workshopArbitrary,
    features: fc.array(featureArbitrary, { minLength: 2, maxLength: 4 }),
    edges: fc.record({ far: sideArbitrary, right: sideArbitrary, near: sideArbitrary, left: sideArbitrary }),
    corners: fc.record({
      kind: fc.constantFrom('square' as const, 'round' as const, 'clip' as const),
      size: tenths(2, 30),
    }),
  })
  .map(({ input, features, edges, corners }) => ({
    ...input,
    board: {
      ...input.board,
      worked: { ...input.board.worked, features: features.map((f, i) => ({ ...f, id: `f${i}` })), edges, corners },
    },
  }));
