import { Button } from "../kit/Button";

interface Props {
  text: string;
  /** What is done with the text. */
  label: string;
  onTake: (text: string) => void;
  onClose: () => void;
}

/** Under a text that is given: nothing, or what is done with it, once there is some. */
export function TextActs({ text, label, onTake, onClose }: Props) {
  return (
    <>
      <Button onClick={onClose}>Cancel</Button>
      <Button look="main" disabled={text.trim() === ""} onClick={() => onTake(text)}>
        {label}
      </Button>
    </>
  );
}
