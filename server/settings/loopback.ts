import { isIP } from 'node:net';

/** Whether a host, as it is written in an address or a setting, is this machine by its own name or number. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || host === '[::1]' || (isIP(host) === 4 && host.startsWith('127.'));
