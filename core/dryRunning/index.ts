export * from './crop.ts';
export * from './refusals.ts';
