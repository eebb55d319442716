"use client";

import type { Told } from "@/core/bestWay/told";
import type { Reached } from "@/core/bestWay/byLayout";
import type { LayoutId } from "@/core/document/plan";
import type { GrowthWish } from "@/core/bestWay/wish";
import type { GrowthAsked } from "@/workers/startGrowth";
import type { PlaceProps } from "../shell/planPlace";
import { Front } from "./Front";
import { Habits } from "./Habits";
import { Layouts } from "./Layouts";
import { Otherwise } from "./Otherwise";
import type { Look } from "./Waiting";

interface Props extends Pick<PlaceProps, "plan" | "act"> {
  asked: GrowthAsked;
  told: Told;
  wish: GrowthWish;
  day: string;
  look: Look;
  onLayout: (layout: LayoutId, reached: Reached) => void;
}

/** What stands beside the best way: what would change it, habits, other points of the front, and other layouts. */
export function Beside({ asked, told, plan, act, day, wish, look, onLayout }: Props) {
  const { way } = told;
  if (!way) return null;
  return (
    <div className="mt-6 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
      <div className="min-w-0 space-y-6">
        <Otherwise asked={asked} way={way} plan={plan} day={day} wish={wish} />
        <Habits asked={asked} best={way.cents} plan={plan} day={day} look={look} />
      </div>
      <Front asked={asked} plan={plan} act={act} look={look} />
      <Layouts asked={asked} plan={plan} day={day} onPick={onLayout} />
    </div>
  );
}
