export * from './counts.ts';
export * from './crop.ts';
export * from './differences.ts';
export * from './hardToRead.ts';
export * from './refusals.ts';
export * from './takenOver.ts';
