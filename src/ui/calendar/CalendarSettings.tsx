"use client";

import { useId, useState } from "react";
import { parseExcluded, writeExcluded } from "@/core/calendar/excludedDays";
import { HANDS, handsIdOf, type HandsId } from "@/core/calendar/planCalendar";
import type { Command } from "@/core/document/command";
import { handsProblem } from "@/core/document/references";
import { isDay } from "@/core/time/days";
import { Button } from "../kit/Button";
import { FIELD, Labelled } from "../kit/Field";
import type { HandsWindow, PlanCalendar } from "@/core/document/plan";

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];

interface Props {
  calendar: PlanCalendar;
  act: (command: Command, offersUndo?: boolean) => string | null;
}

/** When the plan begins, how long deliveries take, and when there are hands at the box. */
export function CalendarSettings({ calendar, act }: Props) {
  const change = (part: Partial<PlanCalendar>) => act({ kind: "set-calendar", calendar: { ...calendar, ...part } });
  const preset = handsIdOf(calendar.hands);
  const [own, setOwn] = useState(preset === null);
  const [away, setAway] = useState(() => writeExcluded(calendar.excluded));
  const [trouble, setTrouble] = useState<string | null>(null);
  const problem = useId();
  const zones = zonesWith(calendar.timeZone);
  const [late, setLate] = useState<string | null>(null);
  const takeDelivery = (typed: string) => {
    const days = Number(typed);
    const fits = typed !== "" && Number.isInteger(days) && days >= 0 && days <= 365;
    setLate(fits ? null : "Type whole days, from 0 to 365. Until then the calendar goes on with the last number.");
    if (fits && days !== calendar.deliveryDays) change({ deliveryDays: days });
  };
  const takeAway = () => {
    const read = parseExcluded(away, calendar.start);
    setTrouble(read.ok ? null : read.message);
    if (!read.ok) return;
    setAway(writeExcluded(read.ranges));
    if (JSON.stringify(read.ranges) !== JSON.stringify(calendar.excluded)) change({ excluded: read.ranges });
  };
  return (
    <section aria-label="What decides the dates" className="space-y-3 print:hidden">
      <Labelled label="The first day">
        <input
          key={calendar.start}
          type="date"
          className={FIELD}
          defaultValue={calendar.start}
          onChange={(event) => isDay(event.target.value) && change({ start: event.target.value })}
        />
      </Labelled>
      <Labelled label="Deliveries take … days">
        <input
          key={calendar.deliveryDays}
          type="number"
          min={0}
          max={365}
          className={FIELD}
          defaultValue={calendar.deliveryDays}
          aria-invalid={late !== null}
          onBlur={(event) => takeDelivery(event.target.value)}
        />
      </Labelled>
      {late && (
        <p role="alert" className="text-[0.93rem] text-geranium">
          {late}
        </p>
      )}
      <Labelled label="When you can be at the box">
        <select
          className={FIELD}
          value={own ? "own" : (preset ?? "own")}
          onChange={(event) => {
            const id = event.target.value;
            setOwn(id === "own");
            if (id !== "own") change({ hands: HANDS[id as HandsId].windows });
          }}
        >
          {Object.entries(HANDS).map(([id, { name }]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value="own">hours of my own</option>
        </select>
      </Labelled>
      {own && <OwnHours hands={calendar.hands} onChange={(hands) => change({ hands })} />}
      <div>
        <Labelled label="Days on which you are away">
          <textarea
            rows={3}
            className="mt-0.5 w-full rounded border border-line-strong/70 bg-raised p-2"
            value={away}
            placeholder="24–26 Dec, 1 Jan"
            aria-invalid={trouble !== null}
            aria-describedby={trouble ? problem : undefined}
            onChange={(event) => setAway(event.target.value)}
            onBlur={takeAway}
          />
        </Labelled>
        {trouble && (
          <p id={problem} role="alert" className="text-[0.93rem] text-geranium">
            {trouble}
          </p>
        )}
      </div>
      <Labelled label="Time zone">
        <select
          className={FIELD}
          value={calendar.timeZone}
          onChange={(event) => change({ timeZone: event.target.value })}
        >
          {zones.map((zone) => (
            <option key={zone} value={zone}>
              {zone.replaceAll("_", " ")}
            </option>
          ))}
        </select>
      </Labelled>
      <p className="text-[0.9rem] text-soft">
        Steps that need nobody at the box begin between 7:00 and 23:00. Once begun, work runs through the night.
      </p>
      <Button small onClick={() => act({ kind: "set-calendar", calendar: null }, true)}>
        Without dates
      </Button>
    </section>
  );
}

function OwnHours({ hands, onChange }: { hands: readonly HandsWindow[]; onChange: (hands: HandsWindow[]) => void }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const put = (i: number, window: HandsWindow) => {
    const wrong =
      window.days.length === 0 ? "Hours need a day of the week at least." : (handsProblem(window)?.message ?? null);
    setTrouble(wrong);
    if (wrong) return;
    onChange(hands.map((each, n) => (n === i ? window : each)));
  };
  return (
    <div className="space-y-3">
      {hands.map((window, i) => (
        <fieldset key={i} className="border-l-2 border-line pl-3">
          <legend className="sr-only">Hours {i + 1}</legend>
          <div className="flex flex-wrap gap-x-2">
            {DAYS.map((name, d) => (
              <label key={name} className="flex items-center gap-1 text-[0.9rem]">
                <input
                  type="checkbox"
                  className="accent-indigo"
                  checked={window.days.includes(d + 1)}
                  onChange={(event) =>
                    put(i, {
                      ...window,
                      days: event.target.checked
                        ? [...window.days, d + 1].sort()
                        : window.days.filter((day) => day !== d + 1),
                    })
                  }
                />
                {name}
              </label>
            ))}
          </div>
          <div className="mt-1 flex items-center gap-2">
            <input
              type="time"
              aria-label={`From, hours ${i + 1}`}
              className="h-8 rounded border border-line-strong/70 bg-raised px-1"
              value={window.from}
              onChange={(event) => put(i, { ...window, from: event.target.value })}
            />
            to
            <input
              type="time"
              aria-label={`To, hours ${i + 1}`}
              className="h-8 rounded border border-line-strong/70 bg-raised px-1"
              value={window.to}
              onChange={(event) => put(i, { ...window, to: event.target.value })}
            />
            {hands.length > 1 && (
              <Button small look="quiet" onClick={() => onChange(hands.filter((_, n) => n !== i))}>
                Remove
              </Button>
            )}
          </div>
        </fieldset>
      ))}
      {trouble && (
        <p role="alert" className="text-[0.93rem] text-geranium">
          {trouble}
        </p>
      )}
      {hands.length < 14 && (
        <Button small onClick={() => onChange([...hands, { days: [6], from: "10:00", to: "12:00" }])}>
          More hours
        </Button>
      )}
    </div>
  );
}

/** The time zones that the browser knows, with the plan's own. */
function zonesWith(own: string): string[] {
  const known = typeof Intl.supportedValuesOf === "function" ? Intl.supportedValuesOf("timeZone") : [];
  return [...new Set(["UTC", ...known, own])].sort();
}
