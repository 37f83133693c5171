import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Send } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { unsent } from "../job/offlineStore";
import { useSession } from "../job/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";

const AGAIN_MS = 3000;

/** Jobs with something typed that the server does not have: told in the bay, and sent from there. */
export function UnsentJobs() {
  const queries = useQueryClient();
  const sendKept = useSession((s) => s.sendKept);
  const [why, setWhy] = useState<Record<string, string | null>>({});
  const { data = [] } = useQuery({ queryKey: ["unsent"], queryFn: unsent, refetchInterval: AGAIN_MS });
  if (data.length === 0) return null;
  const send = async (job: string) => {
    const reported = await sendKept(job);
    setWhy((known) => ({ ...known, [job]: reported }));
    void queries.invalidateQueries({ queryKey: ["unsent"] });
    void queries.invalidateQueries({ queryKey: ["jobs"] });
  };
  return (
    <section data-unsent={data.length} className="grid gap-2">
      <h2 className="font-semibold">Typed on this device and not saved yet</h2>
      {data.map(({ job, title }) => (
        <div key={job} className="grid gap-1" data-unsent-job={job}>
          <div className="flex flex-wrap items-center gap-2">
            <Link className="inline-flex min-h-11 items-center underline" to={`/jobs/${job}/tape`}>
              {title}
            </Link>
            <Button onClick={() => void send(job)}>
              <Send size={18} aria-hidden />
              Send now
            </Button>
          </div>
          {why[job] && <Notice kind="refused">{why[job]}</Notice>}
        </div>
      ))}
    </section>
  );
}
