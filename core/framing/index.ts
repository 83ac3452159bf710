export * from './composeWindow.ts';
export { coveredRects, roundedRadius } from './demands.ts';
export * from './frameWindow.ts';
export * from './opening.ts';
export { markInFrame, type Unmet, unmetMarks } from './unmet.ts';
