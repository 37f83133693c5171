import { useNavigate } from "react-router";
import type { StageName } from "../api/client";
import { goToField } from "../ui/reveal";
import { useJob } from "./useJob";

/** A way to a screen of this job, and there to the field of a place in the document where it has one. */
export function useGoTo() {
  const { view } = useJob();
  const navigate = useNavigate();
  return (stage: StageName, pointer?: string) => {
    navigate(`/jobs/${view.id}/${stage}`);
    if (pointer) goToField(pointer);
  };
}
