//! Stage Bar: how the bar stands, what it does over the travel, what length to set and how, and
//! what a length alone leaves behind. It is handed the setups and decides nothing about them.
//!
//! `figures`, `lift`, `eyes`, `need`, `set` and `ways` hold the facts, `words` makes the
//! sentences, `uncertainty` draws how sure the figures are. Not here: other holes and bars ranked (`bracket`).

mod eyes;
mod figures;
pub mod first;
pub mod further;
pub mod heights;
mod lift;
pub mod message;
pub mod need;
pub mod next;
mod set;
pub(crate) mod turns;
pub mod uncertainty;
pub mod ways;
mod working;

use crate::setups::message::SetupsMessage;
use crate::setups::moves::{EyeMoves, brackets, choice};
use crate::setups::{BarState, Basis, BasisSource, Known, OffsetAnswer, PlannedGap, Setups, Wanted, hung};
use derecho_core::bar::adjuster::{Verdict, setting};
use derecho_core::bar::evidence::{Rise, RiseSource};
use derecho_core::bar::sweep::{Sample, sweep};
use derecho_core::bar::{FrontView, Recentring, Swing};
use derecho_core::measure::{Length, TapeEntry, Working};
use serde::Serialize;
use utoipa::ToSchema;

pub use self::eyes::EyeCheck;
pub use self::figures::BarFigures;
pub use self::lift::LiftEffect;
use self::message::{BarMessage, BarWarning, EyeMove, LengthSet};
use self::need::{BracketNeed, Need, judge};
use self::set::set_check;
pub use self::set::{BenchSetting, SetCheck, SettingResult, can_be_followed, setting_of};
use self::ways::other_ways;
pub use self::ways::{OtherWay, WayOut};
use crate::document::{DragLinkId, FittedMove, HoleChoice, Job, LengthAim, PlanForm, Purpose, Round, Sheet};
use crate::message::Message;
use derecho_core::measure::centring::Sense;
use derecho_core::parts::BracketEnd;

/// What length to set, and how.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Correction {
    /// How many rounds had been done before this correction.
    pub round: u32,
    /// What it corrects.
    pub basis: Basis,
    /// Length before it.
    pub from_length_mm: Length,
    /// The exact length and the rules of thumb beside it.
    pub recentring: Recentring,
    /// The length the bar should have: the exact one, or its own where it cannot be changed and
    /// leaves the axle within the tolerance.
    pub length_mm: Length,
    /// Where the axle will be with it, + left.
    pub leaves_offset_mm: Length,
    /// The bar it is set on.
    pub bar: String,
    /// U of the change from the readings' uncertainty: U·h′/L′.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub change_uncertainty_mm: Option<Length>,
    /// The bar at the wanted length.
    pub planned: BarFigures,
    /// Its swing over the travel.
    pub planned_swing: Swing,
    /// Turns and flats.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub setting: Option<SettingResult>,
    /// Whether the bar of the plan can be so long; absent where that is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub covered: Option<bool>,
    /// What else would help, where it cannot.
    pub other_ways: Vec<OtherWay>,
    /// Whether a hole or the length alone is to be chosen first: the length alone leads into something that ends the
    /// travel, while holes are on offer.
    pub decide_first: bool,
    /// Whether the length rests on an offset that nobody read: good to count with, no order to act on.
    pub estimated: bool,
    /// The answer in one sentence.
    pub says: Message,
    /// What the rule of thumb would have cost; absent where another bar is hung or an eye moved.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thumb_says: Option<Message>,
    /// What a cure by length alone leaves behind.
    pub leaves_says: Message,
    /// Whether the longer bar makes it worse, in this job's numbers; where it is longer.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub longer_says: Option<Message>,
    /// What both sides should read afterwards, where they were read before: left and right.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub predicted_readings_mm: Option<[Length; 2]>,
    /// The same in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub readings_say: Option<Message>,
    /// What is recorded when the plan is fitted and the bar set as wanted.
    pub fitting: Round,
    /// The chosen plan in words, where it moves an eye or hangs a bar.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub plan_says: Option<Message>,
    /// The arithmetic with this job's numbers.
    pub working: Working,
    /// Once something was set in this round.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub set: Option<SetCheck>,
}

/// Everything about the bar.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BarResult {
    /// How many rounds had been done before what is shown here.
    pub round: u32,
    /// The rise and where it comes from.
    pub rise: Rise,
    /// As it stands in this round, at the driven height.
    pub found: BarFigures,
    /// Its swing over the travel that remains from the driven height.
    pub found_swing: Swing,
    /// Travel from ride height at which the bar is level.
    pub level_travel_mm: Length,
    /// Travel from ride height at which the bar hangs straight down, inside the travel or not.
    pub tight_droop_travel_mm: Length,
    /// Travel from ride height at which it stands straight up.
    pub tight_bump_travel_mm: Length,
    /// Whether a bracket is wanted, as the length alone would leave it.
    pub need: BracketNeed,
    /// What the lift alone does, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub lift: Option<LiftEffect>,
    /// The eyes' places against the length, where both were plumbed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_check: Option<EyeCheck>,
    /// How it stands, in one sentence.
    pub says: Message,
    /// What it does in bump, in one sentence.
    pub rate_says: Message,
    /// What to look at again.
    pub warnings: Vec<Message>,
    /// Whether the bar's angle was measured: else it is taken to be level, and its figures say nothing.
    pub angle_measured: bool,
    /// The arithmetic of angle and rate with this job's numbers.
    pub working: Working,
    /// What to set, where there is something to correct.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub correction: Option<Correction>,
    /// Why no correction is offered, where none is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub withheld: Option<Message>,
    /// What is recorded once a bar built to its gap is hung; where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub built: Option<Round>,
    /// The whole travel, droop first.
    pub sweep: Vec<Sample>,
}

/// Travel that remains from the driven height, as distances: droop, bump.
#[must_use]
pub fn travel_left(job: &Job) -> (Length, Length) {
    let (droop, bump) = crate::document::heights::travel(&job.rig);
    let driven = -crate::document::heights::driven_offset(&job.rig);
    (droop + driven, bump - driven)
}

/// The bar's need of a bracket with its length alone set: what Bar and Bracket both say.
#[must_use]
pub fn need_of(job: &Job, setups: &Setups) -> BracketNeed {
    let alone = setups.plan_of(job, &PlanForm::default());
    let view = alone.map_or(setups.base.view, |(setup, _)| setup.view);
    let (droop, bump) = travel_left(job);
    let facts = judge(job, &view, droop, bump);
    BracketNeed { says: BarMessage::NeedSays { facts: facts.clone() }.into(), facts }
}

/// Works the bar out.
#[must_use]
pub fn bar(job: &Job, setups: &Setups) -> BarResult {
    let base = &setups.base;
    let found = &base.view;
    let measured = setups.known.rise_is_measured();
    let (droop, bump) = crate::document::heights::travel(&job.rig);
    let (droop_left, bump_left) = travel_left(job);
    let driven = -crate::document::heights::driven_offset(&job.rig);
    let found_swing = found.swing(droop_left, bump_left);
    let need = need_of(job, setups);
    let correction = correct(job, setups, &need);
    let other = match &correction {
        Some(_) => setups.other(),
        None => base,
    };
    let samples = sweep((found, base.offset), (&other.view, other.offset), driven, droop, bump);
    BarResult {
        round: setups.round as u32,
        angle_measured: measured,
        says: if measured {
            BarMessage::Stands { angle: found.angle() }
        } else {
            BarMessage::AngleUnmeasured
        }
        .into(),
        rate_says: if measured {
            BarMessage::RateSays { rate: found.lateral_rate() }
        } else {
            BarMessage::RateUnmeasured
        }
        .into(),
        warnings: warnings(job, &setups.known, &found_swing),
        working: working::angle_working(found, job),
        rise: setups.known.rise,
        found: BarFigures::from(found),
        found_swing,
        level_travel_mm: found.rise() + driven,
        tight_droop_travel_mm: found.pulled_tight().0 + driven,
        tight_bump_travel_mm: found.pulled_tight().1 + driven,
        need,
        lift: (!setups.known.built && measured).then(|| lift::lift_effect(job, &setups.found.view)).flatten(),
        eye_check: if measured { eyes::eye_check(job, &setups.found.view) } else { None },
        built: (setups.known.built && correction.is_none() && job.setups.axle_rounds().is_empty()).then(
            || Round {
                length: TapeEntry::of(found.length()),
                wanted_mm: Some(found.length().to_mm()),
                ..Round::default()
            },
        ),
        withheld: correction.is_none().then(|| withheld(job, setups)),
        correction,
        sweep: if measured { samples } else { Vec::new() },
    }
}

/// Puts the choice before the length: where nobody chose a hole or the length alone, holes are on offer, and either
/// something ends the travel with the length alone, or the bar was to be levelled and a bracket is recommended. `ends` says
/// what ends the travel, where something does.
pub fn put_choice_first(job: &Job, bar: &mut BarResult, ends: Option<&Message>) {
    let open = job.setups.plans.chosen.is_none() && !brackets(job).is_empty();
    let length = bar.correction.as_mut().filter(|correction| correction.set.is_none());
    let levels = job.to_do.contains(&Purpose::LevelBar) && bar.need.facts.need == Need::Recommended;
    if let (true, Some(correction)) = (open && (levels || ends.is_some()), length) {
        correction.decide_first = true;
        correction.says = BarMessage::DecideFirst { ends: ends.cloned() }.into();
    }
}

/// The planned bar before it is set: the one that is in, or a part out of its box.
fn unset(job: &Job, setups: &Setups) -> BarState {
    let id = &setups.plan.bar.id;
    if *id == setups.base.bar.id {
        return setups.base.bar.clone();
    }
    hung(job, id, setups.base.view.length()).unwrap_or_else(|| setups.base.bar.clone())
}

/// The length of the planned bar after so many turns from where it is now, + longer: what a counter on its sleeve told.
/// None where its thread is not known.
#[must_use]
pub fn turned(job: &Job, setups: &Setups, turns: f64) -> Option<Length> {
    let bar = unset(job, setups);
    let per_turn = setting(bar.adjuster.as_ref()?, bar.length, bar.length).per_turn_mm?;
    Some(bar.length + per_turn * turns)
}

fn correct(job: &Job, setups: &Setups, need: &BracketNeed) -> Option<Correction> {
    let (base, plan) = (&setups.base, &setups.plan);
    let made = setups.made.as_ref();
    // What was set is told against what is wanted, also where nothing more is.
    let stays;
    let wanted = match (&setups.wanted, made) {
        (Some(wanted), _) => wanted,
        (None, made) if made.is_some() || plan.in_place != base.in_place => {
            stays = as_it_is(setups)?;
            &stays
        }
        (None, _) => return None,
    };
    if made.is_none()
        && plan.bar.id == base.bar.id
        && plan.moves == base.moves
        && plan.in_place == base.in_place
        && setups.basis.answer != OffsetAnswer::Off
    {
        return None;
    }
    let bar = unset(job, setups);
    let hangs = plan.bar.id != base.bar.id;
    let moves = plan.moves.since(base.moves);
    let setting = bar.adjuster.as_ref().map(|adjuster| setting_of(setups, wanted, &bar, adjuster));
    let covered = wanted.covered(&bar, setups.reach_tolerance());
    let view = wanted.view.with_length(wanted.length).ok()?;
    let (droop, bump) = travel_left(job);
    let alone = moves.is_none() && !hangs;
    let chosen = job.setups.plans.chosen.as_ref();
    let copied = chosen.is_some_and(|plan| plan.copies_a_length(setups.stock_length.is_some()));
    let estimated = setups.basis.source.is_estimate() && !copied;
    let left = chosen.is_some_and(|plan| plan.length == LengthAim::AsTheOldOne);
    let stock = chosen.is_some_and(|plan| plan.length == LengthAim::AsTheMakerHadIt);
    let given = setups.stock_length.filter(|_| stock);
    let there = setups.other().offset;
    let readings = predicted_readings(job, &setups.basis, there);
    let verdict = setting.as_ref().map(|setting| setting.facts.verdict);
    Some(Correction {
        round: setups.round as u32,
        from_length_mm: base.view.length(),
        length_mm: wanted.length,
        leaves_offset_mm: wanted.offset,
        bar: plan.bar.name.clone(),
        change_uncertainty_mm: setups
            .basis
            .uncertainty_mm
            .map(|uncertainty| uncertainty * (wanted.recentring.reach_mm / wanted.recentring.length_mm)),
        planned: BarFigures::from(&view),
        planned_swing: view.swing(droop, bump),
        other_ways: other_ways(job, setups, setting.as_ref().map(|setting| &setting.facts))
            .into_iter()
            .map(|facts| OtherWay { says: BarMessage::WaySays { facts: facts.clone() }.into(), facts })
            .collect(),
        says: BarMessage::LengthSays(LengthSet {
            change: wanted.length - base.view.length(),
            length: wanted.length,
            hangs: hangs.then(|| plan.bar.name.clone()),
            made_to_length: bar.is_to_be_made(),
            verdict,
            covered,
            estimated,
            to_tape: setups.gap == PlannedGap::TapeAgain,
        })
        .into(),
        thumb_says: alone.then(|| BarMessage::ThumbSays { wanted: wanted.recentring }.into()),
        leaves_says: if setups.known.rise_is_measured() {
            BarMessage::LeavesSays {
                angle: view.angle(),
                off: wanted.offset,
                swing: view.swing(droop, bump),
                need: moves.is_none().then(|| need.says.clone()),
            }
        } else {
            BarMessage::AngleUnmeasured
        }
        .into(),
        longer_says: alone.then(|| longer_says(&base.view, &view, base.offset, bump)).flatten(),
        working: if left || given.is_some() {
            working::kept_length_working(base.view.length(), wanted.length, given.is_some())
        } else {
            working::length_working(&base.view, &view, base.offset, moves.sideways(), &wanted.recentring)
        },
        readings_say: readings.map(|[left, right]| BarMessage::ReadingsSay { left, right }.into()),
        predicted_readings_mm: readings,
        decide_first: false,
        estimated,
        plan_says: plan_says(moves, chosen_hole_names(job)),
        fitting: equal_engagement(fitting(job, setups, wanted), setting.as_ref()),
        set: made.map(|made| set_check(setups, made)),
        basis: if copied && setups.basis.source.is_estimate() {
            Basis { says: SetupsMessage::Copied.into(), ..setups.basis.clone() }
        } else {
            setups.basis.clone()
        },
        recentring: wanted.recentring,
        setting,
        covered,
    })
}

/// Where both ends are evened first, the thread that each has in then is recorded with the length.
fn equal_engagement(round: Round, setting: Option<&SettingResult>) -> Round {
    match setting.map(|setting| &setting.facts) {
        Some(facts) if facts.verdict == Verdict::EvenEnds => {
            let at = |index: usize| TapeEntry::of(facts.ends.get(index)?.engagement_after_mm?);
            Round { first_engagement: at(0), second_engagement: at(1), ..round }
        }
        _ => round,
    }
}

/// A bar that is left as it is, as a wish.
fn as_it_is(setups: &Setups) -> Option<Wanted> {
    let view = setups.base.view;
    let recentring = view.recentred(Length::ZERO).ok()?;
    Some(Wanted { recentring, view, length: view.length(), offset: setups.base.offset })
}

fn chosen_holes(job: &Job) -> [HoleChoice; 2] {
    let plan = job.setups.plans.chosen.as_ref();
    [BracketEnd::Frame, BracketEnd::Axle]
        .map(|end| plan.and_then(|plan| choice(plan, end)).cloned().unwrap_or_default())
}

/// What people call the chosen holes, frame eye first; empty where an eye stays or goes back to where it was found.
fn chosen_hole_names(job: &Job) -> [&str; 2] {
    let plan = job.setups.plans.chosen.as_ref();
    [BracketEnd::Frame, BracketEnd::Axle]
        .map(|end| plan.and_then(|plan| choice(plan, end)).map_or("", |hole| job.hole_name(end, hole)))
}

/// What is recorded when the plan is fitted as it stands and the bar set as wanted.
#[must_use]
pub fn fitting(job: &Job, setups: &Setups, wanted: &Wanted) -> Round {
    let (base, plan) = (&setups.base, &setups.plan);
    let moves = plan.moves.since(base.moves);
    let [frame, axle] = chosen_holes(job);
    let moved = [(BracketEnd::Frame, moves.frame, frame), (BracketEnd::Axle, moves.axle, axle)]
        .into_iter()
        .filter(|(end, by, _)| by.length() > 1e-6 || plan.in_place.at(*end) != base.in_place.at(*end))
        .map(|(end, by, to)| FittedMove { end, by_mm: by.to_array(), to, off: Default::default() })
        .collect();
    Round {
        bar: (plan.bar.id != base.bar.id).then(|| plan.bar.id.clone()),
        length: TapeEntry::of(wanted.length),
        wanted_mm: Some(wanted.length.to_mm()),
        moved,
        drag_link: if plan.drag_link == base.drag_link {
            DragLinkId::default()
        } else {
            plan.drag_link.clone()
        },
        ..Round::default()
    }
}

/// What both sides should read with the axle at `there`: their mean, and what is left either way.
fn predicted_readings(job: &Job, basis: &Basis, there: Length) -> Option<[Length; 2]> {
    let sheet: &Sheet = job.sheets.iter().find(|sheet| Some(&sheet.id) == basis.sheet.as_ref())?;
    let mean = |side: &[Option<TapeEntry>]| {
        let read: Vec<Length> = side.iter().flatten().map(TapeEntry::length).collect();
        (!read.is_empty()).then(|| read.iter().copied().sum::<Length>() / read.len() as f64)
    };
    let (left, right) = (mean(&sheet.left)?, mean(&sheet.right)?);
    // Moving the axle by one takes one off a side and gives it to the other.
    let sign = if sheet.sense == Sense::Outward { 1.0 } else { -1.0 };
    let moved = (there - basis.offset_mm) * sign;
    Some([left + moved, right - moved])
}

/// Why no length is offered.
fn withheld(job: &Job, setups: &Setups) -> Message {
    let nothing_hung = job.setups.axle_rounds().is_empty() && setups.plan.bar.id == setups.base.bar.id;
    if job.to_do.contains(&Purpose::SwapBar) && nothing_hung {
        return BarMessage::WhichBar.into();
    }
    let built = (setups.basis.source == BasisSource::Strapped).then(|| setups.base.view.length());
    BarMessage::Withheld { built, answer: setups.basis.answer }.into()
}

/// What a longer bar does to the rate and to where the axle comes at full bump; None for one that is not longer, or
/// stands about level.
fn longer_says(found: &FrontView, planned: &FrontView, offset: Length, bump: Length) -> Option<Message> {
    if planned.length() <= found.length() || found.rise().abs().to_mm() < 1.0 {
        return None;
    }
    let tight = |view: &FrontView| view.pulled_tight().1.min(bump);
    let message = BarMessage::LongerSays {
        before: found.lateral_rate().abs(),
        after: planned.lateral_rate().abs(),
        found_at_bump: offset + found.shift_at(tight(found)),
        planned_at_bump: planned.shift_at(tight(planned)),
    };
    Some(message.into())
}

fn warnings(job: &Job, known: &Known, swing: &Swing) -> Vec<Message> {
    let bar = &job.setups.found.bar;
    let rise = &known.rise;
    let finder_read = bar.finder.reading.is_some();
    let warnings = [
        rise.disagreement_mm.map(BarWarning::RiseDisagrees),
        (bar.bent && finder_read).then_some(BarWarning::FinderAside),
        (rise.source == RiseSource::Finder).then_some(BarWarning::RiseFromFinder(rise.uncertainty_mm)),
        (finder_read && bar.finder.higher_end.is_none()).then_some(BarWarning::WhichEndHigher),
        swing.tight_in_droop_mm.map(BarWarning::TightInDroop),
        swing.tight_in_bump_mm.map(BarWarning::TightInBump),
    ];
    warnings.into_iter().flatten().map(|warning| BarMessage::Warning(warning).into()).collect()
}

/// What the chosen plan moves; None where it moves no eye. `holes` are those of the frame and of the axle.
fn plan_says(moves: EyeMoves, holes: [&str; 2]) -> Option<Message> {
    let [frame, axle] = holes;
    let moved = [(BracketEnd::Frame, frame), (BracketEnd::Axle, axle)]
        .into_iter()
        .map(|(end, hole)| EyeMove { end, by: moves.at(end), hole: hole.to_owned() })
        .filter(|moved| moved.by.length() > 1e-6);
    (!moves.is_none()).then(|| BarMessage::PlanSays(moved.collect()).into())
}
