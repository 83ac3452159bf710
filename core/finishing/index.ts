export * from './compensate.ts';
export * from './figures.ts';
export * from './finishPixels.ts';
export * from './levels.ts';
export * from './resolve.ts';
export * from './scale.ts';
export * from './shipped.ts';
export * from './tone.ts';
