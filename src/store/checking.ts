type Checks = typeof import("@/core/box/openPlan");

let loaded: Checks | null = null;

/** That a part of the program could not be loaded: the server was stopped, or has a new build. */
export class NotLoaded extends Error {}

/**
 * The checks through which every document goes that comes out of the database. They are loaded with the first plan that
 * is opened: they weigh as much as a tenth of the page.
 *
 * @throws NotLoaded
 */
export async function checks(): Promise<Checks> {
  try {
    return (loaded ??= await import("@/core/box/openPlan"));
  } catch (error) {
    throw new NotLoaded("The checks of plans could not be loaded.", { cause: error });
  }
}

/** The checks where they have been loaded. */
export const checksNow = (): Checks | null => loaded;
