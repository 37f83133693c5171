import { useState } from "react";
import { Button } from "../../ui/Button";

type ReasonProps = { ask: string; go: string; onGo: (reason: string) => void; onLeave?: () => void };

/** Going on against the plan: only with a reason, which is kept. */
export function Reason({ ask, go, onGo, onLeave }: ReasonProps) {
  const [reason, setReason] = useState("");
  return (
    <div className="grid gap-2 border-axle border-l-4 bg-paper p-2">
      <label className="block text-[15px] text-muted">
        {ask}
        <input
          className="min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap gap-2">
        <Button disabled={reason.trim() === ""} onClick={() => onGo(reason.trim())}>
          {go}
        </Button>
        {onLeave && (
          <Button look="quiet" onClick={onLeave}>
            Cancel
          </Button>
        )}
      </div>
    </div>
  );
}
