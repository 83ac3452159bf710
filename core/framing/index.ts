export * from './composeWindow.ts';
export { coveredRects, openRect, roundedRadius } from './demands.ts';
export * from './frameWindow.ts';
export * from './marksOnPicture.ts';
export { markInFrame, type Unmet, unmetMarks } from './unmet.ts';
