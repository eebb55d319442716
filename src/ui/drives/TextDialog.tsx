"use client";

import { useState, type ReactNode } from "react";
import { MOST_CSV_CHARACTERS } from "@/exchange/driveList/driveCsv";
import { Dialog } from "../kit/Dialog";
import { ProblemLines } from "../kit/ProblemLines";
import { TextActs } from "./TextActs";
import { TextSource } from "./TextSource";

interface Props {
  title: string;
  about: string;
  source: { example: string; label: string; placeholder: string };
  /** What files it takes, and how many characters at most; those of a list of drives where nothing is said. */
  accept?: string;
  most?: number;
  /** What stands in the field at first. */
  start?: string;
  takeLabel: string;
  /** Reads the text and takes what is in it; returns what is wrong, a line each, or nothing. */
  onTake: (text: string) => readonly string[];
  onClose: () => void;
  /** Further acts, before Cancel. */
  acts?: ReactNode;
}

/** A text, typed, pasted or from a file, that is taken at once. What was typed stays until it is taken. */
export function TextDialog({
  title,
  about,
  source,
  accept = ".csv,.txt,text/csv,text/plain",
  most = MOST_CSV_CHARACTERS,
  start = "",
  takeLabel,
  onTake,
  onClose,
  acts,
}: Props) {
  const [text, setText] = useState(start);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const take = (given: string) => {
    const found = onTake(given);
    setProblems(found);
    if (found.length === 0) onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={title}
      about={about}
      acts={
        <>
          {acts}
          <TextActs text={text} label={takeLabel} onTake={take} onClose={onClose} />
        </>
      }
    >
      <TextSource
        {...source}
        accept={accept}
        value={text}
        onChange={(next) => {
          setText(next);
          setProblems([]);
        }}
        onFiles={take}
        most={most}
        onTrouble={(message) => setProblems([message])}
      />
      <ProblemLines problems={problems} />
    </Dialog>
  );
}
