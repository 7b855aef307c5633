import { densityAt12, type Species } from './species.ts';

const HANDBOOK = 'Wood Handbook, FPL-GTR-282 (2021), table 5-3, from memory';
const COMMON_PRACTICE = 'usual trade figure, common practice, from memory';

type Row = [code: string, name: string, botanical: string, gravity: number, hardness: number | null, pores: Species['pores'],
  colour: string, lineColour: string];

/** Specific gravity at 12 % and side hardness as the handbook tabulates them; the colours are for drawing only. */
const AMERICAN: Row[] = [
  ['maple-hard', 'Hard maple', 'Acer saccharum', 0.63, 6400, 'diffuse', '#ecd9b4', '#d4b98a'],
  ['maple-red', 'Red maple', 'Acer rubrum', 0.54, 4200, 'diffuse', '#e5cda6', '#cbab7e'],
  ['cherry-black', 'Black cherry', 'Prunus serotina', 0.5, 4200, 'diffuse', '#c18a5e', '#a06a42'],
  ['walnut-black', 'Black walnut', 'Juglans nigra', 0.55, 4500, 'semiRing', '#6f5140', '#4e372b'],
  ['beech-american', 'American beech', 'Fagus grandifolia', 0.64, 5800, 'diffuse', '#d8b189', '#bb8f66'],
  ['birch-yellow', 'Yellow birch', 'Betula alleghaniensis', 0.62, 5600, 'diffuse', '#e2c496', '#c9a673'],
  ['ash-white', 'White ash', 'Fraxinus americana', 0.6, 5900, 'ring', '#dfcba6', '#b99e73'],
  ['oak-white', 'White oak', 'Quercus alba', 0.68, 6000, 'ring', '#c8a97c', '#9d7d52'],
  ['oak-red', 'Northern red oak', 'Quercus rubra', 0.63, 5700, 'ring', '#cda27c', '#a57753'],
  ['hickory', 'Hickory', 'Carya illinoinensis', 0.66, 8100, 'ring', '#cfae85', '#a78257'],
  ['poplar-yellow', 'Yellow-poplar', 'Liriodendron tulipifera', 0.42, 2400, 'diffuse', '#d5cfa4', '#b3ad7e'],
  ['alder-red', 'Red alder', 'Alnus rubra', 0.41, 2600, 'diffuse', '#d3a57c', '#b58358'],
  ['sycamore-american', 'American sycamore', 'Platanus occidentalis', 0.49, 3400, 'diffuse', '#dcbf9c', '#bd9a73'],
];

/** European species: density at 12 % in kg/m3 rather than specific gravity. Hardness left out where no figure is sure. */
const EUROPEAN: Row[] = [
  ['beech-european', 'European beech', 'Fagus sylvatica', 0.643, 6460, 'diffuse', '#d9b48f', '#bd926b'],
  ['maple-sycamore', 'Sycamore maple', 'Acer pseudoplatanus', 0.549, 4680, 'diffuse', '#ead9bb', '#d3bd96'],
  ['birch-european', 'European birch', 'Betula pendula', 0.571, 5200, 'diffuse', '#e4cba2', '#c9a97b'],
  ['cherry-wild', 'Wild cherry', 'Prunus avium', 0.536, 5120, 'semiRing', '#c9946a', '#a8744b'],
  ['walnut-european', 'European walnut', 'Juglans regia', 0.571, 5410, 'semiRing', '#84644c', '#5c4232'],
  ['pear', 'Pear', 'Pyrus communis', 0.616, 7380, 'diffuse', '#d0a182', '#b5825f'],
  ['hornbeam', 'Hornbeam', 'Carpinus betulus', 0.656, 7260, 'diffuse', '#e3d6b8', '#c9b992'],
  ['robinia', 'Robinia', 'Robinia pseudoacacia', 0.688, 7560, 'ring', '#b99b58', '#8f7436'],
];

function toSpecies(rows: Row[], source: string): Species[] {
  return rows.map(([code, name, botanical, gravity, hardness, pores, colour, lineColour]) => ({
    code, name, botanical, density: Math.round(densityAt12(gravity) * 10) / 10, hardness, pores, oily: false, colour, lineColour, source,
  }));
}

/** The species every new Cadenza knows, in the order they are offered. Figures with their source; colours for drawing. */
export const HANDBOOK_SPECIES: readonly Species[] = [...toSpecies(AMERICAN, HANDBOOK), ...toSpecies(EUROPEAN, COMMON_PRACTICE)];
