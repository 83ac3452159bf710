/** Windows keeps these for devices, whatever the extension. */
const reserved = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/** Whether a name, up to its first dot, is one that Windows keeps for a device. */
export const isReserved = (name: string): boolean => reserved.test((name.split('.')[0] ?? '').trim());
