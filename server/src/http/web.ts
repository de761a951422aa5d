import { join } from 'node:path';
import type { Express, RequestHandler } from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';

/**
 * A part of the application that has its content in its name: under that name it never changes. A worker is none: it needs a policy of its
 * own.
 */
const PART = /^\/(?:(?:chunk|main|polyfills|styles)-[\w-]+\.(?:js|css)|media\/[\w.-]+)$/;

const DOCS = /^\/api\/docs(?:\/|$)/;
/** An answer of the API is data, of which a browser makes no page. */
const DATA = '/api/';

/**
 * Headers that keep a page to itself. Data is marked as none: nothing in it runs, loads or is framed. A part of a page needs two of them:
 * the page that loads it has the rest. Sent with each of sixty small files they weigh a fifth of the application.
 */
export function guardHeaders(): RequestHandler {
  // Plain http on loopback, so no upgrade.
  const guarded = (styles: Readonly<Record<string, readonly string[]>>): RequestHandler =>
    helmet({
      contentSecurityPolicy: { directives: { ...styles, upgradeInsecureRequests: null } },
      strictTransportSecurity: false,
    });
  const inline = "'unsafe-inline'";
  // No style stands in the application's page. Its charts set styles on their own elements, which is an attribute.
  const whole = guarded({ styleSrc: ["'self'"], styleSrcAttr: [inline] });
  // The page that shows the interface of the server comes from a library that writes its styles into it.
  const ofDocs = guarded({ styleSrc: ["'self'", inline] });
  const ofData = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: { defaultSrc: ["'none'"], frameAncestors: ["'none'"] },
    },
    frameguard: { action: 'deny' },
    strictTransportSecurity: false,
    // Each of a page's, or of a browser's of long ago.
    crossOriginOpenerPolicy: false,
    originAgentCluster: false,
    dnsPrefetchControl: false,
    ieNoOpen: false,
    permittedCrossDomainPolicies: false,
    xssFilter: false,
  });
  const ofPart = [helmet.xContentTypeOptions(), helmet.crossOriginResourcePolicy()] as const;
  return (request, response, next) => {
    if (!PART.test(request.path)) {
      const set = DOCS.test(request.path) ? ofDocs : request.path.startsWith(DATA) ? ofData : whole;
      set(request, response, next);
      return;
    }
    for (const set of ofPart) set(request, response, () => undefined);
    next();
  };
}

/** The built web application from files compressed at build, and its one page under every address of its own. */
export function serveWeb(app: Express, folder: string): void {
  app.use(
    expressStaticGzip(folder, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: {
        maxAge: '1h',
        setHeaders: (response, path) => {
          if (PART.test(path.slice(folder.length).replaceAll('\\', '/').replace(/\.br$/, '')))
            response.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
          // The file that tells of a newer version is never taken from a cache.
          else if (/ngsw[^/]*$/.test(path)) response.setHeader('Cache-Control', 'no-cache');
        },
      },
    }) as RequestHandler,
  );
  app.get('/{*page}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}
