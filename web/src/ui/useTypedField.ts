import { useCallback, useEffect, useRef, useState } from "react";
import { drafts } from "./drafts";
import { useUnread } from "./unread";

export type Fault = {
  fault: string;
  start?: number | undefined;
  end?: number | undefined;
  /** Nobody answered: it is tried again. */
  silent?: boolean;
};

export type Judged<T> = { value: T } | Fault;

const AGAIN_MS = 2000;

type TypedField<T> = {
  job: string;
  pointer: string;
  /** Where a draft is kept, where the pointer counts rows that come and go: by the row. */
  kept?: string | undefined;
  /** The text of the stored value. */
  stored: string;
  /** Reads a text; the empty text never comes here. */
  judge: (text: string) => Promise<Judged<T>>;
  commit: (value: T | undefined) => void;
};

/**
 * The typed draft apart from the committed value: partial input is allowed and kept on
 * this device; it is committed on Enter or when the field is left, and Escape brings the
 * last good value back.
 */
export function useTypedField<T>({ job, pointer, kept, stored, judge, commit }: TypedField<T>) {
  const place = kept ?? pointer;
  const [draft, setDraft] = useState<string | null>(() => drafts.get(job, place));
  /** The value that somebody else put here while this draft was typed. */
  const [meanwhile, setMeanwhile] = useState<string | null>(null);
  const [judged, setJudged] = useState<Judged<T> | null>(null);
  const latest = useRef(draft);
  const mark = useUnread((s) => s.mark);
  const field = `${job}${pointer}`;
  latest.current = draft;
  // Judging takes a moment, in which a neighbour may have been committed: what is put is put into the
  // document as it is then, not as it was when this field was left.
  const put = useRef(commit);
  put.current = commit;

  const type = useCallback(
    (text: string) => {
      drafts.keep(job, place, text, stored);
      latest.current = text;
      setDraft(text);
    },
    [job, place, stored],
  );

  const drop = useCallback(() => {
    drafts.drop(job, place);
    latest.current = null;
    mark(field, false);
    setDraft(null);
    setJudged(null);
    setMeanwhile(null);
  }, [job, place, field, mark]);

  const judging = useRef<{ text: string; outcome: Promise<boolean> } | null>(null);
  const sure = useRef(false);
  const settle = useCallback((): Promise<boolean> => {
    const text = latest.current;
    const over = drafts.begunOver(job, place);
    if (text !== null && over !== null && !sure.current && over.trim() !== stored.trim()) {
      // Changed elsewhere since this was begun: never written over unasked.
      if (text.trim() !== stored.trim()) {
        setMeanwhile(stored);
        return Promise.resolve(false);
      }
    }
    // Enter leaves the field, which settles it too: one text is judged once.
    if (text !== null && judging.current?.text === text) return judging.current.outcome;
    const outcome = (async () => {
      if (text === null) return true;
      if (text.trim() === stored.trim()) {
        drop();
        return true;
      }
      if (text.trim() === "") {
        drop();
        put.current(undefined);
        return true;
      }
      const result = await judge(text);
      if (latest.current !== text) return false;
      if ("fault" in result) {
        setJudged(result);
        mark(field, result.silent === true);
        if (result.silent) setTimeout(() => latest.current === text && void again.current(), AGAIN_MS);
        return false;
      }
      drop();
      put.current(result.value);
      return true;
    })();
    if (text !== null) {
      judging.current = { text, outcome };
      void outcome.finally(() => {
        judging.current = null;
      });
    }
    return outcome;
  }, [job, place, stored, judge, drop, field, mark]);
  /** Writes what was typed here over what was put here elsewhere. */
  const keepMine = useCallback(() => {
    sure.current = true;
    setMeanwhile(null);
    void settle().finally(() => {
      sure.current = false;
    });
  }, [settle]);
  const again = useRef(settle);
  again.current = settle;

  // What was typed before a reload is taken up again, if it is sound.
  const settleOnce = useRef(settle);
  useEffect(() => {
    void settleOnce.current();
  }, []);

  // Left by another address, the browser's Back say, the field saw no blur. A row that was taken out stays on the
  // address, and what was typed into it goes with it.
  useEffect(() => {
    const address = window.location.pathname;
    return () => {
      if (window.location.pathname !== address) void again.current();
    };
  }, []);

  // Reads along while typing, so that a mistake shows at once.
  useEffect(() => {
    if (draft === null || draft.trim() === "") {
      setJudged(null);
      return;
    }
    let stale = false;
    const timer = setTimeout(async () => {
      const result = await judge(draft);
      if (!stale) setJudged(result);
    }, 120);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [draft, judge]);

  return { text: draft ?? stored, isDraft: draft !== null, judged, meanwhile, type, drop, settle, keepMine };
}
