import { byWeight } from "../../findings/finding";
import type { WalkedMoment } from "../moment";
import { fileSystemNotGrown } from "./fileSystemNotGrown";
import { notRebalanced } from "./notRebalanced";
import { spaceNotClaimed } from "./spaceNotClaimed";
import { volumeNotGrown } from "./volumeNotGrown";
import type { Watcher, WatchSetting } from "./watcher";

/** Everything that is looked for from the end of a walk. A new watcher is a file and a line here. */
export const watchers: readonly Watcher[] = [spaceNotClaimed, notRebalanced, volumeNotGrown, fileSystemNotGrown];

/** The codes of what watchers find: said anew with every walk, since a later step may have mended it. */
export const LOOKS_AHEAD: ReadonlySet<string> = new Set(watchers.map((watcher) => watcher.code));

/** Adds to the steps of a fresh walk what the watchers find. */
export function lookAhead(moments: readonly WalkedMoment[], setting: WatchSetting): void {
  const end = moments.at(-1);
  if (!end) return;
  for (const { code, watch } of watchers)
    for (const { at, finding } of watch(moments, end, setting))
      at.findings = byWeight([...at.findings, { drives: [], ...finding, code }]);
}
