import { lazy, Suspense, useEffect } from "react";
import { Link, Navigate, Route, Routes } from "react-router";
import { readTape } from "../job/readTape";
import { useSettings } from "../ui/settings";
import { TapeReading } from "../ui/tapeReading";
import { Bay } from "./Bay";
import { JobScreen } from "./JobScreen";

const Log = lazy(async () => ({ default: (await import("./Log")).Log }));
const Parts = lazy(async () => ({ default: (await import("./Parts")).Parts }));
const Practice = lazy(async () => ({ default: (await import("./Practice")).Practice }));

export function App() {
  const theme = useSettings((s) => s.theme);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  return (
    <TapeReading value={readTape}>
      <Suspense fallback={null}>
        <Routes>
          <Route path="/" element={<Bay />} />
          <Route path="/parts" element={<Parts />} />
          <Route path="/log" element={<Log />} />
          <Route path="/practice" element={<Practice />} />
          <Route path="/jobs/:id" element={<Navigate to="tape" replace />} />
          <Route path="/jobs/:id/:stage" element={<JobScreen />} />
          <Route
            path="*"
            element={
              <main className="grid h-full place-content-center gap-3 p-6 text-center">
                <h1 className="font-bold text-[34px]">Page not found</h1>
                <Link className="underline" to="/">
                  Back to the jobs
                </Link>
              </main>
            }
          />
        </Routes>
      </Suspense>
    </TapeReading>
  );
}
