import { KEY_INKS } from '#core/margin';
import 'vuetify/styles';
import { createVuetify, type ThemeDefinition } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';

/** Labels of fields are as readable as what stands in them, nearly. */
const READABLE = { 'medium-emphasis-opacity': 0.8 };

/** DESIGN section 4: paper, ink and greys everywhere; saturated colour only where somebody speaks. */
export const light = {
  dark: false,
  colors: {
    background: '#ECE7DD',
    surface: '#FBF8F2',
    'on-background': '#22201C',
    'on-surface': '#22201C',
    primary: '#22201C',
    'on-primary': '#FBF8F2',
    hairline: '#D6CFC2',
    quiet: '#625C52',
    error: '#A3301D',
    ...KEY_INKS,
  },
  variables: READABLE,
} satisfies ThemeDefinition;

export const dark = {
  dark: true,
  colors: {
    background: '#191714',
    surface: '#24211D',
    'on-background': '#EFE9DE',
    'on-surface': '#EFE9DE',
    primary: '#EFE9DE',
    'on-primary': '#24211D',
    hairline: '#4A443B',
    quiet: '#B3AA9B',
    error: '#F59683',
    moss: '#7FCB9C',
    cobalt: '#98B6FF',
    vermilion: '#F59683',
    ochre: '#DDAE5A',
    plum: '#E0A3D6',
    teal: '#74CBCB',
    slate: '#B4C0D4',
    rose: '#F7A0C2',
    umber: '#DDB594',
  },
  variables: READABLE,
} satisfies ThemeDefinition;

export const vuetify = createVuetify({
  theme: { defaultTheme: 'system', themes: { light, dark } },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  defaults: {
    VBtn: { variant: 'text', rounded: 'sm', ripple: false },
    VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto', rounded: 'sm' },
    VTextarea: { variant: 'outlined', density: 'compact', hideDetails: true, autoGrow: true, rows: 1, rounded: 'sm' },
    VFileInput: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCombobox: { variant: 'outlined', density: 'compact', hideDetails: true, rounded: 'sm' },
    VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: true, rounded: 'sm' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: true, rounded: 'sm' },
    VNumberInput: {
      variant: 'outlined',
      density: 'compact',
      hideDetails: true,
      rounded: 'sm',
      controlVariant: 'hidden',
    },
    VCheckbox: { density: 'compact', hideDetails: true, color: 'primary', ripple: false },
    VRadioGroup: { density: 'compact', hideDetails: true },
    VRadio: { density: 'compact', color: 'primary', ripple: false },
    VBtnToggle: { density: 'compact', variant: 'outlined', rounded: 'sm' },
    VChip: { size: 'small', variant: 'outlined', rounded: 'pill' },
    VTable: { density: 'comfortable' },
    VList: { density: 'compact' },
    // The page stands still behind an open list: otherwise it may move away from under a press.
    VMenu: { scrollStrategy: 'block' },
  },
});
