/** What version 3 knew of the movement and the dangers of its own species, by code. Frozen: figures that were corrected since are corrected in the list of today. */
const MOVEMENT = [
  'Wood Handbook, FPL-GTR-282 (2021), table 13-5, from memory',
  'Differential swelling as DIN 68100 tabulates it, percent per percent, from memory',
  'Shrinkage from green to oven-dry over 28.5 %, as the handbook derives it, from memory',
] as const;
const CAUTION = [
  '',
  'Lists of toxic and sensitising woods as safety advice reprints them, from memory',
] as const;

export const SPECIES_OF_3: Readonly<Record<string, object>> = {
  'maple-hard': { radial: 0.00165, tangential: 0.00353, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#f3e6c8', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'maple-red': { radial: 0.00137, tangential: 0.00289, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#efdfc0', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'cherry-black': { radial: 0.00126, tangential: 0.00248, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e6cba4', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'walnut-black': { radial: 0.0019, tangential: 0.00274, dust: 'irritant', bleeds: true, foodNote: '', sapColour: '#cdb08a', movementSource: MOVEMENT[0], cautionSource: CAUTION[1] },
  'beech-american': { radial: 0.0019, tangential: 0.00431, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e6ccab', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'birch-yellow': { radial: 0.00256, tangential: 0.00338, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#efdcb8', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'ash-white': { radial: 0.00169, tangential: 0.00274, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#ecdfc4', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'oak-white': { radial: 0.0018, tangential: 0.00365, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e0cda8', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'oak-red': { radial: 0.00158, tangential: 0.00369, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e2c9a8', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'hickory': { radial: 0.00169, tangential: 0.00315, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e8d6b4', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'poplar-yellow': { radial: 0.00158, tangential: 0.00289, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#ebe6cb', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'alder-red': { radial: 0.00151, tangential: 0.00256, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#dfbb97', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'sycamore-american': { radial: 0.00172, tangential: 0.00296, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e9d5b6', movementSource: MOVEMENT[0], cautionSource: CAUTION[0] },
  'beech-european': { radial: 0.002, tangential: 0.0041, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e5caa8', movementSource: MOVEMENT[1], cautionSource: CAUTION[0] },
  'maple-sycamore': { radial: 0.0015, tangential: 0.0026, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#f2e7d0', movementSource: MOVEMENT[1], cautionSource: CAUTION[0] },
  'birch-european': { radial: 0.0021, tangential: 0.0029, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#efdfc0', movementSource: MOVEMENT[1], cautionSource: CAUTION[0] },
  'cherry-wild': { radial: 0.0017, tangential: 0.0028, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#e8cfa9', movementSource: MOVEMENT[1], cautionSource: CAUTION[0] },
  'walnut-european': { radial: 0.0018, tangential: 0.0028, dust: 'irritant', bleeds: true, foodNote: '', sapColour: '#d3b892', movementSource: MOVEMENT[1], cautionSource: CAUTION[1] },
  'pear': { radial: 0.0016, tangential: 0.0033, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#dfba9d', movementSource: MOVEMENT[1], cautionSource: CAUTION[0] },
  'hornbeam': { radial: 0.0023, tangential: 0.004, dust: 'usual', bleeds: false, foodNote: '', sapColour: '#ebe0c8', movementSource: MOVEMENT[1], cautionSource: CAUTION[0] },
  'robinia': { radial: 0.0023, tangential: 0.0035, dust: 'irritant', bleeds: false, foodNote: 'Bark and young wood are poisonous; heartwood is used, but people differ on it for food.', sapColour: '#e3d6a2', movementSource: MOVEMENT[1], cautionSource: CAUTION[1] },
  'mahogany': { radial: 0.00172, tangential: 0.00238, dust: 'irritant', bleeds: false, foodNote: '', sapColour: '#d9bd98', movementSource: MOVEMENT[0], cautionSource: CAUTION[1] },
  'teak': { radial: 0.00101, tangential: 0.00186, dust: 'sensitiser', bleeds: false, foodNote: 'Blunts tools quickly; its oil keeps finishes and glue off.', sapColour: '#ddc9a0', movementSource: MOVEMENT[0], cautionSource: CAUTION[1] },
  'purpleheart': { radial: 0.00112, tangential: 0.00214, dust: 'irritant', bleeds: true, foodNote: '', sapColour: '#dcc6ae', movementSource: MOVEMENT[2], cautionSource: CAUTION[1] },
  'padauk': { radial: 0.00116, tangential: 0.00182, dust: 'sensitiser', bleeds: true, foodNote: '', sapColour: '#e6cfa9', movementSource: MOVEMENT[2], cautionSource: CAUTION[1] },
  'wenge': { radial: 0.00168, tangential: 0.00284, dust: 'sensitiser', bleeds: false, foodNote: 'Coarse and open; splinters of it fester.', sapColour: '#d6c19c', movementSource: MOVEMENT[2], cautionSource: CAUTION[1] },
  'bloodwood': { radial: 0.00161, tangential: 0.00246, dust: 'irritant', bleeds: true, foodNote: '', sapColour: '#e4cda4', movementSource: MOVEMENT[2], cautionSource: CAUTION[1] },
  'jatoba': { radial: 0.00158, tangential: 0.00298, dust: 'irritant', bleeds: false, foodNote: '', sapColour: '#ddc49d', movementSource: MOVEMENT[2], cautionSource: CAUTION[1] },
  'iroko': { radial: 0.00098, tangential: 0.00133, dust: 'sensitiser', bleeds: false, foodNote: 'Holds mineral grit; some people react to it.', sapColour: '#dcc99b', movementSource: MOVEMENT[2], cautionSource: CAUTION[1] },
};
