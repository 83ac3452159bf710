// AssemblyScript, compiled to WebAssembly: what is done to every pixel of a plane.

export * from './channels';
export * from './comparing';
export * from './finishing';
