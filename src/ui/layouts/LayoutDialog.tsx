"use client";

import { useState } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import type { Drive, LayoutId, Plan } from "@/core/document/plan";
import { ADVICE } from "@/core/layouts/advice";
import { fullName } from "@/core/layouts/inText";
import { layoutOf } from "@/core/layouts/registry";
import { Dialog } from "../kit/Dialog";
import { Explained } from "../kit/Explained";
import { useUnit } from "../preferences/preferences";
import { LivePicture } from "./LivePicture";
import type { Outlined } from "./stage";

/** A layout on some drives, with what it is called. */
export type Named = Outlined & { id: string; name: string; detail: string };

interface Props {
  /** What can be looked at. */
  choices: readonly Named[];
  /** The id of the one that is looked at first. */
  first?: string | undefined;
  drives: readonly Drive[];
  /** The box that the drives are for. */
  plan: Plan;
  onClose: () => void;
}

const NO_BACKUP =
  "It is no backup: it helps against failed drives, not against mistakes, theft or fire. Keep another copy elsewhere.";
const SAID = { goodFor: "Good for", costs: "What it costs", bites: "When it bites" };

/** The layouts of a choice, each once. */
const layoutsIn = (choice: Named): LayoutId[] => [...new Set(choice.groups.map((group) => group.layout))];

function titleOf(choice: Named): string {
  const [only, ...more] = layoutsIn(choice);
  if (only && more.length === 0 && choice.groups.length === 1) return fullName(layoutOf(only));
  return choice.detail ? `${choice.name}, ${choice.detail}` : choice.name;
}

/** What layouts are: how each keeps data, live on these drives, what it is good for and costs, and when it bites. */
export function LayoutDialog({ choices, first, drives, plan, onClose }: Props) {
  const [unit] = useUnit();
  const [id, setId] = useState(first);
  const choice = choices.find((each) => each.id === id) ?? choices[0];
  if (!choice) return null;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={titleOf(choice)}
      about={`${formatBytes(choice.pool.usableBytes, unit)} usable on these drives.`}
    >
      {choices.length > 1 && (
        <fieldset className="mb-3 flex flex-wrap gap-x-4 gap-y-0.5">
          <legend className="sr-only">Which layout</legend>
          {choices.map((each) => (
            <label key={each.id} className="flex min-h-[24px] cursor-pointer items-center gap-1.5">
              <input
                type="radio"
                name="layout"
                checked={each === choice}
                onChange={() => setId(each.id)}
                className="accent-indigo"
              />
              {each.name}
            </label>
          ))}
        </fieldset>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 md:grid-cols-[360px_minmax(0,1fr)]">
        <LivePicture key={choice.id} choice={choice} drives={drives} plan={plan} />
        <div className="space-y-4">
          {layoutsIn(choice).map((layout, _, { length }) => (
            <About key={layout} layout={layout} named={length > 1} />
          ))}
          <p className="border-t border-line pt-2 text-[0.95rem]">{NO_BACKUP}</p>
        </div>
      </div>
    </Dialog>
  );
}

function About({ layout, named }: { layout: LayoutId; named: boolean }) {
  const { summary } = layoutOf(layout);
  const advice = ADVICE[layout];
  return (
    <section aria-label={fullName(layoutOf(layout))}>
      {named && <h3 className="font-semibold">{fullName(layoutOf(layout))}</h3>}
      <p>
        <Explained text={summary} />
      </p>
      <dl className="mt-2 space-y-1.5">
        {(["goodFor", "costs", "bites"] as const).map((about) => (
          <div key={about}>
            <dt className="text-[0.9rem] text-soft">{SAID[about]}</dt>
            <dd>
              <Explained text={advice[about]} />
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
