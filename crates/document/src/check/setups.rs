//! The bar as found, the plans, the rounds.

use std::fmt::Display;

use derecho_core::parts::{BracketEnd, Hole};

use super::checker::{Checker, LONGEST_LIST, LONGEST_NAME, LONGEST_NOTE, MOST_HOLES};
use crate::{AdjusterForm, Bar, HoleChoice, Job, PlanForm, Rig, ThreadedEndForm};

impl Checker {
    pub(super) fn bar(&mut self, bar: &Bar, rig: &Rig) {
        let at = "/setups/found/bar";
        self.size(format_args!("{at}/length"), bar.length.as_ref());
        for (field, entry) in [
            ("frame_eye_height", &bar.frame_eye_height),
            ("axle_eye_height", &bar.axle_eye_height),
            ("heights_good_to", &bar.heights_good_to),
        ] {
            self.distance(format_args!("{at}/{field}"), entry.as_ref());
        }
        self.height_name(format_args!("{at}/height"), &bar.height, rig);
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
                "More thread is in than the shank has. Check both.",
            );
        }
    }

    /// The holes of one bracket, each with its own name.
    pub(super) fn holes(&mut self, pointer: impl Display + Copy, holes: &[Hole]) {
        self.list(pointer, holes.len(), MOST_HOLES);
        for (index, hole) in holes.iter().enumerate() {
            let at = format!("{pointer}/{index}/name");
            self.text(&at, &hole.name, LONGEST_NAME);
            if hole.name.trim().is_empty() {
                self.fault(&at, "name_missing", "A hole needs a name, such as hole 2.");
            } else if holes[..index].iter().any(|other| other.name == hole.name) {
                self.fault(&at, "name_twice", "Two holes of this bracket have this name. Give each its own.");
            }
        }
    }

    /// A plan names holes of brackets that are there: a name that is gone would be another plan unsaid.
    fn holes_of_plan(&mut self, job: &Job, plan: &PlanForm, at: &str, remedy: &str) {
        let found = &job.setups.found;
        for (end, name, choice) in
            [(BracketEnd::Frame, "frame", &plan.frame), (BracketEnd::Axle, "axle", &plan.axle)]
        {
            let Some(HoleChoice { bracket, hole }) = choice else { continue };
            let now = if end == BracketEnd::Frame { &found.frame_holes } else { &found.axle_holes };
            let holes = match bracket.as_str() {
                "" => Some(now),
                name => {
                    let part = job.bracket.brackets.iter().find(|part| part.end == end && part.name == name);
                    part.map(|part| &part.holes)
                }
            };
            if holes.is_none() {
                self.fault(
                    format!("/setups/plans/{at}/{name}/bracket"),
                    "unknown_bracket",
                    format!("There is no bracket called {bracket:?} on the {name} here. {remedy}"),
                );
                continue;
            }
            let there = hole.is_empty() || holes.is_some_and(|holes| holes.iter().any(|h| h.name == *hole));
            if !there {
                self.fault(
                    format!("/setups/plans/{at}/{name}/hole"),
                    "unknown_hole",
                    format!("There is no hole called {hole:?} here. {remedy}"),
                );
            }
        }
    }

    /// The chosen plan: its holes, its bar, its drag-link part.
    fn chosen(&mut self, job: &Job, plan: &PlanForm) {
        let remedy = "The chosen plan uses it: choose another one in stage Bracket first.";
        self.holes_of_plan(job, plan, "chosen", remedy);
        let parts = &job.bracket;
        let bars = parts.bars.iter().any(|part| part.name == plan.bar);
        if !plan.bar.is_empty() && !bars {
            let says = format!("There is no bar called {:?} among this job's parts. {remedy}", plan.bar);
            self.fault("/setups/plans/chosen/bar", "unknown_bar", says);
        }
        let links = parts.drag_links.iter().any(|part| part.name == plan.drag_link);
        if !plan.drag_link.is_empty() && !links {
            let link = &plan.drag_link;
            let says = format!("There is no drag-link part called {link:?} among this job's parts. {remedy}");
            self.fault("/setups/plans/chosen/drag_link", "unknown_drag_link", says);
        }
    }

    /// As found, planned, fitted.
    pub(super) fn setups(&mut self, job: &Job) {
        let setups = &job.setups;
        self.bar(&setups.found.bar, &job.rig);
        self.adjuster(&setups.found.adjuster);
        self.holes("/setups/found/frame_holes", &setups.found.frame_holes);
        self.holes("/setups/found/axle_holes", &setups.found.axle_holes);
        if let Some(trial) = &setups.plans.trial {
            self.holes_of_plan(job, trial, "trial", "Pick one of the bracket's.");
        }
        if let Some(chosen) = &setups.plans.chosen {
            self.chosen(job, chosen);
        }
        self.list("/setups/plans/kept", setups.plans.kept.len(), LONGEST_LIST);
        self.size("/setups/plans/sway/link", setups.plans.sway.link.as_ref());
        self.list("/setups/rounds", setups.rounds.len(), LONGEST_LIST);
        for (index, round) in setups.rounds.iter().enumerate() {
            let at = |field: &str| format!("/setups/rounds/{index}/{field}");
            self.size(&at("length"), round.length.as_ref());
            self.size(&at("sway_link"), round.sway_link.as_ref());
            self.size(&at("cut/each_end"), round.cut.as_ref().map(|cut| &cut.each_end));
            self.distance(&at("first_engagement"), round.first_engagement.as_ref());
            self.distance(&at("second_engagement"), round.second_engagement.as_ref());
            self.text(&at("by"), &round.by, LONGEST_NAME);
            self.text(&at("note"), &round.note, LONGEST_NOTE);
            if let Some(name) = round.bar.as_ref().filter(|name| !name.is_empty())
                && !job.bracket.bars.iter().any(|part| part.name == *name)
            {
                self.fault(
                    at("bar"),
                    "unknown_bar",
                    format!("There is no bar called {name:?} among this job's parts. Take it in again, or leave this empty for the bar as found."),
                );
            }
            let whole = round.moved.iter().all(|moved| moved.by_mm.iter().all(|mm| mm.abs() <= 10_000.0));
            if !whole {
                self.fault(
                    at("moved"),
                    "no_number",
                    "A move is a number of millimetres each way, at most ten metres.",
                );
            }
        }
    }
}
