import type { TextureName } from './textures.ts';

export interface DemoMaterial {
  /** sRGB, as one reads it off a sample. */
  color: string;
  opacity?: number;
  roughness?: number;
  metalness?: number;
  /** sRGB of light given off. */
  glow?: string;
  doubleSided?: boolean;
  texture?: TextureName;
  /** Cut out where its picture is clear. */
  cutOut?: boolean;
}

/** The palette of the commission. */
export const MATERIALS = {
  'Lime plaster': { color: '#efe9dd' },
  'Plaster, tide blue': { color: '#8fa9ad' },
  'Oak board, light': { color: '#c39b6c', roughness: 0.6, texture: 'timber' },
  'Oak board, mid': { color: '#b78e60', roughness: 0.6, texture: 'timber' },
  'Oak board, dark': { color: '#aa8156', roughness: 0.6, texture: 'timber' },
  'Spruce frame': { color: '#c99f6b', texture: 'timber' },
  'Spruce lining': { color: '#cfb086', texture: 'timber' },
  'Spruce lining, dark': { color: '#c4a276', texture: 'timber' },
  'Larch cladding': { color: '#8a6f55', texture: 'weathered' },
  'Larch cladding, grey': { color: '#7f6d5a', texture: 'weathered' },
  /** What is behind the boards. */
  'Wind paper': { color: '#26231f' },
  'Oak joinery': { color: '#8c6239', roughness: 0.65, texture: 'timber' },
  Walnut: { color: '#5c3d26' },
  'Dark steel': { color: '#2d3236', roughness: 0.5, metalness: 0.6 },
  Brass: { color: '#b8893b', roughness: 0.35, metalness: 0.9 },
  'Zinc roof': { color: '#7d868b', roughness: 0.5, metalness: 0.3 },
  Glass: { color: '#cfe3e6', opacity: 0.16, roughness: 0.05, doubleSided: true },
  Granite: { color: '#8d8b86', texture: 'stone' },
  'Granite, pale': { color: '#a5a29b', texture: 'stone' },
  'Shell gravel': { color: '#bdb39c', texture: 'gravel' },
  /** White: its colours are in its corners. */
  'Marsh ground': { color: '#ffffff', texture: 'grass' },
  'Willow leaf': { color: '#5f7343', doubleSided: true, texture: 'leaves', cutOut: true },
  'Willow leaf, light': { color: '#7d8d55', doubleSided: true, texture: 'leaves', cutOut: true },
  'Willow shade': { color: '#4a5a36' },
  Bark: { color: '#6b5a48' },
  'Galvanised steel': { color: '#9aa1a4', roughness: 0.5, metalness: 0.5 },
  'Shuttle shell': { color: '#e9e4d6', roughness: 0.4 },
  'Shuttle band': { color: '#0b6e75', roughness: 0.4 },
  'Tinted glass': { color: '#9fb4b8', opacity: 0.3, roughness: 0.05, doubleSided: true },
  'Solar cells': { color: '#1d2b40', roughness: 0.25 },
  Rubber: { color: '#2a2c2e' },
  'Lens glass': { color: '#5d7f95', roughness: 0.05 },
  'Marsh grass': { color: '#868c58' },
  'Marsh grass, dry': { color: '#979460' },
  'Marsh grass, deep': { color: '#778251' },
  'Tidal mud': { color: '#8d8268' },
  'Tidal water': { color: '#8fb0bb', roughness: 0.15 },
  Reed: { color: '#a8985f', doubleSided: true, texture: 'reeds', cutOut: true },
  'Grass tuft': { color: '#868f52', doubleSided: true, texture: 'tuft', cutOut: true },
  'Leaf green': { color: '#5c7a45', doubleSided: true },
  'Linen white': { color: '#f3efe6', doubleSided: true },
  'Wool, lagoon': { color: '#2f6d73' },
  'Wool, ochre': { color: '#bf8a34' },
  'Wool, sand': { color: '#cbb694' },
  'Paper, red': { color: '#a2473e' },
  'Paper, blue': { color: '#3f5f82' },
  'Paper, green': { color: '#5d7a5c' },
  'Paper, cream': { color: '#e2d6b8' },
  'Paper, ochre': { color: '#c7973f' },
  'Picture sky': { color: '#b9cfd6' },
  'Picture dusk': { color: '#d9a77e' },
  'Picture sea': { color: '#4d7f8c' },
  'Picture marsh': { color: '#8a935c' },
  'Lamp glow': { color: '#fff1d6', glow: '#ffe3b0' },
  'Enamel, dark': { color: '#28383d', roughness: 0.4 },
  'Enamel, cream': { color: '#ece2cc', roughness: 0.4 },
  Slate: { color: '#4b5256' },
} as const satisfies Record<string, DemoMaterial>;

export type MaterialName = keyof typeof MATERIALS;
