//! The parts of the plan: whether each is there and the right one; what a wrong one stops.

use super::message::{PartName, PartPlace};
use super::named::Named;
use crate::document::{Job, gate_keys};
use crate::message::{Label, Message};
use derecho_core::parts::BracketEnd;
use serde::Serialize;
use utoipa::ToSchema;

use super::situation::Situation;
use super::tasks::What;
use crate::bolt_up::message::BoltUpMessage;
use crate::document::hardpoints::TieRodSeats;
use crate::document::work::{PartRecord, PartState};
use crate::setups::PlannedGap;
use crate::setups::moves::side_of;
use crate::work::kinds::bracket::end_word;
use crate::work::kinds::{Change, KindStep, bracket, built_bar, drag_link, eyes, length, tie_rod};

/// A part of the plan.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PartLine {
    /// Its key.
    pub key: String,
    /// What it is called.
    #[schema(value_type = String)]
    pub name: Label,
    /// How many, and where it goes.
    pub where_says: Message,
    /// Whether it stops its steps: missing, or the wrong one.
    pub stops: bool,
    /// What to write to its supplier, where it stops.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub supplier_says: Option<Message>,
    #[serde(skip)]
    called: PartName,
}

impl PartLine {
    /// Its name, and how the keys of gates have it.
    pub(super) fn named(self) -> Named {
        let in_gate_keys = match self.called {
            PartName::Typed(name) => name,
            PartName::BuiltBar => gate_keys::BUILT_BAR.to_owned(),
            PartName::SwayBar => gate_keys::SWAY_BAR.to_owned(),
            PartName::SwayLinks => gate_keys::SWAY_LINKS.to_owned(),
            PartName::Disconnect => gate_keys::DISCONNECT.to_owned(),
            PartName::SecondShim => gate_keys::SECOND_SHIM.to_owned(),
            PartName::YLink => gate_keys::Y_LINK.to_owned(),
            PartName::TaperInserts => gate_keys::TAPER_INSERTS.to_owned(),
            PartName::Straps => gate_keys::STRAPS.to_owned(),
        };
        Named { in_gate_keys, name: self.name }
    }
}

const fn stops(record: &PartRecord) -> bool {
    matches!(record.state, Some(PartState::Missing | PartState::Wrong))
}

fn record<'a>(job: &'a Job, key: &str) -> Option<&'a PartRecord> {
    job.bolt_up.parts.iter().find(|record| record.key == key)
}

/// Key, name and place of every part.
fn planned(job: &Job, situation: &Situation) -> Vec<(String, PartName, Message)> {
    let mut parts = Vec::new();
    if let Some(bar) = situation.bar.as_ref().filter(|bar| bar.hangs.is_some()) {
        // Nobody orders or cuts by a length whose gap is still to be measured.
        let length = bar.length.filter(|_| situation.gap != PlannedGap::TapeAgain);
        let name = bar.hangs.clone().filter(|name| !name.is_empty());
        let name = name.map_or(PartName::BuiltBar, PartName::Typed);
        parts.push((
            "part/bar".to_owned(),
            name,
            BoltUpMessage::PartAt { place: PartPlace::TrackBar, length }.into(),
        ));
    }
    for work in &situation.ends {
        if let Some(part) = &work.bracket {
            let end = end_word(work.end);
            let place = PartPlace::Bracket {
                end: work.end,
                side: job.rig.frame_eye_side.map(|side| side_of(work.end, side)),
            };
            parts.push((
                format!("part/{end}-bracket"),
                PartName::Typed(part.name.clone()),
                BoltUpMessage::PartAt { place, length: None }.into(),
            ));
        }
    }
    if let Some(name) = situation.drag_link.as_ref().filter(|name| !name.is_empty()) {
        parts.push((
            "part/drag-link".to_owned(),
            PartName::Typed(name.clone()),
            BoltUpMessage::PartAt { place: PartPlace::DragLink, length: None }.into(),
        ));
    }
    parts.extend(situation.changes.iter().filter_map(of_a_change));
    parts
}

/// Key, name and place of what a kind of work puts in.
fn of_a_change(change: &Change) -> Option<(String, PartName, Message)> {
    let (key, name, place, length) = match change {
        Change::OnePiece | Change::Splined(_) | Change::TwoRate { .. } => {
            ("part/sway-bar", PartName::SwayBar, PartPlace::SwayBar, None)
        }
        Change::Links(links) => {
            ("part/sway-links", PartName::SwayLinks, PartPlace::SwayLinks, Some(links.length?))
        }
        Change::Disconnect(_) => (gate_keys::DISCONNECT, PartName::Disconnect, PartPlace::Disconnect, None),
        Change::Brace(brace) => ("part/brace", PartName::Typed(brace.name.clone()), PartPlace::Brace, None),
        Change::SecondShim(shim) => {
            (gate_keys::SECOND_SHIM, PartName::SecondShim, PartPlace::SecondShim, Some(shim.thickness))
        }
        Change::Straps(straps) => (gate_keys::STRAPS, PartName::Straps, PartPlace::Straps, straps.length),
        Change::TieRod(tie_rod) if tie_rod.seats == TieRodSeats::Inserts => {
            (gate_keys::TAPER_INSERTS, PartName::TaperInserts, PartPlace::TaperInserts, None)
        }
        Change::YLink(link) if link.converts => (gate_keys::Y_LINK, PartName::YLink, PartPlace::YLink, None),
        // Those of the bar, its brackets and the drag link are named where their setup is.
        Change::YLink(_)
        | Change::TieRod(_)
        | Change::Length(_)
        | Change::Eyes(_)
        | Change::Bracket(_)
        | Change::BuiltBar(_)
        | Change::BarSwap
        | Change::DragLink(_) => return None,
    };
    Some((key.to_owned(), name, BoltUpMessage::PartAt { place, length }.into()))
}

/// Every part of the plan, a person's own behind them.
pub(super) fn lines(job: &Job, situation: &Situation) -> Vec<PartLine> {
    let own = job.bolt_up.parts.iter().filter(|record| record.key.starts_with("own/"));
    let own = own.map(|record| (record.key.clone(), PartName::Typed(record.name.clone()), Message::NOTHING));
    planned(job, situation)
        .into_iter()
        .chain(own)
        .map(|(key, name, where_says)| {
            let stopping = record(job, &key).filter(|record| stops(record));
            PartLine {
                supplier_says: stopping.map(|record| {
                    BoltUpMessage::Supplier {
                        part: record.clone(),
                        name: name.clone(),
                        vehicle: job.rig.vehicle.clone(),
                    }
                    .into()
                }),
                stops: stopping.is_some(),
                where_says,
                key,
                name: BoltUpMessage::Part(name.clone()).into(),
                called: name,
            }
        })
        .collect()
}

/// The part a step cannot do without.
const fn needs(what: &What) -> Option<&'static str> {
    match what {
        What::Kind(step) => needs_of_a_kind(*step),
        _ => None,
    }
}

/// The same of the kinds of work. What is taken out can come out before its part is there, and should not: nobody wants a
/// vehicle on stands that waits for a box.
const fn needs_of_a_kind(step: KindStep) -> Option<&'static str> {
    match step {
        KindStep::BarSwap(_)
        | KindStep::Length(length::Step::Bench)
        | KindStep::Eyes(eyes::Step::ByHand(_))
        | KindStep::BuiltBar(built_bar::Step::Tack) => Some("part/bar"),
        KindStep::Bracket(bracket::Step::ByHand(end) | bracket::Step::Tack(end)) => Some(match end {
            BracketEnd::Frame => "part/frame-bracket",
            BracketEnd::Axle => "part/axle-bracket",
        }),
        KindStep::DragLink(drag_link::Step::On) => Some("part/drag-link"),
        KindStep::Length(_)
        | KindStep::Eyes(_)
        | KindStep::BuiltBar(_)
        | KindStep::Bracket(_)
        | KindStep::DragLink(_)
        | KindStep::TieRod(tie_rod::Step::Off) => None,
        KindStep::OnePiece(_) | KindStep::Splined(_) | KindStep::TwoRate(_) => Some("part/sway-bar"),
        KindStep::Links(_) => Some("part/sway-links"),
        KindStep::Disconnect(_) => Some(gate_keys::DISCONNECT),
        KindStep::Brace(_) => Some("part/brace"),
        KindStep::SecondShim(_) => Some(gate_keys::SECOND_SHIM),
        KindStep::YLink(_) => Some(gate_keys::Y_LINK),
        KindStep::Straps(_) => Some(gate_keys::STRAPS),
        KindStep::TieRod(_) => Some(gate_keys::TAPER_INSERTS),
    }
}

/// Why a step stops for a part.
pub(super) fn stopped(job: &Job, situation: &Situation, what: &What) -> Option<Message> {
    let key = needs(what)?;
    let record = record(job, key).filter(|record| stops(record))?;
    let (_, name, _) = planned(job, situation).into_iter().find(|(known, ..)| known == key)?;
    Some(BoltUpMessage::WrongPart { part: record.clone(), name: name.clone() }.into())
}

/// Parts that are there for a while only, with what replaces them.
pub(crate) fn temporary(job: &Job) -> Vec<(String, String)> {
    let named = |record: &PartRecord| {
        if record.name.is_empty() {
            record.key.rsplit('/').next().unwrap_or_default().replace('-', " ")
        } else {
            record.name.clone()
        }
    };
    let temporary = job.bolt_up.parts.iter().filter(|record| !record.until.trim().is_empty());
    temporary.map(|record| (named(record), record.until.trim().to_owned())).collect()
}
