/** A browser binds a passkey to a name, never to an address of figures. */
export const isNamedHost = (host: string): boolean => !/^[\d.]+$|:/.test(host);
