/** The id in the addresses of the pages that serve every plan offline. */
const ANY_PLAN = "any";

/** The places of a plan, by the last part of their address. */
const PLACES = [
  "",
  "/box",
  "/calendar",
  "/carry",
  "/chance",
  "/compare",
  "/data",
  "/growth",
  "/logbook",
  "/print",
  "/reading",
  "/rehearse",
  "/rescue",
];

/** The pages that are kept for offline: one of each kind, for all plans. */
export const SHELLS = ["/", "/new", "/new/box", "/open", ...PLACES.map((place) => `/plan/${ANY_PLAN}${place}`)];

/**
 * The kept page that serves an address; the list of plans for one that there is not.
 *
 * @example shellOf("/plan/3fa9/data") // "/plan/any/data"
 */
export function shellOf(path: string): string {
  const [, first, , place] = path.split("/");
  const wanted = first === "plan" ? `/plan/${ANY_PLAN}${place ? `/${place}` : ""}` : path;
  return SHELLS.includes(wanted) ? wanted : "/";
}
