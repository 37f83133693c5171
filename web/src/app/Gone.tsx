import { Download, FilePlus2, Undo2 } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Job } from "../api/client";
import { useSession } from "../job/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { DifferenceTable } from "./DifferenceTable";

/** A job that is no longer in the job list: what was typed here can be read, saved, brought back or made a new job. */
export function Gone({ document, saved }: { document: Job | null; saved: Job | null }) {
  const { bringBack, asNewJob } = useSession();
  const [why, setWhy] = useState<string | null>(null);
  const navigate = useNavigate();
  const back = async () => setWhy((await bringBack())?.detail ?? null);
  const anew = async () => {
    const result = await asNewJob();
    if ("made" in result) navigate(`/jobs/${result.made}/tape`);
    else setWhy(result.problem.detail);
  };
  return (
    <main className="mx-auto grid h-full max-w-[760px] content-center gap-3 overflow-y-auto p-6" data-gone>
      <h1 className="font-bold text-[34px] leading-none">
        {document ? `${document.title} is no longer in the job list` : "No such job"}
      </h1>
      {document && (
        <>
          <p className="text-[18px]">
            It was removed somewhere else, or the program was restarted. What you typed is still here.
          </p>
          {saved && (
            <DifferenceTable mine={document} theirs={saved} names={["typed here", "as saved last"]} />
          )}
        </>
      )}
      {why && <Notice kind="refused">{why}</Notice>}
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={() => void back()}>
          <Undo2 size={18} aria-hidden />
          Bring it back
        </Button>
        {document && (
          <>
            <Button onClick={() => void anew()}>
              <FilePlus2 size={18} aria-hidden />
              Make it a new job
            </Button>
            <Button onClick={() => saveFile(document)}>
              <Download size={18} aria-hidden />
              Save job file
            </Button>
          </>
        )}
      </div>
      <Link className="inline-flex min-h-11 items-center underline" to="/">
        Back to the jobs
      </Link>
    </main>
  );
}

function saveFile(job: Job) {
  const address = URL.createObjectURL(new Blob([JSON.stringify(job, null, 2)], { type: "application/json" }));
  const link = document.createElement("a");
  link.href = address;
  link.download = `${job.title || "job"}.derecho.json`;
  link.click();
  URL.revokeObjectURL(address);
}
