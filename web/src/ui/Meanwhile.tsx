import { Button } from "./Button";

type MeanwhileProps = { there: string | null; onKeep: () => void; onTake: () => void };

/** Somebody else put another value into a field while one was typed here: the person chooses. */
export function Meanwhile({ there, onKeep, onTake }: MeanwhileProps) {
  if (there === null) return null;
  return (
    <span role="alert" className="mt-1 block" data-meanwhile>
      <span className="text-axle">
        {there === ""
          ? "Removed somewhere else in the meantime."
          : `Changed somewhere else in the meantime, to \u201c${there}\u201d.`}
      </span>
      <span className="mt-1 flex flex-wrap gap-2">
        <Button onClick={onKeep}>Keep mine</Button>
        <Button onClick={onTake}>Take that</Button>
      </span>
    </span>
  );
}
