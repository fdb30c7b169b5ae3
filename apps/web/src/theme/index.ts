import '@fontsource-variable/bitter';
import '@fontsource-variable/source-code-pro';
import '@fontsource-variable/source-sans-3';
import '@fontsource-variable/source-sans-3/wght-italic.css';
import { definePreset } from '@primeuix/themes';
import base from '@primeuix/themes/nora/base';
import badge from '@primeuix/themes/nora/badge';
import button from '@primeuix/themes/nora/button';
import checkbox from '@primeuix/themes/nora/checkbox';
import chip from '@primeuix/themes/nora/chip';
import datatable from '@primeuix/themes/nora/datatable';
import datepicker from '@primeuix/themes/nora/datepicker';
import dialog from '@primeuix/themes/nora/dialog';
import fileupload from '@primeuix/themes/nora/fileupload';
import iconfield from '@primeuix/themes/nora/iconfield';
import inputnumber from '@primeuix/themes/nora/inputnumber';
import inputtext from '@primeuix/themes/nora/inputtext';
import menu from '@primeuix/themes/nora/menu';
import message from '@primeuix/themes/nora/message';
import multiselect from '@primeuix/themes/nora/multiselect';
import paginator from '@primeuix/themes/nora/paginator';
import progressbar from '@primeuix/themes/nora/progressbar';
import radiobutton from '@primeuix/themes/nora/radiobutton';
import ripple from '@primeuix/themes/nora/ripple';
import select from '@primeuix/themes/nora/select';
import slider from '@primeuix/themes/nora/slider';
import textarea from '@primeuix/themes/nora/textarea';
import virtualscroller from '@primeuix/themes/nora/virtualscroller';
import './tokens.css';
import './base.css';
import './editor.css';

export { rememberLoadedStyles } from './loadedStyles.ts';

const ramp = (colour: string) =>
  Object.fromEntries([50, 100, 200, 300, 400, 500, 600, 700, 800, 900, 950].map((step) => [step, colour]));

/** The looks of the controls that pages use, and of those inside them; there are four times as many. */
const components = {
  badge,
  button,
  checkbox,
  chip,
  datatable,
  datepicker,
  dialog,
  fileupload,
  iconfield,
  inputnumber,
  inputtext,
  menu,
  message,
  multiselect,
  paginator,
  progressbar,
  radiobutton,
  ripple,
  select,
  slider,
  textarea,
  virtualscroller,
};

/** The look of ready-made controls: our paper and ink, square corners, no shadows. */
export const ledgerPreset = definePreset(
  { ...base, components },
  {
    primitive: { borderRadius: { none: '0', xs: '2px', sm: '2px', md: '2px', lg: '3px', xl: '3px' } },
    semantic: {
      primary: { ...ramp('var(--cool)'), 50: 'var(--cool-wash)', 100: 'var(--cool-wash)' },
      focusRing: { width: '2px', style: 'solid', color: 'var(--focus)', offset: '2px' },
      formField: {
        paddingX: '0.55rem',
        paddingY: '0.32rem',
        borderRadius: '2px',
      },
      colorScheme: {
        light: schemeOf(),
        dark: schemeOf(),
      },
    },
  },
);

/** Both looks read the same tokens; `data-look` on the page tells which values they have. */
function schemeOf() {
  return {
    surface: {
      ...ramp('var(--ink-soft)'),
      0: 'var(--page)',
      50: 'var(--page-sunk)',
      100: 'var(--page-sunk)',
      200: 'var(--rule)',
      300: 'var(--rule-strong)',
    },
    primary: {
      color: 'var(--cool)',
      contrastColor: 'var(--on-accent)',
      hoverColor: 'var(--ink)',
      activeColor: 'var(--ink)',
    },
    text: {
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      mutedColor: 'var(--ink-soft)',
      hoverMutedColor: 'var(--ink)',
    },
    content: {
      background: 'var(--page)',
      hoverBackground: 'var(--page-sunk)',
      borderColor: 'var(--rule)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
    },
    formField: {
      background: 'var(--page)',
      disabledBackground: 'var(--page-sunk)',
      borderColor: 'var(--rule-strong)',
      hoverBorderColor: 'var(--ink-soft)',
      focusBorderColor: 'var(--focus)',
      invalidBorderColor: 'var(--warm)',
      color: 'var(--ink)',
      disabledColor: 'var(--ink-soft)',
      placeholderColor: 'var(--ink-soft)',
      iconColor: 'var(--ink-soft)',
      shadow: 'none',
    },
    overlay: {
      select: { background: 'var(--page)', borderColor: 'var(--rule-strong)', color: 'var(--ink)' },
      popover: { background: 'var(--page)', borderColor: 'var(--rule-strong)', color: 'var(--ink)' },
    },
    list: {
      option: {
        focusBackground: 'var(--cool-wash)',
        selectedBackground: 'var(--cool)',
        selectedFocusBackground: 'var(--cool)',
        color: 'var(--ink)',
        focusColor: 'var(--ink)',
        selectedColor: 'var(--on-accent)',
        selectedFocusColor: 'var(--on-accent)',
      },
    },
  };
}
