import type { Layout } from "./layout";

/**
 * Whether a layout leaves its drives to themselves: each with a file system of its own, and none protected by another.
 */
export const isSeparate = (layout: Layout): boolean => layout.independent === true && layout.nominalTolerance({}) === 0;
