import type { ToldWay } from "@/core/bestWay/told";

/** A way that is looked at in the place of the best, with what it is: "always the largest there is". */
export interface Looked {
  name: string;
  way: ToldWay;
}

export type Look = (looked: Looked) => void;

/** That something beside the best way is not known yet, or cannot be. */
export const Waiting = ({ trouble }: { trouble: boolean }) => (
  <p className="py-1.5 text-soft">
    {trouble ? "This could not be worked out in this browser. Reload the page to try again." : "Being worked out …"}
  </p>
);
