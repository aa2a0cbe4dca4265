import type { ThemeDefinition } from 'vuetify'

/*
 * Kapelle's own look: ink teal on warm paper. Severities differ in lightness as well as hue, so that they stay apart for
 * colour-blind eyes, and are never shown without their glyph and word.
 */
export const light: ThemeDefinition = {
  dark: false,
  colors: {
    background: '#f3f1ea',
    surface: '#fffdf8',
    'surface-variant': '#e7e3d8',
    'on-surface-variant': '#2b3335',
    primary: '#17444e',
    secondary: '#7a5b12',
    'on-background': '#1d2527',
    'on-surface': '#1d2527',
    error: '#9b1c31',
    warning: '#8a5200',
    info: '#34518f',
    success: '#12623f',
  },
  variables: { 'medium-emphasis-opacity': 0.78, 'border-opacity': 0.14 },
}

/** The dark theme. */
export const dark: ThemeDefinition = {
  dark: true,
  colors: {
    background: '#101718',
    surface: '#182123',
    'surface-variant': '#2a3638',
    'on-surface-variant': '#e8e6df',
    primary: '#8fcbd6',
    secondary: '#e3bd64',
    'on-background': '#e8e6df',
    'on-surface': '#e8e6df',
    error: '#ff9aa8',
    warning: '#f0b25e',
    info: '#a9c0f5',
    success: '#7fd3a8',
  },
  variables: { 'medium-emphasis-opacity': 0.8, 'border-opacity': 0.2 },
}
