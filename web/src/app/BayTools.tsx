import {
  ArchiveRestore,
  Download,
  GraduationCap,
  Menu,
  NotebookPen,
  Plus,
  Upload,
  Wrench,
} from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useRef } from "react";
import { Link } from "react-router";
import { Button } from "../ui/Button";
import { EnglishItems } from "./EnglishItems";

const LOOK =
  "settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3 py-1.5 hover:bg-paper";

const PLACES = [
  { to: "/parts", icon: Wrench, name: "Parts library" },
  { to: "/log", icon: NotebookPen, name: "Log" },
  { to: "/practice", icon: GraduationCap, name: "Practice" },
] as const;

type BayToolsProps = {
  onNew: () => void;
  onFile: (file: File | undefined) => void;
  onRemoved: () => void;
};

/** A new job, files in and out, and the other rooms. */
export function BayTools({ onNew, onFile, onRemoved }: BayToolsProps) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <div className="flex flex-wrap gap-2">
      <Button look="strong" onClick={onNew}>
        <Plus size={18} aria-hidden />
        New job
      </Button>
      <Button onClick={() => file.current?.click()}>
        <Upload size={18} aria-hidden />
        Open a job file
      </Button>
      {PLACES.map(({ to, icon: Icon, name }) => (
        <Link key={to} to={to} className={LOOK}>
          <Icon size={18} aria-hidden />
          {name}
        </Link>
      ))}
      <a href="/api/v1/shop.zip" download className={LOOK}>
        <Download size={18} aria-hidden />
        Download all jobs (zip)
      </a>
      <Button onClick={onRemoved}>
        <ArchiveRestore size={18} aria-hidden />
        Removed jobs
      </Button>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button>
            <Menu size={18} aria-hidden />
            More
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-30 min-w-56 border-2 border-ink bg-slate text-ink"
          >
            <EnglishItems />
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <input
        ref={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        className="hidden"
        aria-label="Job file"
        onChange={(event) => onFile(event.target.files?.[0])}
      />
    </div>
  );
}
