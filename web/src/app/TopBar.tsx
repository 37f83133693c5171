import {
  ArrowLeftRight,
  Download,
  History,
  Keyboard,
  LayoutGrid,
  ListChecks,
  Menu,
  Moon,
  Printer,
  Redo2,
  Ruler,
  Sun,
  Trash2,
  Undo2,
} from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { flipEnds } from "../elevation/walk/useLook";
import { type SaveState, useSession } from "../job/session";
import { useJob } from "../job/useJob";
import { Button } from "../ui/Button";
import { useSettings } from "../ui/settings";
import { useUnread } from "../ui/unread";
import { EnglishItems } from "./EnglishItems";
import { HistoryDialog } from "./HistoryDialog";
import { InstrumentsDialog } from "./InstrumentsDialog";
import { RemoveDialog } from "./RemoveDialog";

const SIGNS = {
  idle: (time: string) => `saved ${time}`,
  sending: () => "saving…",
  waiting: () => "saved on this device, no answer from the program yet",
  refused: () => "not all saved",
  asked: () => "changed somewhere else",
  gone: () => "removed somewhere else",
} satisfies Record<SaveState, (time: string) => string>;

/** What the sign says: what is not safe comes first. */
function sign(state: SaveState, unkept: boolean, unread: number, time: string): string {
  if (state !== "idle" && unkept) return "not saved, and this device can't keep it: leave this window open";
  if (state === "idle" && unread > 0) return "typed but not checked: no answer";
  return SIGNS[state](time);
}

/** The job's name, whether it is saved, and what the screen is looked at in. */
export function TopBar({ onKeys }: { onKeys: () => void }) {
  const { view, job } = useJob();
  const { state, step, unkept, why } = useSession();
  const unread = useUnread((s) => s.fields.size);
  const { units, face, flipUnits } = useSettings();
  const [historyShown, showHistory] = useState(false);
  const [instrumentsShown, showInstruments] = useState(false);
  const [removing, askRemove] = useState(false);
  const time = new Date(view.saved_at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  const busy = state !== "idle";
  return (
    <header className="flex items-center gap-2 border-ink border-b-2 px-2 py-1.5 sm:px-3">
      <Link
        to="/"
        aria-label="Back to the jobs"
        className="grid min-h-11 min-w-11 place-content-center border-[1.5px] border-transparent hover:border-line"
      >
        <LayoutGrid size={20} aria-hidden />
      </Link>
      <div className="min-w-0 flex-1">
        <h1 className="truncate font-bold text-[18px] sm:text-[21px] leading-tight">{job.title}</h1>
        <div className="truncate text-[15px] text-muted leading-tight">
          <span
            role="status"
            data-saved={state !== "idle" ? state : unread > 0 ? "unread" : "saved"}
            title={why ?? undefined}
          >
            {sign(state, unkept, unread, time)}
            {state === "idle" && why ? ` · ${why}` : ""}
          </span>
          <span className="hidden lg:inline">{job.rig?.vehicle ? ` · ${job.rig.vehicle}` : ""}</span>
        </div>
      </div>
      <Button className="max-sm:hidden" onClick={flipEnds} aria-label={`View from the ${face}, switch`}>
        from the {face}
        <ArrowLeftRight size={16} aria-hidden />
      </Button>
      <Button onClick={flipUnits} aria-label={`Units: ${units === "in" ? "inches" : "mm"}. Switch`}>
        {units === "in" ? "inches" : "mm"}
      </Button>
      <Button disabled={busy || !view.can_undo} onClick={() => void step("undo")} aria-label="Undo">
        <Undo2 size={18} aria-hidden />
        <span className="hidden md:inline">Undo</span>
      </Button>
      <Button
        className="max-sm:hidden"
        disabled={busy || !view.can_redo}
        onClick={() => void step("redo")}
        aria-label="Redo"
      >
        <Redo2 size={18} aria-hidden />
        <span className="hidden md:inline">Redo</span>
      </Button>
      <MoreMenu
        busy={busy}
        onHistory={() => showHistory(true)}
        onInstruments={() => showInstruments(true)}
        onRemove={() => askRemove(true)}
        onKeys={onKeys}
      />
      <InstrumentsDialog open={instrumentsShown} onOpenChange={showInstruments} />
      <RemoveDialog open={removing} onOpenChange={askRemove} />
      <HistoryDialog open={historyShown} onOpenChange={showHistory} />
    </header>
  );
}

const ITEM =
  "flex min-h-11 cursor-pointer items-center gap-2 px-3 outline-none data-[highlighted]:bg-marker data-[highlighted]:text-on-marker";

type MoreMenuProps = {
  busy: boolean;
  onHistory: () => void;
  onInstruments: () => void;
  onRemove: () => void;
  onKeys: () => void;
};

/** What is seldom wanted. */
function MoreMenu({ busy, onHistory, onInstruments, onRemove, onKeys }: MoreMenuProps) {
  const { view } = useJob();
  const step = useSession((s) => s.step);
  const { face, theme, pad, flipTheme, flipPad } = useSettings();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button aria-label="More">
          <Menu size={18} aria-hidden />
          <span className="hidden md:inline">More</span>
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-30 max-h-[var(--radix-dropdown-menu-content-available-height)] min-w-56 overflow-y-auto border-2 border-ink bg-slate text-ink"
        >
          <DropdownMenu.Item className={`${ITEM} sm:hidden`} onSelect={flipEnds}>
            <ArrowLeftRight size={18} aria-hidden />
            View from the {face}: switch
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={`${ITEM} sm:hidden`}
            disabled={busy || !view.can_redo}
            onSelect={() => void step("redo")}
          >
            <Redo2 size={18} aria-hidden />
            Redo
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} asChild>
            <Link to={`/jobs/${view.id}/start`}>
              <ListChecks size={18} aria-hidden />
              Change what this job is for
            </Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onHistory()}>
            <History size={18} aria-hidden />
            History
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={flipTheme}>
            {theme === "paper" ? <Moon size={18} aria-hidden /> : <Sun size={18} aria-hidden />}
            {theme === "paper" ? "Dark" : "Light"}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={flipPad}>
            <LayoutGrid size={18} aria-hidden />
            Fraction keypad: {pad ? "on" : "off"}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} asChild>
            <a href={`/api/v1/jobs/${view.id}/card.pdf`} target="_blank" rel="noreferrer">
              <Printer size={18} aria-hidden />
              Print the job card
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} asChild>
            <a href={`/api/v1/jobs/${view.id}/export`} download>
              <Download size={18} aria-hidden />
              Save job file
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onRemove()}>
            <Trash2 size={18} aria-hidden />
            Remove this job
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onInstruments()}>
            <Ruler size={18} aria-hidden />
            Instruments
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onKeys}>
            <Keyboard size={18} aria-hidden />
            Keyboard shortcuts
          </DropdownMenu.Item>
          <EnglishItems />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
