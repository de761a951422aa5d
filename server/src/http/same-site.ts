import type { RequestHandler } from 'express';
import { HttpProblem } from './problem.js';

/** Methods that change nothing. */
export const READS: readonly string[] = ['GET', 'HEAD', 'OPTIONS'];
/** How a browser says that a request comes from a page of this server, or from nobody's page. */
const OWN_SITES: readonly string[] = ['same-origin', 'none'];

/** An address that only this machine itself reaches, or a request comes from. */
export const isLoopback = (address: string): boolean =>
  /^(localhost|(::ffff:)?127(\.\d{1,3}){3}|::1)$/.test(address);

/**
 * Keeps strangers' pages out. A request must name a host of this server. Otherwise a name that points here could read everything from
 * outside; and whatever changes something must come from a page of this server or from no page at all.
 *
 * @param hosts names that the server answers for, without ports
 */
export function sameSite(hosts: readonly string[]): RequestHandler {
  return (request, _response, next) => {
    const { host, origin } = request.headers;
    if (host === undefined || !hosts.includes(nameOf(host))) throw new HttpProblem(421, 'foreignHost');
    if (!READS.includes(request.method)) {
      const site = request.headers['sec-fetch-site'];
      const isForeign =
        (site !== undefined && !OWN_SITES.includes(site)) ||
        (origin !== undefined && !isOrigin(origin, host));
      if (isForeign) throw new HttpProblem(403, 'foreignPage');
    }
    next();
  };
}

/** A host without its port, in small letters. */
function nameOf(host: string): string {
  return host.replace(/:\d*$/, '').toLowerCase();
}

function isOrigin(origin: string, host: string): boolean {
  return origin === `http://${host}` || origin === `https://${host}`;
}
