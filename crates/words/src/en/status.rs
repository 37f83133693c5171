//! Where a job stands and what comes next.

use derecho_core::measure::Phrase;
use derecho_job::findings::FindingKind;
use derecho_job::status::JobState;
use derecho_job::status::message::{Next, StatusMessage};

pub(super) fn status(message: &StatusMessage) -> Phrase {
    match message {
        StatusMessage::State { state, work, open } => Phrase::plain(&state_says(*state, *work, *open)),
        StatusMessage::Next(next) => Phrase::plain(next_says(*next)),
        StatusMessage::PutRight(kind) => Phrase::plain(put_right(*kind)),
    }
}

fn state_says(state: JobState, (done, steps): (usize, usize), open: usize) -> String {
    match state {
        JobState::AsFound => "As found".to_owned(),
        JobState::Planned => format!("Planned: {steps} steps to do"),
        JobState::BeingFitted => format!("Being installed: {done} of {steps} steps done"),
        JobState::FittedToRead => "Installed, not measured since".to_owned(),
        JobState::NotAsWanted => "Measured: not right yet".to_owned(),
        JobState::Proved if open == 0 => "Proved, nothing left open".to_owned(),
        JobState::Proved if open == 1 => "Proved, one thing left open".to_owned(),
        JobState::Proved => format!("Proved, {open} things left open"),
        JobState::Closed => "Closed".to_owned(),
        JobState::ChangedSinceClosed => "Changed since it was closed".to_owned(),
    }
}

const fn next_says(next: Next) -> &'static str {
    match next {
        Next::ChangedSinceClosed => "Close it again with the current figures, or undo",
        Next::Close => "Close the job",
        Next::RoadTestThenClose => "Road test it, then close the job",
        Next::TurnTheLegs => "Adjust the Y-link legs",
        Next::MeasureTheEye => "Measure where the eye really is",
        Next::SetTheBarAgain => "Set the bar again",
        Next::FindTheCause => "Find out why it moved differently",
        Next::SomethingStillTouches => "Find what still stops the travel",
        Next::SwayLinksThatWork => "Choose sway links that work",
        Next::FitTheChosenPlan => "Install the chosen plan",
        Next::RecordWhatWasFitted => "Record what was installed",
        Next::NextStepOfWork => "Do the next step",
        Next::ChooseHoleOrLength => "Choose a hole, or length only",
        Next::ReadBothSidesAgain => "Measure both sides again",
        Next::BarThatReaches => "Find a bar that reaches",
        Next::SetTheBar => "Set the bar",
        Next::ReadBothSides => "Measure both sides",
        Next::SeeCycle => "See what stops the travel",
        Next::MeasureTheBar => "Measure the bar",
        Next::EnterTheNewBar => "Enter the new bar",
        Next::MeasureTheSwayBar => "Measure the sway bar and its links",
    }
}

const fn put_right(kind: FindingKind) -> &'static str {
    match kind {
        FindingKind::StillOff => "Put back what is still off the vehicle",
        FindingKind::ComplaintOpen => "Go back over the complaints",
        FindingKind::ComplaintAgain => "Look into the complaint that is still there",
        FindingKind::TorqueMissing => "Enter the torques that are missing",
        FindingKind::TorqueOther => "Tighten again what is not to spec",
        FindingKind::TorqueFromMemory => "Look up the torques that are from memory",
        FindingKind::StandsOtherwise => "Find out why it stands differently",
        FindingKind::NotRight => "Put right what was checked and is not right",
        FindingKind::NotLookedAt => "Finish the checks",
        FindingKind::MovedOtherwise => "Measure both sides again as a new set",
        FindingKind::RoadStopped => "Drive the stopped road test again",
        FindingKind::DoesNotFit => "Change what does not fit",
        FindingKind::PartWrong => "Get the part that is missing or wrong",
        FindingKind::StepsOpen => "Finish the steps",
        FindingKind::YLinkFails => "Put right what fails at the Y-link",
        FindingKind::Overstressed => "Relieve the part that is overloaded",
        FindingKind::NotAsPlanned => "Compare what was measured with the plan",
        FindingKind::TravelEnds => "Find what still stops the travel",
        FindingKind::LinkBesideBar => "Bring the bar and the drag link parallel",
        FindingKind::SteersOverBumps => "Find what steers the wheels over bumps",
        FindingKind::LinksFail => "Choose sway links that work",
        FindingKind::ThreadEngaged => "Set the bar so that enough thread is engaged",
        FindingKind::CauseOpen => "Fix what was found",
        FindingKind::ClearanceNotChecked | FindingKind::PartsNotMeasured => {
            "Check the clearance over the travel"
        }
        FindingKind::StandsInTheWay => "Make room between two parts as they sit",
    }
}
