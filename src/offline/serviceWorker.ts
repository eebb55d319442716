import { Serwist, type PrecacheEntry } from "serwist";
import { shellOf } from "./shells";

/** What the build writes before this: every file of the build, and one page for each kind of address. */
declare const KEPT: PrecacheEntry[];

/**
 * Keeps the application in the browser: everything of a build, or nothing of it. Pages come from what is kept, so that
 * page and parts are always of the same build, with or without a server. A new build waits until the page says that it
 * may take over; nothing of a plan goes through here.
 */
const serwist: Serwist = new Serwist({
  precacheEntries: KEPT,
  precacheOptions: { cleanupOutdatedCaches: true, directoryIndex: null, cleanURLs: false },
  skipWaiting: false,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: ({ request, sameOrigin, url }) =>
        sameOrigin && request.mode === "navigate" && !/^\/(api|schema)\//.test(url.pathname),
      handler: async ({ request, url }): Promise<Response> => {
        const kept = await serwist.matchPrecache(shellOf(url.pathname));
        return kept ?? fetch(request);
      },
    },
  ],
});

serwist.addEventListeners();
