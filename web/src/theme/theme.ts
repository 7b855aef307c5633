import { createTheme, type MantineColorsTuple } from '@mantine/core';

/** Marking blue: the colour of layout dye and of everything that can be pressed. */
const marking: MantineColorsTuple = [
  '#eaf2ff',
  '#d2e2fc',
  '#a5c4f5',
  '#75a4ee',
  '#4d89e8',
  '#2f74d0',
  '#1f62b8',
  '#164f98',
  '#0f3f7c',
  '#092c59',
];

/** Cool greys from paper to graphite; also what the dark page is made of. */
const graphite: MantineColorsTuple = [
  '#e4e8ec',
  '#c6ccd3',
  '#a3abb5',
  '#848e9a',
  '#5c6672',
  '#414a55',
  '#303841',
  '#20262d',
  '#171c22',
  '#101418',
];

export const theme = createTheme({
  fontFamily: "'Fira Sans', system-ui, sans-serif",
  headings: { fontFamily: "'Fira Sans', system-ui, sans-serif", fontWeight: '600' },
  colors: { marking, dark: graphite },
  primaryColor: 'marking',
  primaryShade: { light: 6, dark: 5 },
  defaultRadius: 3,
  autoContrast: true,
  cursorType: 'pointer',
  components: {
    Button: { defaultProps: { size: 'sm' } },
    // The page has one banner; the heads of dialogs are not.
    Modal: { defaultProps: { attributes: { header: { role: 'none' } } } },
    Drawer: { defaultProps: { attributes: { header: { role: 'none' } } } },
    TextInput: { defaultProps: { size: 'sm' } },
    Tooltip: { defaultProps: { openDelay: 500, withArrow: true } },
  },
});
