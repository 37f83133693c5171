//! What a complaint suggests to look at first, in this job's figures, and which plan addresses it.

use serde::Serialize;
use utoipa::ToSchema;

use crate::bar::BarResult;
use crate::document::{ComplaintAbout, ComplaintAfter, Job};
use crate::message::Message;
use crate::prove::message::{LookFirst, ProveMessage};
use crate::setups::Resolved;
use crate::tape::SheetResult;
use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::{Length, TapeEntry};

/// What to look at for one complaint.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ComplaintAdvice {
    /// Its place in the job's list.
    pub complaint: usize,
    /// What to look at, the likeliest first.
    pub says: Vec<Message>,
    /// Whether it is open again: the same or worse after the road test.
    pub again: bool,
}

/// The newest answer of the readings that stand.
fn centring(sheets: &[SheetResult]) -> Option<&Centring> {
    sheets.iter().rev().filter(|sheet| sheet.usable).find_map(|sheet| sheet.centring.as_ref())
}

/// What there is to look at.
struct Facts {
    play: LookFirst,
    angle: LookFirst,
    offset: LookFirst,
    drag_link: LookFirst,
    links: LookFirst,
    /// How far the axle steps sideways at a bump, where the bar is known.
    rate: Option<Message>,
}

impl Facts {
    /// What to look at for a complaint, the likeliest first.
    fn look_first(&self, about: ComplaintAbout) -> Vec<Message> {
        let (play, bracket, steering) = (self.play, LookFirst::Bracket, LookFirst::Steering);
        let looks = match about {
            ComplaintAbout::OffCentre => vec![self.offset],
            ComplaintAbout::SideStepping => {
                let looks = [play, self.drag_link].map(said);
                return [said(self.angle)].into_iter().chain(self.rate.clone()).chain(looks).collect();
            }
            ComplaintAbout::Wander => vec![play, steering, self.drag_link],
            ComplaintAbout::Wobble => vec![play, bracket, steering],
            ComplaintAbout::Rocking => {
                vec![LookFirst::Shocks, play, bracket, LookFirst::RoofLoad, self.links]
            }
            ComplaintAbout::LeansInBends => vec![LookFirst::SwayBar, self.links, LookFirst::RoofLoad],
            ComplaintAbout::Rub => vec![self.offset, self.angle],
            ComplaintAbout::Clunk => vec![play, bracket],
            ComplaintAbout::WheelCrooked => vec![LookFirst::Wheel, self.drag_link, self.offset],
            ComplaintAbout::LiftsEarly => vec![self.links],
        };
        looks.into_iter().map(said).collect()
    }
}

fn said(look: LookFirst) -> Message {
    ProveMessage::LookFirst(look).into()
}

/// For every complaint that says what it is about.
#[must_use]
pub fn advice(
    job: &Job,
    resolved: &Resolved,
    bar: Option<&BarResult>,
    links_work: Option<bool>,
) -> Vec<ComplaintAdvice> {
    let play = job.bracket.bolt.play.as_ref().map(TapeEntry::length).filter(|play| *play > Length::ZERO);
    let facts = Facts {
        play: LookFirst::Play(play),
        angle: LookFirst::Angle(resolved.measured_setups().map(|setups| setups.fitted.view.angle())),
        offset: LookFirst::Offset(
            centring(&resolved.sheets)
                .map(|centring| (centring.answer == Answer::OffCentre).then_some(centring.offset_mm)),
        ),
        drag_link: LookFirst::DragLink(job.hardpoints.steering.is_some()),
        links: LookFirst::Links(links_work),
        rate: bar.map(|bar| bar.rate_says.clone()),
    };
    let of = |about: ComplaintAbout| facts.look_first(about);
    let numbered = job.complaints.iter().enumerate();
    numbered
        .filter_map(|(index, complaint)| {
            Some(ComplaintAdvice {
                complaint: index,
                says: of(complaint.about?),
                again: matches!(complaint.after, Some(ComplaintAfter::Same | ComplaintAfter::Worse)),
            })
        })
        .collect()
}
