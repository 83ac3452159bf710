import { bytesToHex } from '@noble/hashes/utils.js';
import asc from 'assemblyscript/asc';
import { expect, test } from 'vitest';

// After a change of what lies in planes/:  npx vitest run core/seeing/assembly --update
test('the code that runs is what planes/ compiles to', async () => {
  let code = '';
  const options = ['--outFile', 'planes.wasm', '--runtime', 'stub', '-O3', '--noAssert', '--enable', 'simd'];
  const { error, stderr } = await asc.main(['core/seeing/assembly/planes/index.ts', ...options], {
    writeFile(name, contents) {
      if (name.endsWith('.wasm') && typeof contents !== 'string') code = bytesToHex(contents);
    },
  });
  expect(error, stderr.toString()).toBeNull();
  const file = `/** What planes/ compiles to: WebAssembly as hexadecimal digits. */\nexport const planesCode =\n  '${code}';\n`;
  await expect(file).toMatchFileSnapshot('./planesCode.ts');
});
