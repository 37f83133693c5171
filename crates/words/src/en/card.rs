//! A job as a card in the bay.

use derecho_core::measure::Phrase;
use derecho_job::card::message::{CardMessage, JobWaits};

pub(super) fn card(message: &CardMessage) -> Phrase {
    match message {
        CardMessage::NothingMeasured => Phrase::plain("Nothing measured yet"),
        CardMessage::Waits(waits) => Phrase::plain(waiting(*waits)),
    }
}

const fn waiting(waits: JobWaits) -> &'static str {
    match waits {
        JobWaits::ChangedSinceSettled => "changed since it was settled",
        JobWaits::RoadTestThenSettle => "road test, then settle it",
        JobWaits::TurnTheLegs => "turn the link's legs",
        JobWaits::SetTheBarAgain => "set the bar again",
        JobWaits::SomethingStillTouches => "something still touches",
        JobWaits::SwayLinksThatWork => "sway links that work",
        JobWaits::FitTheChosenPlan => "fit the chosen plan",
        JobWaits::ChooseHoleOrLength => "choose a hole or the length alone",
        JobWaits::ReadBothSidesAgain => "read both sides again",
        JobWaits::BarThatReaches => "a bar that reaches",
        JobWaits::SetTheBar => "set the bar",
        JobWaits::ReadBothSides => "read both sides",
        JobWaits::SeeCycle => "see stage Cycle",
        JobWaits::MeasureTheBar => "measure the bar",
    }
}
