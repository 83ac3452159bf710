import { bytesToHex } from '@noble/hashes/utils.js';
import asc from 'assemblyscript/asc';
import { expect, test } from 'vitest';

// After a change of what lies in kernels/:  npx vitest run core/planes/assembly --update
test('the code that runs is what kernels/ compiles to', async () => {
  let code = '';
  const options = ['--outFile', 'kernels.wasm', '--runtime', 'stub', '-O3', '--noAssert', '--enable', 'simd'];
  const { error, stderr } = await asc.main(['core/planes/assembly/kernels/index.ts', ...options], {
    writeFile(name, contents) {
      if (name.endsWith('.wasm') && typeof contents !== 'string') code = bytesToHex(contents);
    },
  });
  expect(error, stderr.toString()).toBeNull();
  const file = `/** What kernels/ compiles to: WebAssembly as hexadecimal digits. */\nexport const kernelCode =\n  '${code}';\n`;
  await expect(file).toMatchFileSnapshot('./kernelCode.ts');
});
