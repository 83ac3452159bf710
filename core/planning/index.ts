export * from './laying.ts';
export * from './opening.ts';
export * from './orientation.ts';
export * from './part.ts';
export * from './planHash.ts';
export * from './renderPlan.ts';
export * from './sampling.ts';
export * from './shapePath.ts';
