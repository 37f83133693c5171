import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { setCause, setOff } from "./edits";

type ProveResult = Schemas["ProveResult"];
type CauseFound = Schemas["CauseFound"];

const CAUSES = optionsOf<CauseFound | "unknown">({
  unknown: "not found",
  eye_elsewhere: "an eye is elsewhere",
  turned_the_wrong_way: "turned the wrong way",
  full_difference: "set by the full difference",
  other_length: "set to another length",
  read_otherwise: "measured hanging or at another height",
  worn_hole: "oval bolt hole",
  bushing_wound_up: "bushing tightened hanging",
  other: "something else",
});

/** What was found, when and by whoever closes the job. */
const found = (by: string | undefined, what: CauseFound, note = "") => ({
  what,
  done: { at: new Date().toISOString(), ...(by && { by }) },
  ...(note && { note }),
});

/** Where an eye may really sit, were that why the axle moved otherwise. */
export function Misplaced({ proof }: { proof: ProveResult }) {
  const { change } = useJob();
  const places = proof.misplaced ?? [];
  if (places.length === 0) return null;
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold">
        {places.length > 1
          ? "It didn't move as predicted. One of these may be why:"
          : "It didn't move as predicted. This may be why:"}
      </h3>
      {places.map((place) => (
        <Place
          key={`${place.end} ${place.says.in}`}
          place={place}
          onConfirm={() =>
            change((job) =>
              setCause(
                place.round,
                found(job.proof?.by, "eye_elsewhere"),
              )(setOff(place.round, place.moved, place.off)(job)),
            )
          }
        />
      ))}
    </section>
  );
}

/** What the cause was of a movement otherwise than predicted, once somebody found it. */
export function CauseOf({ proof }: { proof: ProveResult }) {
  const { view, job, change } = useJob();
  const rounds = job.setups?.rounds ?? [];
  const last = rounds.length - 1;
  const cause = rounds.at(-1)?.cause;
  const otherwise = proof.movement?.agrees === false || proof.cause !== undefined;
  if (last < 0 || (!otherwise && !cause)) return null;
  return (
    <section className="grid gap-2" data-cause>
      <Choice
        label="What it turned out to be"
        value={cause?.what ?? "unknown"}
        options={CAUSES}
        onPick={(what) =>
          change(setCause(last, what === "unknown" ? undefined : found(job.proof?.by, what, cause?.note)))
        }
      />
      {cause && (
        <TextField
          job={view.id}
          pointer={`/setups/rounds/${last}/cause/note`}
          label="What you saw"
          value={cause.note ?? ""}
          onCommit={(note) => change(setCause(last, { ...cause, note }))}
        />
      )}
    </section>
  );
}

type PlaceProps = { place: NonNullable<ProveResult["misplaced"]>[number]; onConfirm: () => void };

function Place({ place, onConfirm }: PlaceProps) {
  const units = useSettings((s) => s.units);
  return (
    <div className="grid gap-1 border-[1.5px] border-ink bg-paper p-2.5" data-misplaced={place.end}>
      <p>
        <Figure>{say(place.says, units)}</Figure>
      </p>
      <p className="text-[15px] text-muted">
        Measure the eye from the frame or axle tube before you confirm it.
      </p>
      <div>
        <Button onClick={onConfirm}>I measured it: it is there</Button>
      </div>
    </div>
  );
}
