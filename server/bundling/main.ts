import { bundle } from './bundle.ts';

await bundle();
