/** What a link of a mail says behind its #, which a browser sends to nobody. */
export const linkSecret = (): string => window.location.hash.slice(1);
