import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { type Proof, setProof } from "./edits";
import { Findings } from "./Findings";

const RECORD = [
  ["inspection", "Inspection or license, if required"],
  ["photographs", "Photos, by file name"],
  ["deviations", "What was done differently from the plan"],
  ["defects", "Problems found: wrong spacers, tight pocket"],
  ["trail", "How it felt off-road, with which hole and sway link"],
] as const satisfies readonly (readonly [keyof Proof, string])[];

/** The reason that an earlier version asked once for everything: read, and good for nothing found now. */
function CarriedOver() {
  const { job } = useJob();
  const before = job.proof?.acceptances?.find(({ key }) => key === "all_that_was_open");
  if (!before?.because) return null;
  return (
    <p className="text-muted" data-carried-over>
      Closed earlier with one reason for everything: {before.because}
      {before.by && ` (${before.by})`}
    </p>
  );
}

/** What stands in the way of closing the job, by whom it is closed, and what belongs on record. */
export function SettleForm() {
  const { view, job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const field = (name: "by" | (typeof RECORD)[number][0], label: string, long = true) => (
    <TextField
      key={name}
      job={view.id}
      pointer={`/proof/${name}`}
      label={label}
      value={job.proof?.[name] ?? ""}
      long={long}
      onCommit={(text) => change(setProof({ [name]: text }))}
    />
  );
  return (
    <div className="grid gap-2">
      <Findings />
      <CarriedOver />
      <Fold title="For the next time">
        <ul className="list-disc pl-6" data-next-time>
          {results.settling.next_time.map((says) => (
            <li key={says.in}>
              <Figure>{say(says, units)}</Figure>
            </li>
          ))}
        </ul>
        {job.proof?.defects && <p>Found: {job.proof.defects}</p>}
      </Fold>
      <Fold keep title="Who did it, and what to keep on record">
        <div className="grid gap-2">
          {field("by", "Closed by", false)}
          {RECORD.map(([name, label]) => field(name, label))}
        </div>
      </Fold>
    </div>
  );
}
