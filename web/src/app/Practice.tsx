import { useQuery } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSettings } from "../ui/settings";

type LessonLine = Schemas["LessonLine"];

/** The practice bay: lessons on vehicles that exist only in the program. */
export function Practice() {
  const { data } = useQuery({
    queryKey: ["lessons"],
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/practice/lessons"));
      return "data" in result ? result.data : [];
    },
  });
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
      <header className="flex items-center gap-4 border-ink border-b-2 px-4 py-2">
        <Link to="/" aria-label="Back to the jobs" className="grid size-11 place-content-center">
          <ArrowLeft size={22} aria-hidden />
        </Link>
        <h1 className="font-bold text-[26px] leading-none">Practice</h1>
      </header>
      <main className="overflow-y-auto p-4">
        <p className="max-w-[70ch] pb-3">
          Practice vehicles exist only in this program; each has a hidden fault. Measure, decide, adjust and
          measure again on the normal screens. When you say you are done, you see the truth next to what you
          believed. Nothing here gets into your jobs.
        </p>
        <ol className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3" data-lessons={data?.length ?? 0}>
          {data?.map((lesson, index) => (
            <Lesson key={lesson.planted} lesson={lesson} number={index + 1} />
          ))}
        </ol>
      </main>
    </div>
  );
}

function Lesson({ lesson, number }: { lesson: LessonLine; number: number }) {
  const go = useNavigate();
  const unit = useSettings((s) => s.units);
  const [fault, setFault] = useState<string | null>(null);
  const begin = async () => {
    const body = { planted: lesson.planted, unit };
    const result = await answer(client.POST("/api/v1/practice/lessons", { body }));
    if ("data" in result) void go(`/jobs/${result.data.job}/tape`);
    else setFault("problem" in result ? result.problem.detail : "No answer. Press again.");
  };
  return (
    <li className="grid content-between gap-3 border-[1.5px] border-ink bg-slate p-4">
      <div>
        <h2 className="font-bold text-[21px] leading-tight">
          {number}. {lesson.title}
        </h2>
        <p className="mt-1">{lesson.begins}</p>
      </div>
      {fault && <Notice kind="refused">{fault}</Notice>}
      <div>
        <Button look="strong" onClick={() => void begin()} aria-label={`Begin: ${lesson.title}`}>
          Begin
        </Button>
      </div>
    </li>
  );
}
