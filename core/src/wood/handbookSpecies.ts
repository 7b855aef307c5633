import { densityAt12, type Species } from './species.ts';

const HANDBOOK = 'Wood Handbook, FPL-GTR-282 (2021), table 5-3, from memory';
const HANDBOOK_MOVEMENT = 'Wood Handbook, FPL-GTR-282 (2021), table 13-5, from memory';
const TRADE_FIGURES = 'usual trade figure, common practice, from memory';
const SWELLING = 'Differential swelling as DIN 68100 tabulates it, percent per percent, from memory';
const SHRINKAGE = 'Shrinkage from green to oven-dry over 28.5 %, as the handbook derives it, from memory';
const CAUTIONS = 'Lists of toxic and sensitising woods as safety advice reprints them, from memory';

type Row = [code: string, name: string, botanical: string, gravity: number, hardness: number | null, pores: Species['pores'],
  radial: number, tangential: number, colour: string, lineColour: string, sapColour: string];

/** Specific gravity at 12 %, side hardness, and dimensional change coefficients as the handbook tabulates them; the colours are for drawing only. */
const AMERICAN: Row[] = [
  ['maple-hard', 'Hard maple', 'Acer saccharum', 0.63, 6400, 'diffuse', 0.00165, 0.00353, '#ecd9b4', '#d4b98a', '#f3e6c8'],
  ['maple-red', 'Red maple', 'Acer rubrum', 0.54, 4200, 'diffuse', 0.00137, 0.00289, '#e5cda6', '#cbab7e', '#efdfc0'],
  ['cherry-black', 'Black cherry', 'Prunus serotina', 0.5, 4200, 'diffuse', 0.00126, 0.00248, '#c18a5e', '#a06a42', '#e6cba4'],
  ['walnut-black', 'Black walnut', 'Juglans nigra', 0.55, 4500, 'semiRing', 0.0019, 0.00274, '#6f5140', '#4e372b', '#cdb08a'],
  ['beech-american', 'American beech', 'Fagus grandifolia', 0.64, 5800, 'diffuse', 0.0019, 0.00431, '#d8b189', '#bb8f66', '#e6ccab'],
  ['birch-yellow', 'Yellow birch', 'Betula alleghaniensis', 0.62, 5600, 'diffuse', 0.00256, 0.00338, '#e2c496', '#c9a673', '#efdcb8'],
  ['ash-white', 'White ash', 'Fraxinus americana', 0.6, 5900, 'ring', 0.00169, 0.00274, '#dfcba6', '#b99e73', '#ecdfc4'],
  ['oak-white', 'White oak', 'Quercus alba', 0.68, 6000, 'ring', 0.0018, 0.00365, '#c8a97c', '#9d7d52', '#e0cda8'],
  ['oak-red', 'Northern red oak', 'Quercus rubra', 0.63, 5700, 'ring', 0.00158, 0.00369, '#cda27c', '#a57753', '#e2c9a8'],
  ['hickory', 'Hickory', 'Carya illinoinensis', 0.66, 8100, 'ring', 0.00169, 0.00315, '#cfae85', '#a78257', '#e8d6b4'],
  ['poplar-yellow', 'Yellow-poplar', 'Liriodendron tulipifera', 0.42, 2400, 'diffuse', 0.00158, 0.00289, '#d5cfa4', '#b3ad7e', '#ebe6cb'],
  ['alder-red', 'Red alder', 'Alnus rubra', 0.41, 2600, 'diffuse', 0.00151, 0.00256, '#d3a57c', '#b58358', '#dfbb97'],
  ['sycamore-american', 'American sycamore', 'Platanus occidentalis', 0.49, 3400, 'diffuse', 0.00172, 0.00296, '#dcbf9c', '#bd9a73', '#e9d5b6'],
];

/** European species: density at 12 % over 1120 kg/m3 stands in the place of specific gravity. */
const EUROPEAN: Row[] = [
  ['beech-european', 'European beech', 'Fagus sylvatica', 0.643, 6460, 'diffuse', 0.002, 0.0041, '#d9b48f', '#bd926b', '#e5caa8'],
  ['maple-sycamore', 'Sycamore maple', 'Acer pseudoplatanus', 0.549, 4680, 'diffuse', 0.0015, 0.0026, '#ead9bb', '#d3bd96', '#f2e7d0'],
  ['birch-european', 'European birch', 'Betula pendula', 0.571, 5200, 'diffuse', 0.0021, 0.0029, '#e4cba2', '#c9a97b', '#efdfc0'],
  ['cherry-wild', 'Wild cherry', 'Prunus avium', 0.536, 5120, 'semiRing', 0.0017, 0.0028, '#c9946a', '#a8744b', '#e8cfa9'],
  ['walnut-european', 'European walnut', 'Juglans regia', 0.571, 5410, 'semiRing', 0.0018, 0.0028, '#84644c', '#5c4232', '#d3b892'],
  ['pear', 'Pear', 'Pyrus communis', 0.616, 7380, 'diffuse', 0.0016, 0.0033, '#d0a182', '#b5825f', '#dfba9d'],
  ['hornbeam', 'Hornbeam', 'Carpinus betulus', 0.656, 7260, 'diffuse', 0.0023, 0.004, '#e3d6b8', '#c9b992', '#ebe0c8'],
  ['robinia', 'Robinia', 'Robinia pseudoacacia', 0.688, 7560, 'ring', 0.0023, 0.0035, '#b99b58', '#8f7436', '#e3d6a2'],
];

/** Tropical species, the same way. Mahogany and teak move as the handbook says. */
const TROPICAL: Row[] = [
  ['mahogany', 'True mahogany', 'Swietenia macrophylla', 0.527, 3560, 'diffuse', 0.00172, 0.00238, '#a8623f', '#86482c', '#d9bd98'],
  ['teak', 'Teak', 'Tectona grandis', 0.585, 4740, 'semiRing', 0.00101, 0.00186, '#a87f4f', '#7f5b33', '#ddc9a0'],
  ['purpleheart', 'Purpleheart', 'Peltogyne spp.', 0.808, 11190, 'diffuse', 0.00112, 0.00214, '#7a4668', '#5b2f4d', '#dcc6ae'],
  ['padauk', 'African padauk', 'Pterocarpus soyauxii', 0.665, 8760, 'diffuse', 0.00116, 0.00182, '#b1472a', '#8a301b', '#e6cfa9'],
  ['wenge', 'Wenge', 'Millettia laurentii', 0.777, 8600, 'diffuse', 0.00168, 0.00284, '#4a372c', '#2b1e18', '#d6c19c'],
  ['bloodwood', 'Bloodwood', 'Brosimum rubescens', 0.938, 12900, 'diffuse', 0.00161, 0.00246, '#98322b', '#75211f', '#e4cda4'],
  ['jatoba', 'Jatoba', 'Hymenaea courbaril', 0.813, 11950, 'diffuse', 0.00158, 0.00298, '#a3613f', '#7e4528', '#ddc49d'],
  ['iroko', 'Iroko', 'Milicia excelsa', 0.589, 5610, 'diffuse', 0.00098, 0.00133, '#a57e45', '#7d5c2e', '#dcc99b'],
];

type Caution = Partial<Pick<Species, 'oily' | 'dust' | 'bleeds' | 'foodNote'>>;

/** What sets a species apart at the bench and at the table. */
const CAUTION: Readonly<Record<string, Caution>> = {
  'walnut-black': { dust: 'irritant', bleeds: true },
  'walnut-european': { dust: 'irritant', bleeds: true },
  robinia: { dust: 'irritant', foodNote: 'Bark and young wood are poisonous; heartwood is used, but people differ on it for food.' },
  mahogany: { dust: 'irritant' },
  teak: { oily: true, dust: 'sensitiser', foodNote: 'Blunts tools quickly; its oil keeps finishes and glue off.' },
  purpleheart: { dust: 'irritant', bleeds: true },
  padauk: { oily: true, dust: 'sensitiser', bleeds: true },
  wenge: { dust: 'sensitiser', foodNote: 'Coarse and open; splinters of it fester.' },
  bloodwood: { dust: 'irritant', bleeds: true },
  jatoba: { dust: 'irritant' },
  iroko: { oily: true, dust: 'sensitiser', foodNote: 'Holds mineral grit; some people react to it.' },
};

function toSpecies(rows: Row[], source: string, movementSource: string | ((code: string) => string)): Species[] {
  return rows.map(([code, name, botanical, gravity, hardness, pores, radial, tangential, colour, lineColour, sapColour]) => ({
    code, name, botanical, density: Math.round(densityAt12(gravity) * 10) / 10, hardness, pores, oily: false, radial, tangential,
    dust: 'usual', bleeds: false, foodNote: '', ...CAUTION[code], colour, lineColour, sapColour, source,
    movementSource: typeof movementSource === 'string' ? movementSource : movementSource(code), cautionSource: CAUTION[code] ? CAUTIONS : '',
  }));
}

/** The species every new Cadenza knows, in the order they are offered. Figures with their source; colours for drawing. */
export const HANDBOOK_SPECIES: readonly Species[] = [
  ...toSpecies(AMERICAN, HANDBOOK, HANDBOOK_MOVEMENT), ...toSpecies(EUROPEAN, TRADE_FIGURES, SWELLING),
  ...toSpecies(TROPICAL, TRADE_FIGURES, (code) => (code === 'teak' || code === 'mahogany' ? HANDBOOK_MOVEMENT : SHRINKAGE)),
];
