export * from './contentBox.ts';
export * from './detail.ts';
export * from './histogram.ts';
export * from './localRange.ts';
export * from './luminance.ts';
export * from './planeMemory.ts';
export * from './raster.ts';
export * from './standingOut.ts';
