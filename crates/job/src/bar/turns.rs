//! How far a bar's ends are turned, as messages.

use derecho_core::bar::adjuster::{AdjusterKind, Setting, TurnStep, facts_within, sleeve};
use derecho_core::fastener::Thread;
use derecho_core::measure::Length;

use super::message::{BarMessage, BenchLine, ExactTurns, Turns};
use crate::message::Message;

/// The turns of a setting, where turning alone reaches the length.
pub(crate) fn turns_of(setting: &Setting) -> Option<Turns> {
    let longer = setting.wanted_mm > setting.from_mm;
    Some(Turns { turns: setting.turns?, flats: setting.flats?, by: setting.turned_by, longer })
}

/// The same, to say.
pub(crate) fn turns_say(setting: &Setting) -> Option<Message> {
    turns_of(setting).map(|turns| BarMessage::Turns(turns).into())
}

/// How far it would be exactly.
pub(super) fn exactly(setting: &Setting) -> Option<Message> {
    let (turns, flats, over) = (setting.turns?, setting.flats?, setting.flats_over?);
    let exact = match setting.turned_by {
        TurnStep::Flat => ExactTurns::Flats { turns, flats, over },
        TurnStep::HalfTurn => ExactTurns::Half(setting.exact_turns?.abs()),
        TurnStep::WholeTurn => ExactTurns::Whole(setting.exact_turns?.abs()),
    };
    Some(BarMessage::Exactly(exact).into())
}

/// The turns of a sleeve with two hands from a length to another.
pub(crate) fn sleeve_turns(thread: &Thread, now: Length, wanted: Length) -> Option<Message> {
    turns_say(&facts_within(&sleeve(thread), now, wanted, Length::ZERO))
}

/// Setting a bar on the bench, line by line: from its ends screwed right in to `set`, which is `against_old` longer than
/// the old bar, with so much `thread` in.
pub(super) fn bench_says(
    setting: &Setting,
    set: Length,
    against_old: Length,
    thread: Option<Length>,
) -> Vec<Message> {
    let alike = setting.kind == AdjusterKind::Turnbuckle;
    let least = setting.ends.iter().map(|end| end.least_engagement_mm).reduce(Length::max);
    let per_turn = setting.per_turn_mm.unwrap_or(Length::ZERO);
    let lines = [
        Some(BenchLine::RightIn { alike, length: setting.from_mm }),
        turns_of(setting).map(|turns| BenchLine::Turn { alike, turns, to: set }),
        thread.map(|stays| BenchLine::Thread { alike, stays, least }),
        Some(BenchLine::BesideTheOld { differs: against_old, per_turn }),
    ];
    lines.into_iter().flatten().map(|line| BarMessage::Bench(line).into()).collect()
}
