"use client";

import { writeDriveCsv } from "@/exchange/driveList/driveCsv";
import { MenuItem, MenuLine } from "../../kit/Menu";
import { useWorkbench } from "../useWorkbench";
import type { WayIn } from "../WorkbenchDialogs";
import { exportFile } from "../../kit/exportFile";

/** The other ways to bring drives and what is known of them in, and the list of drives out. */
export function MoreWaysIn({ onOpen }: { onOpen: (way: WayIn) => void }) {
  const { plan } = useWorkbench();
  const exportCsv = () => exportFile("drives.csv", "text/csv", writeDriveCsv(plan.drives));
  return (
    <>
      <MenuItem onSelect={() => onOpen("health")}>Read SMART data…</MenuItem>
      <MenuItem onSelect={() => onOpen("list")}>Bring in a list (CSV)…</MenuItem>
      <MenuItem onSelect={() => onOpen("serials")}>Type serial numbers…</MenuItem>
      <MenuLine />
      <MenuItem disabled={plan.drives.length === 0} onSelect={exportCsv}>
        Save the drives as CSV
      </MenuItem>
    </>
  );
}
