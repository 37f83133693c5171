//! The bar as found, the plans, the rounds.

use std::fmt::Display;

use derecho_core::parts::{BracketEnd, Hole};

use super::checker::{Checker, LONGEST_LIST, LONGEST_NAME, LONGEST_NOTE, MOST_HOLES};
use crate::{AdjusterForm, Bar, BarId, DragLinkId, HoleChoice, Job, PlanForm, Rig, ThreadedEndForm};

impl Checker {
    pub(super) fn bar(&mut self, bar: &Bar, rig: &Rig) {
        let at = "/setups/found/bar";
        self.size(format_args!("{at}/length"), bar.length.as_ref());
        self.height_above(format_args!("{at}/frame_eye_height"), bar.frame_eye_height.as_ref());
        self.height_above(format_args!("{at}/axle_eye_height"), bar.axle_eye_height.as_ref());
        self.distance(format_args!("{at}/heights_good_to"), bar.heights_good_to.as_ref());
        self.height(format_args!("{at}/height"), &bar.height, rig);
    }

    pub(super) fn adjuster(&mut self, adjuster: &AdjusterForm) {
        let at = "/setups/found/adjuster";
        self.range(at, adjuster.made_min.as_ref(), adjuster.made_max.as_ref());
        for (name, end) in [("first", &adjuster.first), ("second", &adjuster.second)] {
            self.threaded_end(format_args!("{at}/{name}"), end);
        }
    }

    pub(super) fn threaded_end(&mut self, at: impl Display + Copy, end: &ThreadedEndForm) {
        for (field, entry) in [
            ("engagement", &end.engagement),
            ("shank", &end.shank),
            ("tapped_depth", &end.tapped_depth),
            ("witness", &end.witness),
        ] {
            self.distance(format_args!("{at}/{field}"), entry.as_ref());
        }
        self.hand(format_args!("{at}/hand"), end.thread.as_ref(), end.hand);
        if let (Some(engagement), Some(shank)) = (&end.engagement, &end.shank)
            && engagement.number().nanometres() > shank.number().nanometres()
        {
            self.fault(
                format!("{at}/engagement"),
                "more_thread_than_shank",
                "That is more thread engaged than the shank has. Check both.",
            );
        }
    }

    /// The holes of one bracket.
    pub(super) fn holes(&mut self, pointer: impl Display + Copy, holes: &[Hole]) {
        self.list(pointer, holes.len(), MOST_HOLES);
        for (index, hole) in holes.iter().enumerate() {
            let at = format!("{pointer}/{index}/name");
            self.text(&at, &hole.name, LONGEST_NAME);
            if hole.name.trim().is_empty() {
                self.fault(&at, "name_missing", "A hole needs a name, such as hole 2.");
            }
        }
    }

    /// A hole that is pointed at is one of a bracket at that end: any other would be another plan unsaid.
    fn hole(&mut self, job: &Job, end: BracketEnd, choice: &HoleChoice, (at, remedy): (&str, &str)) {
        let HoleChoice { bracket, hole } = choice;
        let found = &job.setups.found;
        let now = if end == BracketEnd::Frame { &found.frame_holes } else { &found.axle_holes };
        let part = job.bracket.brackets.iter().find(|part| part.end == end && part.id == *bracket);
        let holes = if bracket.is_empty() { Some(now) } else { part.map(|part| &part.holes) };
        let Some(holes) = holes else {
            let which = if end == BracketEnd::Frame { "frame" } else { "axle" };
            self.fault(
                format_args!("{at}/bracket"),
                "unknown_bracket",
                format!("No bracket with the id {:?} on the {which}. {remedy}", bracket.as_str()),
            );
            return;
        };
        if !hole.is_empty() && !holes.iter().any(|row| row.id == *hole) {
            self.fault(
                format_args!("{at}/hole"),
                "unknown_hole",
                format!("No hole with the id {:?}. {remedy}", hole.as_str()),
            );
        }
    }

    fn bar_of_job(&mut self, job: &Job, bar: &BarId, (at, remedy): (&str, &str)) {
        if !bar.is_empty() && !job.bracket.bars.iter().any(|part| part.id == *bar) {
            let says = format!("No bar with the id {:?} in this job's parts. {remedy}", bar.as_str());
            self.fault(at, "unknown_bar", says);
        }
    }

    fn drag_link_of_job(&mut self, job: &Job, link: &DragLinkId, (at, remedy): (&str, &str)) {
        if !link.is_empty() && !job.bracket.drag_links.iter().any(|part| part.id == *link) {
            let says =
                format!("No drag link part with the id {:?} in this job's parts. {remedy}", link.as_str());
            self.fault(at, "unknown_drag_link", says);
        }
    }

    /// What a plan points at is there.
    fn plan(&mut self, job: &Job, plan: &PlanForm, at: &str, remedy: &str) {
        for (end, name, choice) in
            [(BracketEnd::Frame, "frame", &plan.frame), (BracketEnd::Axle, "axle", &plan.axle)]
        {
            if let Some(choice) = choice {
                self.hole(job, end, choice, (&format!("{at}/{name}"), remedy));
            }
        }
        self.bar_of_job(job, &plan.bar, (&format!("{at}/bar"), remedy));
        self.drag_link_of_job(job, &plan.drag_link, (&format!("{at}/drag_link"), remedy));
    }

    /// Plans that are followed have everything they name; one that names what is gone is kept to be read alone.
    fn plans(&mut self, job: &Job) {
        let plans = &job.setups.plans;
        let remedy = "The chosen plan uses it: choose another plan on the Bracket screen first.";
        for (at, plan, remedy) in [
            ("chosen", &plans.chosen, remedy),
            ("trial", &plans.trial, "Choose one of the bracket's holes, or leave the trial out."),
        ] {
            let Some(plan) = plan else { continue };
            let at = format!("/setups/plans/{at}");
            self.plan(job, plan, &at, remedy);
            if let Some(gone) = plan.gone.first() {
                let says = format!("{gone} is not among this job's parts any more. Choose another plan.");
                self.fault(format_args!("{at}/gone"), "plan_gone", says);
            }
        }
        self.list("/setups/plans/kept", plans.kept.len(), LONGEST_LIST);
        for (index, plan) in plans.kept.iter().enumerate() {
            let at = format!("/setups/plans/kept/{index}");
            self.plan(job, plan, &at, "Take this plan out, or the part in again.");
            self.list(format_args!("{at}/gone"), plan.gone.len(), MOST_HOLES);
        }
        self.size("/setups/plans/sway/link", plans.sway.link.as_ref());
        self.arm_hole("/setups/plans/sway/hole", plans.sway.hole.as_ref(), &job.sway);
        self.list("/setups/plans/parts", plans.parts.len(), MOST_HOLES);
        self.list("/setups/plans/not_here", plans.not_here.len(), MOST_HOLES);
    }

    fn rounds(&mut self, job: &Job) {
        let rounds = &job.setups.rounds;
        self.list("/setups/rounds", rounds.len(), LONGEST_LIST);
        self.ids("/setups/rounds", rounds.iter().map(|round| round.id.as_str()));
        for (index, round) in rounds.iter().enumerate() {
            let at = |field: &str| format!("/setups/rounds/{index}/{field}");
            self.size(&at("length"), round.length.as_ref());
            self.size(&at("sway_link"), round.sway_link.as_ref());
            self.size(&at("cut/each_end"), round.cut.as_ref().map(|cut| &cut.each_end));
            self.distance(&at("first_engagement"), round.first_engagement.as_ref());
            self.distance(&at("second_engagement"), round.second_engagement.as_ref());
            self.list(&at("parts"), round.parts.len(), MOST_HOLES);
            self.text(&at("by"), &round.by, LONGEST_NAME);
            self.text(&at("note"), &round.note, LONGEST_NOTE);
            let remedy = "It was installed in this adjustment: add it again.";
            if let Some(bar) = &round.bar {
                self.bar_of_job(job, bar, (&at("bar"), remedy));
            }
            self.drag_link_of_job(job, &round.drag_link, (&at("drag_link"), remedy));
            self.arm_hole(&at("sway_hole"), round.sway_hole.as_ref(), &job.sway);
            self.size(&at("drag_link_length"), round.drag_link_length.as_ref());
            if let Some(cause) = &round.cause {
                self.text(&at("cause/note"), &cause.note, LONGEST_NOTE);
            }
            for (place, moved) in round.moved.iter().enumerate() {
                self.hole(job, moved.end, &moved.to, (&at(&format!("moved/{place}/to")), remedy));
            }
            let whole = round.moved.iter().all(|moved| moved.by_mm.iter().all(|mm| mm.abs() <= 10_000.0));
            if !whole {
                self.fault(
                    at("moved"),
                    "no_number",
                    "A move is in millimeters each way, ten meters at most.",
                );
            }
        }
    }

    /// As found, planned, fitted.
    pub(super) fn setups(&mut self, job: &Job) {
        let found = &job.setups.found;
        self.bar(&found.bar, &job.rig);
        self.adjuster(&found.adjuster);
        for (at, holes) in [
            ("/setups/found/frame_holes", &found.frame_holes),
            ("/setups/found/axle_holes", &found.axle_holes),
        ] {
            self.holes(at, holes);
            self.ids(at, holes.iter().map(|hole| hole.id.as_str()));
        }
        self.plans(job);
        self.rounds(job);
    }
}
