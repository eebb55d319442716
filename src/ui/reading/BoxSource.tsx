"use client";

import { useState } from "react";
import { ARRAYS_COMMAND } from "@/exchange/boxText/command";
import { MOST_BOX_CHARACTERS, readBoxText } from "@/exchange/boxText/readBoxText";
import { INVENTORY_COMMAND } from "@/exchange/inventory/command";
import type { PrintedBox } from "@/core/reading/printedBox";
import { TextSource } from "../drives/TextSource";
import { Button } from "../kit/Button";

interface Props {
  /** What stands in the field; whoever comes back finds it as it was. */
  text: string;
  onText: (text: string) => void;
  onRead: (printed: PrintedBox) => void;
}

/** Where what a box prints is brought in: pasted, dropped or chosen, both texts in one or in two. */
export function BoxSource({ text, onText, onRead }: Props) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const read = (given: string) => {
    const result = readBoxText(given);
    setTrouble(result.ok ? null : result.message);
    if (result.ok) onRead(result.printed);
  };
  return (
    <div>
      <p className="mb-2">
        Run both commands in a terminal on the box and bring here what they print, together or one after the other. They
        only read. Nothing is sent anywhere.
      </p>
      <TextSource
        example={`${INVENTORY_COMMAND}\n${ARRAYS_COMMAND}`}
        label="What the box prints"
        placeholder={'{ "blockdevices": [ … ] }\nPersonalities : …\nmd0 : active raid5 …'}
        most={MOST_BOX_CHARACTERS}
        accept=".json,.txt,application/json,text/plain"
        value={text}
        onChange={(next) => {
          onText(next);
          setTrouble(null);
        }}
        onFiles={read}
        onTrouble={setTrouble}
      />
      {trouble && (
        <p role="alert" className="mt-3 text-geranium">
          {trouble}
        </p>
      )}
      <Button look="main" className="mt-3" disabled={text.trim() === ""} onClick={() => read(text)}>
        Read it
      </Button>
    </div>
  );
}
