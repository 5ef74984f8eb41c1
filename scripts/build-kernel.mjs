// Compiles the ray kernel to WebAssembly and writes it as a module the core can load anywhere.
import asc from 'assemblyscript/asc';
import { writeFileSync } from 'node:fs';

const { error, stderr, stdout } = await asc.main(
  [
    'src/core/render/kernel/assembly/index.ts',
    '--outFile',
    'kernel.wasm',
    '--runtime',
    'stub',
    '--enable',
    'simd',
    '-O3',
    '--noAssert',
    '--converge',
    '--initialMemory',
    '2',
    '--maximumMemory',
    '65536',
  ],
  {
    writeFile(name, contents) {
      if (!name.endsWith('.wasm')) return;
      const text = Buffer.from(contents).toString('base64');
      writeFileSync(
        'src/core/render/kernel/kernel.generated.ts',
        `/** The compiled ray kernel (${contents.length} bytes), made by scripts/build-kernel.mjs. */\nexport const KERNEL = '${text}';\n`,
      );
      console.log(`kernel: ${contents.length} bytes`);
    },
  },
);
if (error) {
  console.error(String(stderr), String(stdout), error.message);
  process.exit(1);
}
