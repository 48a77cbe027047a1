import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

/** Greys without chroma, dark to light as PrimeNG numbers them. */
const GREY = {
  0: '#ffffff',
  50: '#fafafa',
  100: '#f5f5f5',
  200: '#e8e8e8',
  300: '#d2d2d2',
  400: '#a8a8a8',
  500: '#8a8a8a',
  600: '#565656',
  700: '#454545',
  800: '#2b2b2b',
  900: '#222222',
  950: '#1a1a1a',
};

const field = {
  background: 'var(--uv-paper)',
  borderColor: 'var(--uv-line-strong)',
  hoverBorderColor: 'var(--uv-ink)',
  focusBorderColor: 'var(--uv-ink)',
  color: 'var(--uv-ink)',
  placeholderColor: 'var(--uv-soft)',
  shadow: 'none',
};

const scheme = {
  surface: GREY,
  primary: {
    color: 'var(--uv-black)',
    contrastColor: 'var(--uv-on-black)',
    hoverColor: 'var(--uv-black)',
    activeColor: 'var(--uv-black)',
  },
  highlight: {
    background: 'var(--uv-black)',
    focusBackground: 'var(--uv-black)',
    color: 'var(--uv-on-black)',
    focusColor: 'var(--uv-on-black)',
  },
  text: {
    color: 'var(--uv-ink)',
    hoverColor: 'var(--uv-ink)',
    mutedColor: 'var(--uv-soft)',
    hoverMutedColor: 'var(--uv-ink)',
  },
  content: {
    background: 'var(--uv-paper)',
    hoverBackground: 'var(--uv-bar)',
    borderColor: 'var(--uv-line)',
    color: 'var(--uv-ink)',
    hoverColor: 'var(--uv-ink)',
  },
  overlay: {
    select: { background: 'var(--uv-paper)', borderColor: 'var(--uv-line-strong)', color: 'var(--uv-ink)' },
    popover: { background: 'var(--uv-paper)', borderColor: 'var(--uv-line-strong)', color: 'var(--uv-ink)' },
    modal: { background: 'var(--uv-paper)', borderColor: 'var(--uv-line-strong)', color: 'var(--uv-ink)' },
  },
  formField: field,
};

/** The product's own look for PrimeNG: grey, thin lines, 3 px corners, black primary buttons, a ring of two tones. */
export const UpperVeneerPreset = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '2px', sm: '3px', md: '3px', lg: '3px', xl: '3px' } },
  semantic: {
    primary: GREY,
    transitionDuration: '0.08s',
    focusRing: {
      width: '2px',
      style: 'solid',
      color: 'var(--uv-paper)',
      offset: '0',
      shadow: '0 0 0 4px var(--uv-ink)',
    },
    formField: { paddingX: '9px', paddingY: '5px', borderRadius: '3px', transitionDuration: '0.08s' },
    overlay: {
      select: { borderRadius: '3px', shadow: '0 4px 14px rgb(0 0 0 / 22%)' },
      popover: { borderRadius: '3px' },
      modal: { borderRadius: '3px' },
    },
    list: { option: { padding: '5px 10px' } },
    colorScheme: { light: scheme, dark: scheme },
  },
  components: {
    button: {
      root: { paddingX: '13px', paddingY: '6px', label: { fontWeight: '600' } },
      colorScheme: {
        light: {
          outlined: {
            primary: {
              borderColor: 'var(--uv-ink)',
              color: 'var(--uv-ink)',
              hoverBackground: 'var(--uv-bar)',
              activeBackground: 'var(--uv-bar)',
            },
          },
          text: {
            primary: { color: 'var(--uv-ink)', hoverBackground: 'var(--uv-bar)', activeBackground: 'var(--uv-bar)' },
          },
        },
        dark: {
          outlined: {
            primary: {
              borderColor: 'var(--uv-ink)',
              color: 'var(--uv-ink)',
              hoverBackground: 'var(--uv-paper)',
              activeBackground: 'var(--uv-paper)',
            },
          },
          text: {
            primary: {
              color: 'var(--uv-ink)',
              hoverBackground: 'var(--uv-paper)',
              activeBackground: 'var(--uv-paper)',
            },
          },
        },
      },
    },
    tooltip: {
      root: { background: 'var(--uv-ink)', color: 'var(--uv-paper)', padding: '5px 8px' },
      colorScheme: {
        light: { root: { background: 'var(--uv-ink)', color: 'var(--uv-paper)' } },
        dark: { root: { background: 'var(--uv-ink)', color: 'var(--uv-panel)' } },
      },
    },
    toast: { root: { width: '360px' } },
  },
});
