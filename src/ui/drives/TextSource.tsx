"use client";

import { useEffect, useRef, useState, type DragEvent } from "react";
import { textOfFile } from "@/exchange/textOfFile";

interface Props {
  /** The command whose output is wanted, or an example of the text. */
  example: string;
  label: string;
  placeholder: string;
  accept: string;
  value: string;
  onChange: (text: string) => void;
  /** Gets the contents of what was dropped or chosen, several files one after the other. */
  onFiles: (text: string) => void;
  /** The largest file that is opened, in bytes. */
  most: number;
  onTrouble: (message: string) => void;
}

/** How much of a file is shown in the field; all of it is read. */
const SHOWN_CHARACTERS = 20_000;

/** A text that can be pasted, dropped or chosen as files. */
export function TextSource({ example, label, placeholder, accept, value, onChange, onFiles, most, onTrouble }: Props) {
  const [over, setOver] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  const told = useRef(onChange);
  useEffect(() => {
    // What was pasted before the page could listen stands in the field, and nowhere else.
    if (field.current?.value) told.current(field.current.value);
  }, []);
  const readFiles = async (files: FileList | null) => {
    const list = [...(files ?? [])];
    if (list.length === 0) return;
    const large = list.find((file) => file.size > most);
    if (large)
      return onTrouble(
        `“${large.name}” has ${Math.round(large.size / 1e6)} MB, far more than is wanted here. Choose the right file.`,
      );
    const texts = await Promise.all(list.map(async (file) => textOfFile(await file.arrayBuffer())));
    const unread = texts.find((each) => !each.ok);
    if (unread && !unread.ok) return onTrouble(unread.message);
    const text = texts.map((each) => (each.ok ? each.text : "")).join("\n");
    onChange(text.slice(0, SHOWN_CHARACTERS));
    onFiles(text);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void readFiles(event.dataTransfer.files);
  };
  return (
    <div
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
      className="space-y-3"
    >
      <code className="block rounded bg-wall px-3 py-2 whitespace-pre-wrap select-all">{example}</code>
      <textarea
        ref={field}
        aria-label={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        placeholder={placeholder}
        spellCheck={false}
        rows={10}
        className={
          "w-full rounded border bg-raised p-2 font-mono text-[0.8rem] placeholder:text-soft " +
          (over ? "border-indigo ring-2 ring-indigo" : "border-line-strong/70")
        }
      />
      <label className="inline-flex cursor-pointer flex-wrap items-center gap-2 text-soft">
        Or drop files here, or choose them:
        <input
          type="file"
          multiple
          accept={accept}
          onChange={(event) => void readFiles(event.target.files)}
          className={
            "text-[0.9rem] file:mr-2 file:h-8 file:rounded file:border file:border-line-strong file:bg-raised " +
            "file:px-2 file:text-ink"
          }
        />
      </label>
    </div>
  );
}
