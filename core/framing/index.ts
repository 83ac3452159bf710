export * from './carriedWindow.ts';
export * from './composeWindow.ts';
export { coveredRects, roundedRadius } from './constraints.ts';
export * from './contentArea.ts';
export * from './frameWindow.ts';
export * from './settledPlace.ts';
export { markInFrame, type Unmet, unmetMarks } from './unmet.ts';
