/** What a stroke stands for; the page and the paper say in which colour. */
export type Tone =
  | 'body'
  | 'trunk'
  | 'hips'
  | 'hair'
  | 'face'
  | 'near'
  | 'far'
  | 'left'
  | 'leftFar'
  | 'right'
  | 'rightFar'
  | 'kit'
  | 'kitSide'
  | 'kitLine'
  | 'wall'
  | 'band'
  | 'metal'
  | 'helper'
  | 'floor'
  | 'ghost'
  | 'glow'
  | 'mark'
  | 'paper';

/** Colours on paper; the screen has its own for light and dark. */
export const PAPER: Readonly<Record<Tone, string>> = {
  body: '#4b5b65',
  trunk: '#7d6c36',
  hips: '#36454f',
  hair: '#2c3840',
  face: '#6b7982',
  near: '#5d6d77',
  far: '#a9b3b8',
  left: '#18646a',
  leftFar: '#8fb5b7',
  right: '#b0501a',
  rightFar: '#dcb194',
  kit: '#eadfca',
  kitSide: '#d9ccb2',
  kitLine: '#a3946f',
  wall: '#efe7d8',
  band: '#8d7440',
  metal: '#8b9499',
  helper: '#c9c2b2',
  floor: '#f1e9d9',
  ghost: '#d9d9d5',
  glow: '#e0a73c',
  mark: '#22303a',
  paper: '#fffdf8',
};
