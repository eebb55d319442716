"use client";

import Link from "next/link";
import { MenuChoice, MenuChoices, MenuHeading, MenuItem, MenuLine } from "../kit/Menu";
import { useTheme, type Theme } from "../preferences/preferences";

interface Props {
  onExport: () => void;
  onImport: () => void;
  onDuplicate: () => void;
  /** Where the plan stands as a document. */
  printHref: string;
  onMarkdown: () => void;
  onLink: () => void;
  onWords: () => void;
}

/** Files, other plans, and the theme. */
export function FileMenuItems({ onExport, onImport, onDuplicate, printHref, onMarkdown, onLink, onWords }: Props) {
  const [theme, setTheme] = useTheme();
  return (
    <>
      <MenuItem onSelect={onExport}>Export this plan</MenuItem>
      <MenuItem asChild>
        <Link href={printHref} prefetch={false}>
          Print this plan…
        </Link>
      </MenuItem>
      <MenuItem onSelect={onMarkdown}>Copy as Markdown</MenuItem>
      <MenuItem onSelect={onLink}>A link with this plan…</MenuItem>
      <MenuLine />
      <MenuItem asChild>
        <Link href="/new" prefetch={false}>
          New plan…
        </Link>
      </MenuItem>
      <MenuItem onSelect={onImport}>Import a plan…</MenuItem>
      <MenuItem onSelect={onDuplicate}>Duplicate this plan</MenuItem>
      <MenuItem asChild>
        <Link href="/">All plans</Link>
      </MenuItem>
      <MenuItem onSelect={onWords}>What the words mean…</MenuItem>
      <MenuLine />
      <MenuHeading>Theme</MenuHeading>
      <MenuChoices value={theme} onValueChange={(value) => setTheme(value as Theme)}>
        {(["light", "dark", "system"] as const).map((each) => (
          <MenuChoice key={each} value={each}>
            <span aria-hidden="true" className="w-4">
              {theme === each ? "✓" : ""}
            </span>
            {{ light: "Light", dark: "Dark", system: "As the device" }[each]}
          </MenuChoice>
        ))}
      </MenuChoices>
    </>
  );
}
