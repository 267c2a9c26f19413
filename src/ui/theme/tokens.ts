import type { Colour } from '@/core/marking';

/** The only place with colours, radii, sizes and faces: for antd, for our drawings, for light and dim. */

export const TEXT_FACE = "'Sofia Sans Variable', 'Noto Sans SC', sans-serif";
export const MONO_FACE = "'Ubuntu Sans Mono Variable', 'Noto Sans SC', monospace";

export const LIGHT = {
  ground: '#f4efe4',
  sheet: '#fffcf5',
  sunk: '#ebe4d4',
  field: '#ffffff',
  ink: '#1d2729',
  soft: '#565b54',
  line: '#d8cfbb',
  edge: '#8d8671',
  zest: '#f08c1a',
  'zest-ink': '#7a3f00',
  'zest-wash': '#fdebcf',
  'on-zest': '#1d1200',
  in: '#0b7168',
  'in-wash': '#d9ece6',
  doubt: '#7d5800',
  'doubt-wash': '#f6e7bd',
  out: '#b0214a',
  'out-wash': '#f7dbe1',
  'red-probe': '#c8322b',
  'black-probe': '#1d2729',
  board: '#2f5d62',
  'board-edge': '#244a4e',
  copper: '#c58b4a',
  print: '#eef3ea',
  lead: '#9a9a94',
  shade: '#1d27290d',
  veil: '#1d272973',
} as const;

export type Palette = Readonly<Record<keyof typeof LIGHT, string>>;

export const DIM: Palette = {
  ground: '#191d1e',
  sheet: '#22282a',
  sunk: '#14181a',
  field: '#101415',
  ink: '#ece7da',
  soft: '#b3b0a4',
  line: '#3d4547',
  edge: '#868a82',
  zest: '#f39a33',
  'zest-ink': '#ffd9a3',
  'zest-wash': '#40301a',
  'on-zest': '#1d1200',
  in: '#5cc7b6',
  'in-wash': '#183b37',
  doubt: '#e0b44c',
  'doubt-wash': '#3d3214',
  out: '#ff8aa5',
  'out-wash': '#47202b',
  'red-probe': '#ff6f66',
  'black-probe': '#ece7da',
  board: '#234a4e',
  'board-edge': '#3c6b6f',
  copper: '#b57f43',
  print: '#dfe8e0',
  lead: '#8c8c86',
  shade: '#0000002e',
  veil: '#000000a6',
};

/** Bands and dots as they are painted on parts (IEC 60062 colours). */
export const BAND_PAINT: Readonly<Record<Colour, string>> = {
  black: '#1b1b1b',
  brown: '#6b3d1e',
  red: '#c1272d',
  orange: '#e9761b',
  yellow: '#f2cf1d',
  green: '#2e8b3d',
  blue: '#2458a6',
  violet: '#6f3a96',
  grey: '#8a8a8a',
  white: '#f5f5f2',
  gold: '#b48a2c',
  silver: '#b9bcc0',
};

export const LED_PAINT: Readonly<Record<string, string>> = {
  red: '#d8453c',
  green: '#5fae57',
  yellow: '#e8c63a',
  orange: '#ea8a2e',
  blue: '#4a7fd0',
  white: '#f3f1e6',
  infrared: '#5b5160',
};

/** What bodies are made of; the same in both themes, as the part in the hand is. */
export const BODY = {
  carbon: '#d9bf93',
  metalFilm: '#8fb3c9',
  ceramic: '#d98e4a',
  film: '#b8433a',
  sleeve: '#33475b',
  sleeveStripe: '#c9d3dc',
  sleevePrint: '#e8eef3',
  glass: '#c4683c',
  epoxy: '#23292b',
  epoxyEdge: '#4b5355',
  epoxyPrint: '#d5d8d6',
  notch: '#8a9492',
  tab: '#b6bcc0',
  tabEdge: '#7d8488',
  tin: '#c3c6c4',
  steel: '#c2c8cc',
  trimmerBlue: '#4a79b8',
  trimmerCap: '#e9edf2',
  slot: '#46525a',
  relayBlue: '#2458a6',
  terminalGreen: '#3d7a46',
  sensorGreen: '#3f7d5c',
  cream: '#efe6cf',
  cone: '#4a4038',
  clear: '#e4e8e6',
  network: '#7a2f2a',
  unknown: '#8f8a7c',
  darkPrint: '#2a1604',
  lightPrint: '#f3f1e6',
  rim: '#00000040',
  gap: '#00000066',
} as const;

const variables = (palette: Palette) =>
  Object.entries(palette)
    .map(([name, colour]) => `--${name}:${colour}`)
    .join(';');

/** The drawings' variables for both themes, as a style sheet. */
export const VARIABLES = `:root{${variables(LIGHT)};--text:${TEXT_FACE};--mono:${MONO_FACE};color-scheme:light}:root[data-theme='dim']{${variables(DIM)};color-scheme:dark}`;

/** One name for the library's variables, so that they can be told before the program runs. */
export const VARIABLE_KEY = 'zesty';
