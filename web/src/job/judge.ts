import { answer, client, type Schemas } from "../api/client";
import type { Fault } from "../ui/useTypedField";

type Kind = Schemas["FigureKind"];

/** Asks the server what is wrong with a figure: how one is written is the core's alone. */
const judge =
  (kind: Kind) =>
  async (text: string): Promise<Fault | undefined> => {
    if (text.trim() === "") return undefined;
    const result = await answer(client.GET("/api/v1/figure", { params: { query: { text, kind } } }));
    if ("data" in result) return result.data.wrong && { fault: result.data.wrong.message };
    if ("silent" in result) {
      return { fault: "No answer from the program. What you typed is saved on this device.", silent: true };
    }
    return { fault: result.problem.detail };
  };

/** One judge a kind, the same at every call, so that a field is not judged anew when it is drawn anew. */
export const JUDGES: Record<Kind, (text: string) => Promise<Fault | undefined>> = {
  angle: judge("angle"),
  weight: judge("weight"),
  spring_rate: judge("spring_rate"),
  roll_rate: judge("roll_rate"),
  number: judge("number"),
  torque: judge("torque"),
  thread: judge("thread"),
};
