// Makes assets/surroundings anew: unpack the package @pmndrs/assets 1.7.0 (pictures CC0) into a folder and name it.
// Its pictures are packed in a way that only a browser library reads; kept are Radiance pictures, flat, that all parts of the application read.
import { createHash } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';

const PICTURES = {
  meadow: 'park',
  woodland: 'forest',
  'morning-field': 'sunrise',
  'dry-hills': 'dawn',
  harbour: 'venice',
  'starlit-field': 'night',
  'cloud-sea': 'sky',
  square: 'city',
};

const folder = process.argv[2];
if (!folder) throw new Error('Name the folder of the unpacked package.');
for (const [name, source] of Object.entries(PICTURES)) {
  const { default: url } = await import(pathToFileURL(path.resolve(folder, 'hdri', `${source}.exr.js`)).href);
  const packed = Buffer.from(url.split(',')[1], 'base64');
  const loader = new EXRLoader();
  loader.setDataType(FloatType);
  const { width, height, data } = loader.parse(packed.buffer.slice(packed.byteOffset, packed.byteOffset + packed.length));
  const out = Buffer.alloc(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      // It is read bottom row first.
      const from = ((height - 1 - y) * width + x) * 4;
      // A few values at the sun are no numbers, or below nothing.
      const rgb = [0, 1, 2].map((c) => (Number.isFinite(data[from + c]) ? Math.max(0, data[from + c]) : 0));
      const peak = Math.max(...rgb);
      if (!(peak > 1e-9)) continue;
      const e = Math.floor(Math.log2(peak)) + 1;
      const to = (y * width + x) * 4;
      rgb.forEach((v, c) => (out[to + c] = Math.min(255, Math.floor(v * 2 ** (8 - e)))));
      out[to + 3] = e + 128;
    }
  const head = Buffer.from(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);
  const file = Buffer.concat([head, out]);
  await writeFile(path.join('assets', 'surroundings', `${name}.hdr`), file);
  console.log(name, createHash('sha256').update(file).digest('hex'));
}
