"use client";

import { ChevronDown, Minus, Plus } from "lucide-react";
import { Popover, RadioGroup } from "radix-ui";
import { useState } from "react";
import { bayOf } from "@/core/drives/drive";
import { ruleSetOf, ruleSets } from "@/core/rules/ruleSets";
import type { RuleSetId } from "@/core/rules/boxRules";
import { IconButton } from "../../kit/Button";
import { overlayHome } from "../../kit/overlayHome";
import { NameField } from "../../kit/NameField";
import { useWorkbench } from "../useWorkbench";

const MOST_BAYS = 24;

/** What box it is: its name, its bays, and what it can do. */
export function BoxSettings() {
  const { plan, act } = useWorkbench();
  const { box } = plan;
  const [open, setOpen] = useState(false);
  const set = ruleSetOf(box.rules);
  const lastTaken = Math.max(0, ...plan.drives.map((drive) => bayOf(drive) ?? 0));
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <NameField label="Name of the box" value={box.name} onChange={(name) => act({ kind: "change-box", name })} className="-ml-1.5 w-56 font-serif text-lg" />
      <div className="flex items-center" role="group" aria-label="Bays of the box">
        <IconButton label={lastTaken >= box.bays ? `Bay ${lastTaken} is taken` : "One bay fewer"} disabled={box.bays <= 1 || lastTaken >= box.bays} onClick={() => act({ kind: "change-box", bays: box.bays - 1 })}>
          <Minus size={15} aria-hidden />
        </IconButton>
        <span className="min-w-14 text-center">{box.bays === 1 ? "1 bay" : `${box.bays} bays`}</span>
        <IconButton label="One bay more" disabled={box.bays >= MOST_BAYS} onClick={() => act({ kind: "change-box", bays: box.bays + 1 })}>
          <Plus size={15} aria-hidden />
        </IconButton>
      </div>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className="flex items-center gap-1 rounded px-2 py-1 hover:bg-wall" aria-label={`Kind of box: ${set.name}`}>
          {set.name}
          <ChevronDown size={14} aria-hidden />
        </Popover.Trigger>
        <Popover.Portal container={open ? overlayHome() : undefined}>
          <Popover.Content aria-labelledby="rules-heading" align="start" sideOffset={4} collisionPadding={8} className="z-50 w-96 max-w-[calc(100vw-1rem)] rounded-md border border-line-strong/60 bg-raised p-3 text-ink shadow-lg shadow-black/10">
            <h3 className="font-serif text-lg" id="rules-heading">
              What kind of box is it?
            </h3>
            <RadioGroup.Root aria-labelledby="rules-heading" value={box.rules.set} onValueChange={(value) => act({ kind: "change-box", rules: { set: value as RuleSetId } })} className="mt-2 space-y-1">
              {ruleSets.map((each) => (
                <RadioGroup.Item key={each.id} value={each.id} className="group block w-full rounded border border-transparent p-2 text-left hover:bg-wall data-[state=checked]:border-indigo">
                  <span className="flex items-center gap-2 font-semibold">
                    <span className="inline-flex size-3.5 items-center justify-center rounded-full border border-line-strong">
                      <RadioGroup.Indicator className="size-2 rounded-full bg-indigo" />
                    </span>
                    {each.name}
                  </span>
                  <span className="mt-0.5 block text-[0.9rem] text-soft">{each.description}</span>
                </RadioGroup.Item>
              ))}
            </RadioGroup.Root>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}
