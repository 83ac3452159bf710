export * from './compensate.ts';
export * from './correction.ts';
export * from './figures.ts';
export * from './finishPixels.ts';
export * from './resolve.ts';
export * from './scale.ts';
export * from './shipped.ts';
export * from './tone.ts';
