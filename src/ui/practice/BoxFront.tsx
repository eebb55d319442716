"use client";

import { useEffect, useRef } from "react";
import { Button } from "../kit/Button";
import type { PracticeView, SeenDrive } from "./openPractice";
import type { PracticeBox } from "./usePractice";
import { say } from "../kit/say";

interface Props {
  view: PracticeView;
  practice: PracticeBox;
}

/** The practice box as one stands before it: what is in its bays, what lies on the shelf, and hands to move it. */
export function BoxFront({ view, practice }: Props) {
  const bays = Array.from({ length: view.bays }, (_, i) => i + 1);
  const shelf = view.drives.filter(({ bay }) => bay === null);
  const place = useRef<HTMLDivElement>(null);
  const moved = useRef<{ drive: string; from: number | null } | null>(null);
  useEffect(() => {
    const { current: move } = moved;
    // Once the box shows it elsewhere: what was pressed has gone with the drive, and the focus goes where that is.
    if (!move || view.drives.find(({ id }) => id === move.drive)?.bay === move.from) return;
    moved.current = null;
    place.current?.querySelector<HTMLElement>(`[data-seen="${CSS.escape(move.drive)}"]`)?.focus();
  }, [view]);
  const isFull = view.drives.filter(({ bay }) => bay !== null).length >= view.bays;
  return (
    <details className="mt-2">
      <summary className="cursor-pointer py-1 font-semibold">Look at the box, and read its labels</summary>
      <div ref={place} className="mt-1 grid gap-x-8 gap-y-3 sm:grid-cols-2">
        <div>
          <h3 className="text-soft">In its bays</h3>
          <ul aria-label="Bays of the practice box">
            {bays.map((bay) => {
              const drive = view.drives.find((each) => each.bay === bay);
              return (
                <li
                  key={bay}
                  {...(drive ? { "data-seen": drive.id } : {})}
                  tabIndex={-1}
                  className="flex min-h-9 items-center gap-2 border-b border-line"
                >
                  <span className="w-12 shrink-0 text-soft">Bay {bay}</span>
                  {drive ? (
                    <InBay
                      drive={drive}
                      onPull={() => {
                        moved.current = { drive: drive.id, from: drive.bay };
                        practice.pull(drive.id);
                        say(`Pulled: ${drive.size}, ${drive.serial}, from bay ${bay}.`);
                      }}
                    />
                  ) : (
                    <span className="text-soft">empty</span>
                  )}
                </li>
              );
            })}
          </ul>
        </div>
        <div>
          <h3 className="text-soft">Beside it</h3>
          {shelf.length === 0 && <p className="text-soft">Nothing.</p>}
          <ul aria-label="Beside the practice box">
            {shelf.map((drive) => (
              <li
                key={drive.id}
                data-seen={drive.id}
                tabIndex={-1}
                className="flex min-h-9 items-center gap-2 border-b border-line"
              >
                <Label drive={drive} />
                {drive.state !== "failed" && (
                  <Button
                    small
                    className="ml-auto"
                    disabled={isFull}
                    aria-label={`Put ${drive.serial} into a bay`}
                    onClick={() => {
                      moved.current = { drive: drive.id, from: drive.bay };
                      practice.seat(drive.id);
                      say(`Put into a bay: ${drive.size}, ${drive.serial}.`);
                    }}
                  >
                    Put in
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </div>
      </div>
    </details>
  );
}

function Label({ drive }: { drive: SeenDrive }) {
  return (
    <span className="min-w-0">
      <span className="font-semibold">{drive.size}</span> <span className="tabular-nums">{drive.serial}</span>
      {drive.bay !== null || drive.state === "failed" ? (
        <span className={drive.state === "works" ? "text-soft" : "text-geranium"}> · {drive.is}</span>
      ) : drive.state === "missing" ? (
        <span className="text-geranium"> · pulled</span>
      ) : null}
    </span>
  );
}

function InBay({ drive, onPull }: { drive: SeenDrive; onPull: () => void }) {
  return (
    <>
      <Label drive={drive} />
      <Button small className="ml-auto" aria-label={`Pull ${drive.serial} out of bay ${drive.bay}`} onClick={onPull}>
        Pull
      </Button>
    </>
  );
}
