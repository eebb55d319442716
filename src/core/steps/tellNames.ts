import type { Bytes } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";

/** How things are named to whoever stands at the box and tells it what to do. */
export interface TellNames {
  pool: (id: string) => string;
  poolOfGroup: (group: string) => string;
  /** "the 8 TB drive in bay 5 (…4418)" */
  drive: (id: string) => string;
  drives: (ids: readonly string[]) => string;
  volume: (pool: string, volume: string) => string;
  /** "RAID 5", "a hybrid with one drive safe" */
  layout: (id: LayoutId) => string;
  /** A size as the box's own screen shows it. */
  size: (bytes: Bytes) => string;
  /** A backup by its id or its name. */
  backup: (to: string) => string;
}
