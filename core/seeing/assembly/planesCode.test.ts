import { bytesToHex } from '@noble/hashes/utils.js';
import asc from 'assemblyscript/asc';
import { expect, test } from 'vitest';

// After a change of planes.ts:  npx vitest run core/seeing/assembly --update
test('the code that runs is what planes.ts compiles to', async () => {
  let code = '';
  const options = ['--outFile', 'planes.wasm', '--runtime', 'stub', '-O3', '--noAssert', '--enable', 'simd'];
  const { error, stderr } = await asc.main(['core/seeing/assembly/planes.ts', ...options], {
    writeFile(name, contents) {
      if (name.endsWith('.wasm') && typeof contents !== 'string') code = bytesToHex(contents);
    },
  });
  expect(error, stderr.toString()).toBeNull();
  const file = `/** What planes.ts compiles to: WebAssembly as hexadecimal digits. */\nexport const planesCode =\n  '${code}';\n`;
  await expect(file).toMatchFileSnapshot('./planesCode.ts');
});
