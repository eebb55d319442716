"use client";

import { FileDown, Keyboard, Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import { Button, IconButton } from "../kit/Button";
import { useState } from "react";
import { MenuButton } from "../kit/MenuButton";
import { NOTICE_PLACE } from "../kit/noticePlace";
import { NameField } from "../kit/NameField";
import { Segmented } from "../kit/Segmented";
import { useUnit } from "../preferences/preferences";
import { part } from "../kit/part";

const FileMenuItems = part(() => import("./FileMenuItems").then((module) => module.FileMenuItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

interface Props {
  name: string;
  /** Whether the name of the plan is the page's title: where the place below has none of its own. */
  titles: boolean;
  onRename: (name: string) => void;
  /** What undo would undo, in words; null when there is nothing. */
  undoes: string | null;
  redoes: string | null;
  onUndo: () => void;
  onRedo: () => void;
  keeping: "kept" | "saving" | "unkept";
  onExport: () => void;
  onImport: () => void;
  onDuplicate: () => void;
  printHref: string;
  onMarkdown: () => void;
  onLink: () => void;
  onWords: () => void;
  onKeys: () => void;
}

const KEEPING = { kept: "Saved", saving: "Saving …", unkept: "Not saved" };

/** The bar over the workbench: which plan it is, units, undo and redo, files. */
export function TopBar(props: Props) {
  const [unit, setUnit] = useUnit();
  const [typing, setTyping] = useState(false);
  const keeping = typing && props.keeping === "kept" ? "saving" : props.keeping;
  return (
    <header className="flex print:hidden flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-4 py-2">
      <Link href="/" className="font-serif text-xl text-indigo" title="All plans">
        Cortijo
      </Link>
      <span aria-hidden="true" className="h-5 w-px bg-line max-sm:hidden" />
      {props.titles && <h1 className="sr-only">{props.name}</h1>}
      <NameField
        label="Name of the plan"
        value={props.name}
        onChange={props.onRename}
        onTyping={setTyping}
        className="flex-1 font-semibold max-sm:order-last max-sm:-ml-1.5 max-sm:basis-full sm:max-w-96"
      />
      <span className={`text-[0.87rem] ${keeping === "unkept" ? "text-geranium" : "text-soft"}`} role="status">
        {KEEPING[keeping]}
      </span>
      {/* What has just been done is said here, where it lies across nothing. */}
      <div id={NOTICE_PLACE} className="min-w-0 flex-[2] max-md:hidden" />
      <span className="ml-auto flex items-center gap-1">
        <IconButton
          label={props.undoes ? `Undo: ${props.undoes}` : "Undo"}
          disabled={!props.undoes}
          onClick={props.onUndo}
        >
          <Undo2 size={18} aria-hidden />
        </IconButton>
        <IconButton
          label={props.redoes ? `Redo: ${props.redoes}` : "Redo"}
          disabled={!props.redoes}
          onClick={props.onRedo}
        >
          <Redo2 size={18} aria-hidden />
        </IconButton>
      </span>
      <Segmented
        label="Units"
        value={unit}
        onChange={setUnit}
        options={[
          { value: "TB", label: "TB" },
          { value: "TiB", label: "TiB" },
        ]}
      />
      <IconButton label="Keys" onClick={props.onKeys} className="max-sm:hidden">
        <Keyboard size={18} aria-hidden />
      </IconButton>
      <MenuButton
        align="end"
        width="min-w-52"
        trigger={
          <Button>
            <FileDown size={16} aria-hidden className="max-sm:hidden" />
            File
          </Button>
        }
      >
        <FileMenuItems {...props} />
      </MenuButton>
    </header>
  );
}
