import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { passCount, passDepth, passesOf } from './machines.ts';
import { QUESTION_IDS, QUESTIONS, schoolOf, schoolsSchema, USUAL_SCHOOLS } from './schools.ts';
import { BARE_SHOP, DEFAULT_SHOP, shopSchema, type Shop } from './shop.ts';
import {
  crosscutTool,
  MITRE_REACH_MM,
  panelSaw,
  ripTool,
  roughSaw,
  shopHas,
  thinRipOf,
  TOOL_NAMES,
  toolIds,
} from './tools.ts';

const planer = { width: 260, passDepth: 2 };

describe('passes', () => {
  it('a full pass up to half of the planer’s width, half of it at all of it, evenly between (common practice)', () => {
    expect([
      passDepth(planer, 50),
      passDepth(planer, 130),
      passDepth(planer, 195),
      passDepth(planer, 260),
      passDepth(planer, 400),
    ]).toEqual([2, 2, 1.5, 1, 1]);
  });

  it('so many as it takes, none for nothing, and never a deeper one than the machine takes', () => {
    expect([passesOf(2, 0), passesOf(2, 0.1), passesOf(2, 2), passesOf(2, 2.0001), passesOf(2, 6)]).toEqual([
      0, 1, 1, 2, 3,
    ]);
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (width, removal) => {
          const count = passCount(planer, width, removal);
          expect(removal / Math.max(1, count)).toBeLessThanOrEqual(passDepth(planer, width) + 1e-6);
          if (count > 1) expect(removal / (count - 1)).toBeGreaterThan(passDepth(planer, width) - 1e-6);
        },
      ),
    );
  });
});

describe('the saws of a shop', () => {
  const shop = (saw: Shop['saw']['kind'], crosscut: Shop['crosscutSaw']['kind'], band = true): Shop => ({
    ...DEFAULT_SHOP,
    saw: { ...DEFAULT_SHOP.saw, kind: saw, kerf: 3 },
    crosscutSaw: { kind: crosscut, kerf: 2.5 },
    bandSaw: band ? DEFAULT_SHOP.bandSaw : null,
  });

  it('a panel wider than a mitre saw reaches goes over another saw, with that saw’s kerf', () => {
    expect(panelSaw(shop('table', 'mitre'), MITRE_REACH_MM)).toEqual({ tool: 'mitreSaw', kerf: 2.5 });
    expect(panelSaw(shop('table', 'mitre'), MITRE_REACH_MM + 1)).toEqual({ tool: 'sled', kerf: 3 });
    expect(panelSaw(shop('circular', 'mitre'), 400)).toEqual({ tool: 'circularSaw', kerf: 3 });
    expect(panelSaw(shop('table', 'track'), 900)).toEqual({ tool: 'trackSaw', kerf: 2.5 });
  });

  it('rough wood never runs along the fence of a table saw', () => {
    expect(roughSaw(shop('table', 'sled')).tool).toBe('bandSaw');
    expect(roughSaw(shop('table', 'sled', false)).tool).toBe('carrierSled');
    expect(roughSaw(shop('circular', 'circular', false)).tool).toBe('circularSaw');
    expect(roughSaw(shop('hand', 'hand', false)).tool).toBe('handSaw');
  });

  it('thin strips are ripped by the school where its saw is there, else with what is', () => {
    const by = (thin: 'bandSaw' | 'thinRip', s: Shop) => thinRipOf({ ...s, schools: { ...s.schools, thin } });
    expect(by('thinRip', shop('table', 'sled'))).toMatchObject({ tool: 'tableSaw', guide: 'stop', clean: 0 });
    expect(by('bandSaw', shop('table', 'sled'))).toMatchObject({ tool: 'bandSaw', clean: DEFAULT_SHOP.bandSaw!.clean });
    expect(by('thinRip', shop('circular', 'track'))).toMatchObject({ tool: 'bandSaw' });
    expect(by('bandSaw', shop('hand', 'hand', false))).toMatchObject({
      tool: 'handSaw',
      guide: 'line',
      clean: DEFAULT_SHOP.habits.glueEdgeJoint,
    });
  });

  it('every tool has a name, and every shop the saws that it says it rips and crosscuts with', () => {
    for (const tool of toolIds) expect(TOOL_NAMES[tool].length).toBeGreaterThan(3);
    for (const saw of ['table', 'circular', 'hand'] as const)
      for (const crosscut of ['mitre', 'sled', 'track', 'circular', 'hand'] as const) {
        const s = shop(saw, crosscut, false);
        expect([
          shopHas(s, ripTool(s)),
          shopHas(s, crosscutTool(s)),
          shopHas(s, panelSaw(s, 900).tool),
          shopHas(s, roughSaw(s).tool),
        ]).toEqual([true, true, true, true]);
      }
    expect(
      toolIds
        .filter((t) => ['planer', 'jointer', 'bandSaw', 'drumSander', 'routerSled'].includes(t))
        .map((t) => shopHas(BARE_SHOP, t)),
    ).not.toContain(true);
  });
});

describe('schools', () => {
  it('every question asks, every answer has a name and a reason, and each can be stored', () => {
    for (const q of QUESTION_IDS) {
      const { asks, schools } = QUESTIONS[q];
      expect(asks.length).toBeGreaterThan(2);
      expect(schools.length).toBeGreaterThan(1);
      expect(new Set(schools.map((s) => s.id)).size).toBe(schools.length);
      for (const school of schools) {
        expect([q, school.id, school.name.length > 1, school.why.length > 3]).toEqual([q, school.id, true, true]);
        const chosen = { ...USUAL_SCHOOLS, [q]: school.id };
        expect(schoolsSchema.safeParse(chosen).success).toBe(true);
        expect(schoolOf(chosen, q).id).toBe(school.id);
      }
      expect(schoolsSchema.safeParse({ ...USUAL_SCHOOLS, [q]: 'otherwise' }).success).toBe(false);
    }
  });

  it('the usual shop and the bare one can be stored', () => {
    for (const shop of [DEFAULT_SHOP, BARE_SHOP]) expect(shopSchema.safeParse(shop).success).toBe(true);
  });
});
