"use client";

import { Fragment } from "react";
import { rulesOf } from "@/core/rules/ruleSets";
import type { StepMenu, StepOffer } from "@/core/steps/stepMenu";
import { stepMenus } from "@/core/steps/registry";
import { MenuItem, MenuLine, SubMenu } from "../../kit/Menu";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";

const isUnder =
  <U extends StepMenu["under"]>(under: U) =>
  (menu: StepMenu): menu is Extract<StepMenu, { under: U }> =>
    menu.under === under;

const POOL_MENUS = stepMenus.filter(isUnder("pool"));
const DRIVE_MENUS = stepMenus.filter(isUnder("drives"));

/** Steps that are no act on the drives themselves, to be put in at the chosen moment. */
export function AddStepItems() {
  const { plan, propose } = useWorkbench();
  const [unit] = useUnit();
  const setting = { plan, rules: rulesOf(plan.box.rules), unit };
  const items = (offers: readonly StepOffer[]) =>
    offers.map(({ label, steps }, i) => (
      <MenuItem key={i} onSelect={() => propose(steps, label)}>
        {label}
      </MenuItem>
    ));
  return (
    <>
      {plan.pools.map((pool) => (
        <SubMenu key={pool.id} label={pool.name || "The pool"}>
          {POOL_MENUS.map((menu, i) => (
            <Fragment key={i}>{items(menu.offers(pool, setting))}</Fragment>
          ))}
        </SubMenu>
      ))}
      <MenuLine />
      {DRIVE_MENUS.map((menu, i) => {
        const offers = menu.offers(setting);
        if (menu.title === undefined) return <Fragment key={i}>{items(offers)}</Fragment>;
        return (
          <SubMenu key={i} label={menu.title}>
            {offers.length === 0 && menu.none !== undefined && <MenuItem disabled>{menu.none}</MenuItem>}
            {items(offers)}
          </SubMenu>
        );
      })}
    </>
  );
}
