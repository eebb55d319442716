"use client";

import { boxNow } from "../boxClock";
import { Button } from "../kit/Button";
import type { OpenPractice } from "./openPractice";
import { isThere, usePractice } from "./usePractice";

interface Props {
  /** Which of what it prints. */
  of: "devices" | "health";
  /** What stands in the field: what was typed there is not written over. */
  text: string;
  onText: (text: string) => void;
}

const TEXTS: Readonly<Record<Props["of"], (open: OpenPractice) => string>> = {
  devices: (open) => open.face(boxNow()).blockDevices,
  health: (open) => JSON.stringify(open.health(boxNow()), null, 2),
};

/** Puts in what the practice box of the plan prints; nothing where it has none. */
export function FromPracticeBox({ of, text, onText }: Props) {
  const practice = usePractice();
  if (!isThere(practice) || (of === "devices" && !practice.open.isReadable)) return null;
  return (
    <p className="mt-3">
      <Button small disabled={text.trim() !== ""} onClick={() => onText(TEXTS[of](practice.open))}>
        Put in what the practice box prints
      </Button>
    </p>
  );
}
