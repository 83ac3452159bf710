export * from './crop.ts';
export * from './differences.ts';
export * from './lostWords.ts';
export * from './refusals.ts';
export * from './takenOver.ts';
