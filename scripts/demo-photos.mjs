import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { root } from './setup.mjs';

// npm run demo-photos: the photographs of the demonstration's half opened device, drawn, as if from a little aside.
const MAT = '#39443f';
const frame = '<polygon points="455,96 1120,128 1176,1112 402,1080" fill="#b9b2a4" stroke="#8d8576" stroke-width="6"/>';
const board = '<polygon points="494,150 1080,176 1092,420 484,398" fill="#3c6b56"/>';
const lid = '<polygon points="520,172 1050,196 1058,380 512,360" fill="#cfd3d4" stroke="#9aa0a2" stroke-width="4"/>';
const cell =
  '<polygon points="560,450 1050,468 1066,980 534,964" fill="#4a4741"/><polygon points="640,640 980,652 984,740 634,728" fill="#6d685e"/>';
const holes = [
  [536, 190],
  [1034, 212],
  [1040, 362],
  [528, 344],
].map(([x, y]) => `<circle cx="${x}" cy="${y}" r="9" fill="#5d6264"/>`);
const plugs = [
  [600, 250],
  [760, 262],
  [940, 276],
].map(
  ([x, y]) =>
    `<rect x="${x}" y="${y}" width="86" height="34" rx="5" fill="#26312c" stroke="#c9b26a" stroke-width="4"/>`,
);
const layers = {
  'kittiwake-lite-1': [frame, board, cell, lid, ...holes],
  'kittiwake-lite-2': [frame, board, cell, ...plugs],
};
for (const [name, shapes] of Object.entries(layers)) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200"><rect width="1600" height="1200" fill="${MAT}"/>${shapes.join('')}</svg>`;
  await writeFile(
    join(root, 'demo/photos', `${name}.jpg`),
    await sharp(Buffer.from(svg)).jpeg({ quality: 80 }).toBuffer(),
  );
}
