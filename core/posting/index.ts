export * from './kit.ts';
export * from './orderWords.ts';
export * from './postingWords.ts';
export * from './verification.ts';
