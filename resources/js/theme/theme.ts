import { createTheme, Modal, type MantineColorsTuple } from '@mantine/core';

const verdigris: MantineColorsTuple = [
  '#e6f4f2',
  '#cfe6e3',
  '#a1ccc7',
  '#6fb1aa',
  '#469a92',
  '#2a8b83',
  '#157a72',
  '#0b665f',
  '#07544f',
  '#04403c',
];

export const theme = createTheme({
  primaryColor: 'verdigris',
  primaryShade: { light: 7, dark: 6 },
  colors: { verdigris },
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace",
  fontSizes: { xs: '12px', sm: '13px', md: '14px', lg: '16px', xl: '19px' },
  lineHeights: { xs: '1.35', sm: '1.4', md: '1.45', lg: '1.5', xl: '1.4' },
  defaultRadius: 3,
  cursorType: 'pointer',
  // at once there and at once gone: a key that is pressed meanwhile is meant for what is below
  components: {
    Modal: Modal.extend({
      defaultProps: { closeButtonProps: { 'aria-label': 'close' }, transitionProps: { duration: 0 } },
    }),
  },
  headings: {
    fontWeight: '650',
    sizes: { h1: { fontSize: '19px' }, h2: { fontSize: '15px' }, h3: { fontSize: '13px' } },
  },
});
