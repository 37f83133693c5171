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
      title={`Take ${job.title} out of the bay?`}
      says="It is not shown any more. In the bay, Taken out brings it back."
    >
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={() => void takeOut()}>
          Take it out
        </Button>
        <Button onClick={() => onOpenChange(false)}>Leave it</Button>
      </div>
    </Modal>
  );
}
