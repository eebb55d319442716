"use client";

import { Explained } from "../kit/Explained";
import { Tick } from "../kit/Field";

interface Props {
  label: string;
  acts: readonly string[];
  isTicked: (name: string) => boolean;
  onTick: (name: string, on: boolean) => void;
}

/** Acts at the box, ticked one after the other. */
export function ActList({ label, acts, isTicked, onTick }: Props) {
  return (
    <ol aria-label={label} className="mt-1">
      {acts.map((act) => (
        <li key={act} className="border-b border-line last:border-0">
          <Tick
            className="min-h-11 cursor-pointer py-2 text-[1.05rem] leading-snug [&_input]:size-5"
            checked={isTicked(act)}
            onTick={(on) => onTick(act, on)}
          >
            <span className={isTicked(act) ? "text-soft line-through" : ""}>
              <Explained text={act} />
            </span>
          </Tick>
        </li>
      ))}
    </ol>
  );
}
