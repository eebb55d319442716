"use client";

import { ChevronDown, Minus, Plus } from "lucide-react";
import { bayOf } from "@/core/drives/drive";
import { ruleSetOf } from "@/core/rules/ruleSets";
import { counted } from "@/core/words/counted";
import { IconButton } from "../../kit/Button";
import { MenuButton } from "../../kit/MenuButton";
import { NameField } from "../../kit/NameField";
import { useWorkbench } from "../useWorkbench";
import { part } from "../../kit/part";

const BoxKinds = part(() => import("./BoxKinds").then((module) => module.BoxKinds), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

const MOST_BAYS = 24;

/** What box it is: its name, its bays, and what it can do. */
export function BoxSettings() {
  const { plan, act } = useWorkbench();
  const { box } = plan;
  const set = ruleSetOf(box.rules);
  const lastTaken = Math.max(0, ...plan.drives.map((drive) => bayOf(drive) ?? 0));
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <NameField
        label="Name of the box"
        value={box.name}
        onChange={(name) => act({ kind: "change-box", name })}
        className="-ml-1.5 w-56 font-serif text-lg"
      />
      <div className="flex items-center" role="group" aria-label="Bays of the box">
        <IconButton
          label={lastTaken >= box.bays ? `Bay ${lastTaken} is taken` : "One bay fewer"}
          disabled={box.bays <= 1 || lastTaken >= box.bays}
          onClick={() => act({ kind: "change-box", bays: box.bays - 1 })}
        >
          <Minus size={15} aria-hidden />
        </IconButton>
        <span className="min-w-14 text-center">{counted(box.bays, "bay")}</span>
        <IconButton
          label="One bay more"
          disabled={box.bays >= MOST_BAYS}
          onClick={() => act({ kind: "change-box", bays: box.bays + 1 })}
        >
          <Plus size={15} aria-hidden />
        </IconButton>
      </div>
      <MenuButton
        width="w-80 max-w-[calc(100vw-1rem)]"
        trigger={
          <button
            type="button"
            className="flex items-center gap-1 rounded px-2 py-1 hover:bg-wall data-[state=open]:bg-wall"
            aria-label={`Kind of box: ${set.name}`}
          >
            {set.name}
            <ChevronDown size={14} aria-hidden />
          </button>
        }
      >
        <BoxKinds />
      </MenuButton>
    </div>
  );
}
