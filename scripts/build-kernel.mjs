// Compiles what runs in WebAssembly and writes it, with the weights of the denoiser, as modules the core can load anywhere.
import asc from 'assemblyscript/asc';
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';

const KERNELS = [
  { of: 'src/core/render/kernel', name: 'KERNEL', what: 'The compiled ray kernel', options: ['--initialMemory', '2', '--maximumMemory', '65536'] },
  { of: 'src/core/render/denoiser', name: 'LAYERS', what: 'The compiled layers of the denoiser', options: ['--importMemory'] },
  { of: 'src/core/render/splitting', name: 'SPLITTING', what: 'What splits boxes', options: ['--importMemory'] },
];

const module = (name, what, bytes) =>
  `/** ${what} (${bytes.length} bytes), made by scripts/build-kernel.mjs. */\nexport const ${name}: string = '${Buffer.from(bytes).toString('base64')}';\n`;

for (const { of, name, what, options } of KERNELS) {
  const { error, stderr, stdout } = await asc.main(
    [
      `${of}/assembly/index.ts`,
      '--outFile',
      'kernel.wasm',
      '--runtime',
      'stub',
      '--enable',
      'simd',
      '-O3',
      '--noAssert',
      '--converge',
      ...(process.env.NAMES ? ['--debug'] : []),
      ...options,
    ],
    {
      writeFile(file, contents) {
        if (!file.endsWith('.wasm')) return;
        writeFileSync(`${of}/kernel.generated.ts`, module(name, what, contents));
        console.log(`${of}: ${contents.length} bytes`);
      },
    },
  );
  if (error) {
    console.error(String(stderr), String(stdout), error.message);
    process.exit(1);
  }
}

/** The weights come from elsewhere: what is built from them is only what was looked at. */
const WEIGHTS = { file: 'assets/denoiser/rt_hdr_calb_cnrm.tza', sha256: 'd0057057bd76c64e3e67b449728ef8f4fd2f11ccfb74c1e59b9d50dafd50ee0e' };
const weights = readFileSync(WEIGHTS.file);
if (createHash('sha256').update(weights).digest('hex') !== WEIGHTS.sha256) {
  console.error(`${WEIGHTS.file} is not the file it was.`);
  process.exit(1);
}
writeFileSync('src/core/render/denoiser/weights.generated.ts', module('WEIGHTS', 'Weights of the denoiser', weights));
