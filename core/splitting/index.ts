export * from './closing.ts';
export * from './composeStrip.ts';
export * from './firstGrid.ts';
export * from './offsets.ts';
export * from './pieces.ts';
export * from './planStrips.ts';
export * from './posting.ts';
export * from './takenSettings.ts';
