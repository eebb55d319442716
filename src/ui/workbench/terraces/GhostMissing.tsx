import { RotateCw } from "lucide-react";
import { IconButton } from "../../kit/Button";
import type { Column, TerraceGeometry } from "./geometry";

interface Props {
  column: Column;
  geometry: TerraceGeometry;
  /** Says a sentence below the picture; null clears it. */
  onSay: (words: string | null) => void;
  onAgain: () => void;
}

/** That what a drive would bring could not be loaded or worked out, in the free bay where it would stand. */
export function GhostMissing({ column, geometry: { foot }, onSay, onAgain }: Props) {
  const words = `What a drive in bay ${column.bay} would bring could not be worked out. Try again`;
  const leave = () => onSay(null);
  return (
    <div className="absolute flex justify-center" style={{ left: column.x, top: foot - 36, width: column.width }}>
      <IconButton
        label={words}
        onFocus={() => onSay(`${words}.`)}
        onPointerEnter={() => onSay(`${words}.`)}
        onBlur={leave}
        onPointerLeave={leave}
        onClick={() => {
          leave();
          onAgain();
        }}
      >
        <RotateCw size={17} />
      </IconButton>
    </div>
  );
}
