export * from './crop.ts';
export * from './lostWords.ts';
export * from './refusals.ts';
