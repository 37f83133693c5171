import { CircleHelp, type LucideIcon, OctagonAlert, Ruler, TriangleAlert } from "lucide-react";
import { Tabs } from "radix-ui";
import { type ReactNode, useRef, useState } from "react";
import { type Face, useOpened } from "./opened";
import { useReveal } from "./reveal";
import type { Sign } from "./sign";

export type Section = {
  value: string;
  label: string;
  sign: Sign;
  results?: ReactNode;
  inputs?: ReactNode;
  /** How many figures it still wants. */
  wanted?: number;
};

type SectionsProps = {
  label: string;
  /** The stage they belong to. */
  of: string;
  sections: readonly Section[];
  /** The one that is open before somebody picked one. */
  first?: string | undefined;
  /** Whether their names stay in sight while one reads. */
  sticky?: boolean;
};

const SIGNS = {
  good: { icon: undefined, look: "text-good" },
  mind: { icon: TriangleAlert, look: "text-axle" },
  bad: { icon: OctagonAlert, look: "text-axle font-semibold" },
  measure: { icon: Ruler, look: "text-frame" },
  plain: { icon: undefined, look: "text-muted" },
} satisfies Record<Sign["kind"], { icon: LucideIcon | undefined; look: string }>;

/** What a stage has to say, one part of it open at a time; what it asks apart from what it answers. */
export function Sections({ label, of, sections, first, sticky = true }: SectionsProps) {
  const picked = useOpened((s) => s.sections[of]);
  const openSection = useOpened((s) => s.openSection);
  const open = sections.some((section) => section.value === picked) ? picked : (first ?? sections[0]?.value);
  if (open === undefined) return null;
  return (
    <Tabs.Root value={open} onValueChange={(value) => openSection(of, value)} activationMode="manual">
      <Tabs.List
        aria-label={label}
        className={`${sticky ? "sticky -top-4 z-10" : ""} -mx-1 flex flex-wrap gap-x-0.5 border-ink border-b-2 bg-slate pt-1`}
        data-sections
      >
        {sections.map((section) => (
          <Tabs.Trigger
            key={section.value}
            value={section.value}
            className="settle min-h-11 grow scroll-mt-20 border-transparent border-b-[5px] group px-1 pt-1 text-left leading-tight hover:bg-paper data-[state=active]:border-ink"
            data-section-name={section.value}
          >
            {/* As wide as it is in bold, so that no tab moves when it is picked. */}
            <span
              className="grid whitespace-nowrap after:invisible after:h-0 after:overflow-hidden after:font-bold after:content-[attr(data-name)] group-data-[state=active]:font-bold"
              data-name={section.label}
            >
              {section.label}
            </span>
            <SignWord sign={section.sign} />
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {sections.map((section) => (
        <SectionBody key={section.value} of={of} section={section} />
      ))}
    </Tabs.Root>
  );
}

/** How it stands, as a word with a sign. */
export function SignWord({ sign }: { sign: Sign }) {
  const { icon: Icon, look } = SIGNS[sign.kind];
  return (
    <span className={`flex items-center gap-1 whitespace-nowrap text-[14px] ${look}`} data-sign={sign.kind}>
      {Icon && <Icon size={13} aria-hidden />}
      {sign.word}
    </span>
  );
}

function SectionBody({ of, section }: { of: string; section: Section }) {
  const host = useRef<HTMLDivElement>(null);
  const openSection = useOpened((s) => s.openSection);
  useReveal(host, () => openSection(of, section.value));
  return (
    <Tabs.Content
      ref={host}
      value={section.value}
      forceMount
      className="mt-3 grid gap-3 data-[state=inactive]:hidden"
      data-section={section.value}
      data-reveals
    >
      {section.inputs ? <Faces of={of} section={section} /> : section.results}
    </Tabs.Content>
  );
}

const wantedOf = (wanted: number | undefined) => (wanted ? `Inputs, ${wanted} missing` : "Inputs");

/** The two faces of a section, as a pair of words at its head. */
function Faces({ of, section }: { of: string; section: Section }) {
  const picked = useOpened((s) => s.faces[`${of}/${section.value}`]);
  const showFace = useOpened((s) => s.showFace);
  // What is shown stays until somebody turns it: an answer that comes while one types takes no field away.
  const [begun] = useState<Face>(section.results && section.sign.kind !== "measure" ? "results" : "inputs");
  const face = section.results ? (picked ?? begun) : "inputs";
  const words: [Face, string][] = [
    ["results", "Results"],
    ["inputs", wantedOf(section.wanted)],
  ];
  return (
    <Tabs.Root value={face} onValueChange={(value) => showFace(of, section.value, value as Face)}>
      <Tabs.List
        aria-label={`${section.label}: results or inputs`}
        className={section.results ? "flex gap-1" : "hidden"}
      >
        {words.map(([value, word]) => (
          <Tabs.Trigger
            key={value}
            value={value}
            className="settle inline-flex min-h-11 items-center gap-1.5 rounded-[3px] px-3 text-muted hover:bg-paper data-[state=active]:bg-paper data-[state=active]:font-semibold data-[state=active]:text-ink"
            data-face-name={value}
          >
            {value === "inputs" && !!section.wanted && (
              <CircleHelp size={16} aria-hidden className="text-frame" />
            )}
            {word}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {words.map(([value]) => (
        <FaceBody key={value} of={of} section={section} face={value} />
      ))}
    </Tabs.Root>
  );
}

function FaceBody({ of, section, face }: { of: string; section: Section; face: Face }) {
  const host = useRef<HTMLDivElement>(null);
  const showFace = useOpened((s) => s.showFace);
  useReveal(host, () => showFace(of, section.value, face));
  return (
    <Tabs.Content
      ref={host}
      value={face}
      forceMount
      className="mt-2 grid gap-3 data-[state=inactive]:hidden"
      data-face={face}
      data-reveals
    >
      {section[face]}
    </Tabs.Content>
  );
}
