import { Button } from "./Button";

/** Prints the page that it stands on. */
export function PrintButton() {
  return (
    <Button small look="quiet" onClick={() => window.print()}>
      Print
    </Button>
  );
}
