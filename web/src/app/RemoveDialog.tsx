import { useNavigate } from "react-router";
import { useSession } from "../job/session";
import { useJob } from "../job/useJob";
import { Button } from "../ui/Button";
import { Modal } from "./Modal";

/** Asks before a job is taken out of the bay. */
export function RemoveDialog({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { job } = useJob();
  const remove = useSession((s) => s.remove);
  const navigate = useNavigate();
  const takeOut = async () => {
    if (await remove()) navigate("/");
    else onOpenChange(false);
  };
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title={`Remove ${job.title}?`}
      says="It will no longer be listed. To get it back, use Removed jobs in the job list."
    >
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={() => void takeOut()}>
          Remove
        </Button>
        <Button onClick={() => onOpenChange(false)}>Keep it</Button>
      </div>
    </Modal>
  );
}
