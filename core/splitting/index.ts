export * from './composeStrip.ts';
export * from './grid.ts';
export * from './offsets.ts';
export * from './planStrips.ts';
export * from './posting.ts';
