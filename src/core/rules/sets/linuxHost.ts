import type { RuleSet } from "../boxRules";

export const linuxHost: RuleSet = {
  id: "linux-host",
  name: "Linux software-RAID host",
  description: "A computer that runs the kernel's RAID driver on whole drives, with the system on a drive of its own. Sizes are exact to the byte.",
  rules: {
    layouts: ["raid1", "raid5", "raid6", "hybrid-1", "hybrid-2"],
    minimumDrives: { raid5: 2, raid6: 4, "hybrid-2": 3 },
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "linux-raid",
    mixedMedia: "warn",
    mixedBuses: "fine",
    mixedSectors: "warn",
    usbMembers: "warn",
    sizesShown: "binary",
  },
};
