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
        JobWaits::ChangedSinceSettled => "changed since it was closed",
        JobWaits::RoadTestThenSettle => "road test, then close the job",
        JobWaits::TurnTheLegs => "adjust the Y-link legs",
        JobWaits::SetTheBarAgain => "set the bar again",
        JobWaits::SomethingStillTouches => "something still stops the travel",
        JobWaits::SwayLinksThatWork => "needs sway links that work",
        JobWaits::FitTheChosenPlan => "install the chosen plan",
        JobWaits::ChooseHoleOrLength => "choose a hole, or length only",
        JobWaits::ReadBothSidesAgain => "measure both sides again",
        JobWaits::BarThatReaches => "needs a bar that reaches",
        JobWaits::SetTheBar => "set the bar",
        JobWaits::ReadBothSides => "measure both sides",
        JobWaits::SeeCycle => "see the Cycle screen",
        JobWaits::MeasureTheBar => "measure the bar",
    }
}
