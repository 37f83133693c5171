//! The bar of a job: how it stands, what it does over the travel, and what length to
//! set.

pub mod uncertainty;
pub(crate) mod words;

use crate::usual;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::bar::words::{
    angle_working, leaves_says, length_says, length_working, longer_says, rate_says, stands, thumb_says,
    warnings,
};
use crate::document::bracketing::FittedMove;
use crate::document::check::FieldError;
use crate::document::heights;
use crate::document::{AdjusterForm, AxleLocation, Bar, BarRead, Job, ThreadedEndForm, length_of};
use crate::setups::moves::{self, EyeMoves};
use crate::tape::SheetResult;
use derecho_core::bar::adjuster::{Adjuster, Setting, ThreadedEnd, setting};
use derecho_core::bar::evidence::{FinderReading, Rise, rise};
use derecho_core::bar::sweep::{Sample, sweep};
use derecho_core::bar::{FrontView, Recentring, Swing};
use derecho_core::measure::centring::Answer;
use derecho_core::measure::phrase::Value;
use derecho_core::measure::{Angle, AngleEntry, Length, Phrase, Side, Step, Working};
use derecho_core::parts::BracketEnd;

/// A bar in figures, at the driven height.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BarFigures {
    /// L, eye to eye.
    pub length_mm: Length,
    /// v, + frame eye higher.
    pub rise_mm: Length,
    /// h, sideways reach.
    pub reach_mm: Length,
    /// θ in front view, + frame end higher.
    pub angle_deg: Angle,
    /// Millimetres to the left per millimetre of bump.
    pub lateral_rate: f64,
}

impl From<&FrontView> for BarFigures {
    fn from(view: &FrontView) -> Self {
        Self {
            length_mm: view.length(),
            rise_mm: view.rise(),
            reach_mm: view.reach(),
            angle_deg: view.angle(),
            lateral_rate: view.lateral_rate(),
        }
    }
}

/// What the lift alone does.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LiftEffect {
    /// The lift Δ; negative is a drop.
    pub lift_mm: Length,
    /// The bar before it.
    pub before: BarFigures,
    /// Shift of the axle to the left, s·(h₁ − h₂).
    pub shift_mm: Length,
    /// In words.
    pub says: Phrase,
    /// The arithmetic with this job's numbers.
    pub working: Working,
}

/// Both eyes' places against the bar's length.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct EyeCheck {
    /// Sideways distance of the eyes as plumbed.
    pub plumbed_mm: Length,
    /// The bar's own reach less that.
    pub difference_mm: Length,
    /// Whether it is more than twice the uncertainty of the eye that is moved.
    pub too_much: bool,
    /// In words.
    pub says: Phrase,
}

/// Where the offset that is corrected comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BasisSource {
    /// From a sheet of readings.
    Readings,
    /// Reckoned from the lift, supposing the axle was centred before it.
    Lift,
}

/// The offset that is corrected.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Basis {
    /// Where it comes from.
    pub source: BasisSource,
    /// The sheet's id, where it comes from one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sheet: Option<String>,
    /// e, + to the left.
    pub offset_mm: Length,
    /// U of e, where it was read.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub uncertainty_mm: Option<Length>,
    /// In words.
    pub says: Phrase,
}

/// A length that was set, against the one that was wanted.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SetCheck {
    /// The length set.
    pub length_mm: Length,
    /// Set less wanted.
    pub differs_mm: Length,
    /// Whether the wanted length has moved since it was set.
    pub wanted_moved: bool,
    /// Where the axle should be now, + left.
    pub predicted_offset_mm: Length,
    /// In words.
    pub says: Phrase,
}

/// What length to set, and how.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Correction {
    /// How many times the bar had been set before this correction.
    pub round: u32,
    /// What it corrects.
    pub basis: Basis,
    /// Length before it.
    pub from_length_mm: Length,
    /// The exact length and the rules of thumb beside it.
    pub recentring: Recentring,
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
    pub setting: Option<Setting>,
    /// The answer in one sentence.
    pub says: Phrase,
    /// What the rule of thumb would have cost.
    pub thumb_says: Phrase,
    /// What a cure by length alone leaves behind.
    pub leaves_says: Phrase,
    /// Whether the longer bar makes it worse, in this job's numbers; where it is longer.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub longer_says: Option<Phrase>,
    /// What both sides should read afterwards, where they were read before: left and right.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub predicted_readings_mm: Option<[Length; 2]>,
    /// The same in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub readings_say: Option<Phrase>,
    /// The eye the chosen plan moves, where it moves one: kept with the length that is set.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub moved: Option<FittedMove>,
    /// The chosen plan in words, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub plan_says: Option<Phrase>,
    /// The arithmetic with this job's numbers.
    pub working: Working,
    /// Once a length was set in this round.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub set: Option<SetCheck>,
}

/// Everything about the bar.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BarResult {
    /// How often the bar had been set before what is shown here.
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
    /// What the lift alone does, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub lift: Option<LiftEffect>,
    /// The eyes' places against the length, where both were plumbed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_check: Option<EyeCheck>,
    /// How it stands, in one sentence.
    pub says: Phrase,
    /// What it does in bump, in one sentence.
    pub rate_says: Phrase,
    /// What to look at again.
    pub warnings: Vec<Phrase>,
    /// The arithmetic of angle and rate with this job's numbers.
    pub working: Working,
    /// What to set, where there is something to correct.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub correction: Option<Correction>,
    /// Why no correction is offered, where none is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub withheld: Option<Phrase>,
    /// The whole travel, droop first.
    pub sweep: Vec<Sample>,
}

/// The bar's answer, or what keeps it from one.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct BarOutcome {
    /// The result, where everything needed is there.
    pub result: Option<BarResult>,
    /// What is missing or impossible, each with its field.
    pub missing: Vec<FieldError>,
    /// As found in this round and as planned, with their offsets at the driven height.
    pub views: Option<Views>,
}

/// The two bars drawn: the one in this round, and the one planned or set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Views {
    /// As it stands in this round.
    pub found: FrontView,
    /// Its axle, + left of the body's centre.
    pub found_offset: Length,
    /// The planned or set bar.
    pub planned: FrontView,
    /// Its axle.
    pub planned_offset: Length,
    /// How often the bar had been set before this round.
    pub round: usize,
}

const AS_FOUND: &str = "/setups/as_found";

/// What the bar stage needs, gathered from the document.
struct Known {
    length: Length,
    side: Side,
    fore_aft: Length,
    /// The rise as it was read.
    rise: Rise,
    /// v at the driven height.
    driven_rise: Length,
}

fn known(job: &Job) -> Result<Known, Vec<FieldError>> {
    let Bar { length, fore_aft, .. } = &job.setups.as_found;
    if job.rig.axle_location == Some(AxleLocation::YLink) {
        let message = "There is no track bar to set: the Y-shaped upper link centres the axle over its whole travel. Stage Cycle shows it; where it is off centre, the link's ends are.";
        return Err(vec![FieldError::new("/rig/axle_location", "no_bar", message)]);
    }
    let bar = &job.setups.as_found;
    let mut missing = Vec::new();
    let mut ask = |pointer: &str, message: &str| missing.push(FieldError::new(pointer, "missing", message));
    if job.rig.frame_eye_side.is_none() {
        ask("/rig/frame_eye_side", "Which side is the bar bolted to the frame on? Say so in stage Rig.");
    }
    if length.is_none() {
        ask(&format!("{AS_FOUND}/length"), "Type the bar's length, eye to eye.");
    }
    let heights = length_of(&bar.frame_eye_height).zip(length_of(&bar.axle_eye_height));
    let finder = finder_reading(bar);
    if heights.is_none() && finder.is_none() {
        ask(
            &format!("{AS_FOUND}/frame_eye_height"),
            "Type the heights of both bolts above the floor, or the bar's angle and which end is higher.",
        );
    }
    let (Some(side), Some(length)) = (job.rig.frame_eye_side, length_of(length)) else {
        return Err(missing);
    };
    let slope = job.rig.floor_slope.as_ref().map_or(Angle::ZERO, AngleEntry::angle);
    let good_to = length_of(&bar.heights_good_to).unwrap_or(usual::BOLT_HEIGHT_GOOD_TO);
    let Some(rise) = rise(length, side, heights, good_to, finder, slope) else { return Err(missing) };
    let lift = length_of(&job.rig.lift).unwrap_or(Length::ZERO);
    let read_at = if bar.height.is_empty() {
        heights::driven_offset(&job.rig)
    } else {
        heights::offset_of(&job.rig, &bar.height)
    };
    let lifted = match bar.read {
        BarRead::AsItStands => Length::ZERO,
        BarRead::BeforeTheLift => lift,
    };
    let driven_rise = rise.rise_mm + lifted + heights::driven_offset(&job.rig) - read_at;
    Ok(Known { length, side, fore_aft: length_of(fore_aft).unwrap_or(Length::ZERO), rise, driven_rise })
}

fn finder_reading(bar: &Bar) -> Option<FinderReading> {
    if bar.bent {
        return None;
    }
    let finder = &bar.finder;
    Some(FinderReading {
        reading: finder.reading.as_ref()?.angle(),
        higher_end: finder.higher_end?,
        zero: finder.zero,
        good_to: finder
            .good_to
            .as_ref()
            .map_or(Angle::from_degrees(usual::FINDER_GOOD_TO_DEGREES), |good_to| good_to.angle().abs()),
    })
}

/// The length in a round: as found, or as set the time before.
fn length_in_round(job: &Job, found: Length, round: usize) -> Length {
    match round.checked_sub(1).and_then(|last| job.setups.as_built.get(last)) {
        Some(made) => made.length.length(),
        None => found,
    }
}

/// The newest usable answer among the sheets read in a round, staleness aside.
#[must_use]
pub fn sheet_of_round<'a>(job: &Job, sheets: &'a [SheetResult], round: usize) -> Option<&'a SheetResult> {
    job.sheets
        .iter()
        .zip(sheets)
        .filter(|(sheet, result)| {
            sheet.after_setting as usize == round
                && sheet.kind == crate::document::SheetKind::Centring
                && result.centring.is_some()
                && result.refusals.len() == usize::from(!result.current)
        })
        .map(|(_, result)| result)
        .next_back()
}

/// Works the bar out.
#[must_use]
pub fn bar(job: &Job, sheets: &[SheetResult]) -> BarOutcome {
    let known = match known(job) {
        Ok(known) => known,
        Err(missing) => return BarOutcome { missing, ..BarOutcome::default() },
    };
    let settings = job.setups.as_built.len();
    // A bar that was set and not yet read again still shows the round it was set in.
    let round = match settings {
        0 => 0,
        count if sheet_of_round(job, sheets, count).is_some() => count,
        count => count - 1,
    };
    let length = length_in_round(job, known.length, round);
    let impossible = |pointer: &str| {
        let message = "The bar is shorter than its eyes are apart, up-and-down and fore-and-aft. Check its length and both bolt heights.";
        BarOutcome {
            missing: vec![FieldError::new(pointer, "impossible_bar", message)],
            ..BarOutcome::default()
        }
    };
    let fitted = moves::fitted(job, round);
    let (rise, fore_aft) = (known.driven_rise + fitted.rise(), known.fore_aft + fitted.fore_aft());
    let Ok(found) = FrontView::new(length, rise, fore_aft, known.side) else {
        return impossible(&if round == 0 {
            format!("{AS_FOUND}/length")
        } else {
            format!("/setups/as_built/{}/length", round - 1)
        });
    };
    let lift = lift_effect(job, &found);
    let basis = basis(job, sheets, round, lift.as_ref());
    let (correction, withheld, views) = correct(job, &found, round, basis, lift.as_ref());
    let (droop, bump) = heights::travel(&job.rig);
    let driven = -heights::driven_offset(&job.rig);
    let found_swing = found.swing(droop + driven, bump - driven);
    let samples = sweep(
        (&views.found, views.found_offset),
        (&views.planned, views.planned_offset),
        driven,
        droop,
        bump,
    );
    let eye_check = eye_check(job, &found);
    let result = BarResult {
        round: round as u32,
        says: stands(&found),
        rate_says: rate_says(&found),
        warnings: warnings(job, &known.rise, &found_swing),
        working: angle_working(&found, job),
        rise: known.rise,
        found: BarFigures::from(&found),
        found_swing,
        level_travel_mm: found.rise() + driven,
        tight_droop_travel_mm: found.pulled_tight().0 + driven,
        tight_bump_travel_mm: found.pulled_tight().1 + driven,
        lift,
        eye_check,
        correction,
        withheld,
        sweep: samples,
    };
    BarOutcome { result: Some(result), missing: Vec::new(), views: Some(views) }
}

fn lift_effect(job: &Job, found: &FrontView) -> Option<LiftEffect> {
    let lift = length_of(&job.rig.lift).filter(|lift| *lift != Length::ZERO)?;
    // The bar that was there before the lift is the one as found.
    let found = match length_of(&job.setups.as_found.length) {
        Some(length) => found.with_length(length).ok()?,
        None => *found,
    };
    let before = found.raised_by(-lift).ok()?;
    let shift = before.shift_of_lift(lift).ok()?;
    let length = Value::Length;
    let (l, d) = (length(before.length()), length(before.fore_aft()));
    let reach = |index: &str, view: &FrontView| {
        Step::new(
            if index == "₁" { "sideways reach before" } else { "sideways reach after" },
            &format!("h{index} = √({{L}}² − {{v{index}}}² − {{d}}²)"),
            &[("L", l), (&format!("v{index}"), length(view.rise())), ("d", d)],
            length(view.reach()),
        )
    };
    let steps = vec![
        reach("₁", &before),
        Step::new(
            "rise after",
            "v₂ = {v₁} + {Δ}",
            &[("v₁", length(before.rise())), ("Δ", length(lift))],
            length(found.rise()),
        ),
        reach("₂", &found),
        Step::new(
            "shift to the left, s = +1 for a frame eye on the left, −1 on the right",
            "s · (h₁ − h₂) = {s} · ({h₁} − {h₂})",
            &[
                ("s", Value::Number(found.frame_eye_side().sign(), 0)),
                ("h₁", length(before.reach())),
                ("h₂", length(found.reach())),
            ],
            length(shift),
        ),
    ];
    let verb = if lift > Length::ZERO { "lift" } else { "drop" };
    Some(LiftEffect {
        lift_mm: lift,
        before: BarFigures::from(&before),
        shift_mm: shift,
        says: Phrase::of(|w| format!("The {verb} alone moves the axle: {}", w.movement(shift))),
        working: Working { title: format!("What the {verb} alone does"), steps },
    })
}

fn basis(
    job: &Job,
    sheets: &[SheetResult],
    round: usize,
    lift: Option<&LiftEffect>,
) -> Option<(Basis, Answer)> {
    if let Some(sheet) = sheet_of_round(job, sheets, round) {
        let centring = sheet.centring.as_ref()?;
        let basis = Basis {
            source: BasisSource::Readings,
            sheet: Some(sheet.id.clone()),
            offset_mm: centring.offset_mm,
            uncertainty_mm: Some(centring.uncertainty_mm),
            says: Phrase::of(|w| {
                format!(
                    "Read off the vehicle: {}, give or take {}",
                    w.sideways(centring.offset_mm),
                    w.fine(centring.uncertainty_mm)
                )
            }),
        };
        return Some((basis, centring.answer));
    }
    let lift = lift.filter(|_| round == 0)?;
    let basis = Basis {
        source: BasisSource::Lift,
        sheet: None,
        offset_mm: lift.shift_mm,
        uncertainty_mm: None,
        says: Phrase::of(|w| {
            format!(
                "Reckoned from the lift, not read: {}, supposing it was centred before. Read both sides before anything is turned.",
                w.sideways(lift.shift_mm)
            )
        }),
    };
    Some((basis, Answer::OffCentre))
}

type Corrected = (Option<Correction>, Option<Phrase>, Views);

fn correct(
    job: &Job,
    found: &FrontView,
    round: usize,
    basis: Option<(Basis, Answer)>,
    lift: Option<&LiftEffect>,
) -> Corrected {
    let alone = |offset| Views {
        found: *found,
        found_offset: offset,
        planned: *found,
        planned_offset: offset,
        round,
    };
    let lift_shift = lift.map_or(Length::ZERO, |lift| lift.shift_mm);
    let Some((basis, answer)) = basis else {
        let withheld = Phrase::plain(
            "Read both sides in stage Tape: the length to set follows from how far off the axle is.",
        );
        return (None, Some(withheld), alone(if round == 0 { lift_shift } else { Length::ZERO }));
    };
    let offset = basis.offset_mm;
    let set = job.setups.as_built.get(round);
    let withheld = match answer {
        Answer::CannotTell => Some(Phrase::plain(
            "No length is offered: the readings cannot tell the axle from centred. Read again first.",
        )),
        Answer::WithinTolerance if set.is_none() => {
            Some(Phrase::plain("Leave the length as it is: the axle is centred."))
        }
        _ => None,
    };
    if withheld.is_some() {
        return (None, withheld, alone(offset));
    }
    let moved = moves::chosen(job, round);
    let eye_moves = moved.as_ref().map_or(EyeMoves::default(), EyeMoves::from);
    let planned = found.recentred_moved(offset, eye_moves.rise(), eye_moves.fore_aft(), eye_moves.sideways());
    let Ok((recentring, planned)) = planned else {
        let withheld =
            Phrase::plain("The offset is as large as the bar's reach. Check the readings and their unit.");
        return (None, Some(withheld), alone(offset));
    };
    let set_check =
        set.and_then(|made| set_check(found, &planned, offset + eye_moves.sideways(), &recentring, made));
    let mut views =
        Views { found: *found, found_offset: offset, planned, planned_offset: Length::ZERO, round };
    if let Some((check, view)) = &set_check {
        views.planned = *view;
        views.planned_offset = check.predicted_offset_mm;
    }
    let predicted_readings = predicted_readings(job, &basis, views.planned_offset);
    let (droop, bump) = heights::travel(&job.rig);
    let driven = -heights::driven_offset(&job.rig);
    let correction = Correction {
        round: round as u32,
        from_length_mm: found.length(),
        change_uncertainty_mm: basis
            .uncertainty_mm
            .map(|uncertainty| uncertainty * (recentring.reach_mm / recentring.length_mm)),
        planned: BarFigures::from(&planned),
        planned_swing: planned.swing(droop + driven, bump - driven),
        setting: adjuster(&job.setups.adjuster, job, round)
            .map(|adjuster| setting(&adjuster, found.length(), recentring.length_mm)),
        says: length_says(&recentring),
        thumb_says: thumb_says(&recentring),
        leaves_says: leaves_says(&planned, droop + driven, bump - driven),
        longer_says: moved.is_none().then(|| longer_says(found, &planned, offset, bump - driven)).flatten(),
        working: length_working(found, &planned, offset, eye_moves.sideways(), &recentring),
        readings_say: predicted_readings.map(|[left, right]| {
            Phrase::of(|w| {
                let (left, right) = (w.distance(left), w.distance(right));
                if left == right {
                    format!("Both sides should read {left} then.")
                } else {
                    format!("The left should read {left} then and the right {right}.")
                }
            })
        }),
        predicted_readings_mm: predicted_readings,
        plan_says: moved.as_ref().map(|moved| plan_says(job, moved)),
        moved,
        set: set_check.map(|(check, _)| check),
        basis,
        recentring,
    };
    (Some(correction), None, views)
}

/// What both sides should read with the axle at `there`: their mean, and what is left either way.
fn predicted_readings(job: &Job, basis: &Basis, there: Length) -> Option<[Length; 2]> {
    let sheet = job.sheets.iter().find(|sheet| Some(&sheet.id) == basis.sheet.as_ref())?;
    let mean = |side: &[Option<derecho_core::measure::TapeEntry>]| {
        let read: Vec<Length> = side.iter().flatten().map(derecho_core::measure::TapeEntry::length).collect();
        (!read.is_empty()).then(|| read.iter().copied().sum::<Length>() / read.len() as f64)
    };
    let (left, right) = (mean(&sheet.left)?, mean(&sheet.right)?);
    // Moving the axle by one takes one off a side and gives it to the other.
    let sign = if sheet.sense == derecho_core::measure::centring::Sense::Outward { 1.0 } else { -1.0 };
    let moved = (there - basis.offset_mm) * sign;
    Some([left + moved, right - moved])
}

fn plan_says(job: &Job, moved: &FittedMove) -> Phrase {
    let chosen = job.bracket.chosen.clone().unwrap_or_default();
    let up = Length::from_mm(moved.by_mm[2]);
    Phrase::of(|w| {
        let eye = match moved.end {
            BracketEnd::Axle => "axle eye",
            BracketEnd::Frame => "frame eye",
        };
        let way = if up < Length::ZERO { "down" } else { "up" };
        let hole = if chosen.hole.is_empty() { String::new() } else { format!(", {}", chosen.hole) };
        format!("With the {eye} {} {way}{hole}, as chosen in stage Bracket.", w.distance(up))
    })
}

/// `carried` is where the axle would stand with the eyes moved and the bar's reach unchanged.
fn set_check(
    found: &FrontView,
    planned: &FrontView,
    carried: Length,
    wanted: &Recentring,
    made: &crate::document::MadeSetting,
) -> Option<(SetCheck, FrontView)> {
    let length = made.length.length();
    let view = planned.with_length(length).ok()?;
    let predicted = carried + (found.reach() - view.reach()) * found.frame_eye_side().sign();
    let differs = length - wanted.length_mm;
    let moved = made
        .wanted_mm
        .is_some_and(|then| (Length::from_mm(then) - wanted.length_mm).abs() > usual::AS_WANTED);
    let check = SetCheck {
        length_mm: length,
        differs_mm: differs,
        wanted_moved: moved,
        predicted_offset_mm: predicted,
        says: Phrase::of(|w| {
            let place = match w.sideways(predicted) {
                centred if centred == "centred" => "The axle should be centred now".to_owned(),
                place => format!("The axle should sit {place} now"),
            };
            if moved {
                format!(
                    "Set to {}, but the readings have changed since: it now wants {}. {place}.",
                    w.fine(length),
                    w.fine(wanted.length_mm)
                )
            } else {
                format!("Set to {}. {place}: read both sides again in stage Prove.", w.fine(length))
            }
        }),
    };
    Some((check, view))
}

fn adjuster(form: &AdjusterForm, job: &Job, round: usize) -> Option<Adjuster> {
    let turned = turned_so_far(form, job, round);
    Some(Adjuster {
        kind: form.kind?,
        first: threaded_end(&form.first, turned),
        second: threaded_end(&form.second, turned),
        end_style: form.end_style,
        made_min: length_of(&form.made_min),
        made_max: length_of(&form.made_max),
    })
}

/// Engagement is typed once, as found; every setting since has taken its turns off it.
fn turned_so_far(form: &AdjusterForm, job: &Job, round: usize) -> (Length, f64) {
    let found = length_of(&job.setups.as_found.length).unwrap_or(Length::ZERO);
    let change = length_in_round(job, found, round) - found;
    let pitch = |end: &ThreadedEndForm| {
        end.thread.as_ref().map_or(Length::ZERO, derecho_core::fastener::Thread::pitch)
    };
    let (a, b) = (pitch(&form.first), pitch(&form.second));
    let per_turn = match form.kind {
        Some(derecho_core::bar::adjuster::AdjusterKind::Turnbuckle)
            if form.first.hand == form.second.hand =>
        {
            (a - b).abs()
        }
        Some(derecho_core::bar::adjuster::AdjusterKind::Turnbuckle) => a + b,
        _ => a,
    };
    let finer = if form.first.hand == form.second.hand { a.min(b) } else { Length::ZERO };
    (finer, if per_turn > Length::ZERO { change / per_turn } else { 0.0 })
}

fn threaded_end(form: &ThreadedEndForm, (finer, turns): (Length, f64)) -> Option<ThreadedEnd> {
    let thread = form.thread.clone()?;
    // With two threads of one hand the finer goes in while the coarser comes out.
    let goes_in = finer > Length::ZERO && thread.pitch() == finer;
    let out = thread.pitch() * if goes_in { -turns } else { turns };
    Some(ThreadedEnd {
        hand: form.hand,
        engagement: length_of(&form.engagement).map(|engagement| engagement - out),
        shank: length_of(&form.shank),
        tapped_depth: length_of(&form.tapped_depth),
        seat: form.seat,
        witness: length_of(&form.witness),
        thread,
    })
}

fn eye_check(job: &Job, found: &FrontView) -> Option<EyeCheck> {
    let bar = &job.setups.as_found;
    let plumbed = length_of(&bar.frame_eye_from_centre)? + length_of(&bar.axle_eye_from_centre)?;
    let difference = found.reach() - plumbed;
    let too_much = difference.abs() > usual::PLUMBED * 2.0;
    let s = found.frame_eye_side().sign();
    let rail = length_of(&job.rig.frame_width).map_or(super::usual::FRAME_WIDTH, Length::to_mm) / 2.0;
    let across = glam::DVec3::new(found.fore_aft().to_mm(), plumbed.to_mm() * s, found.rise().to_mm());
    let axle_y = length_of(&bar.axle_eye_from_centre).unwrap_or(Length::ZERO).to_mm() * -s;
    let cause = words::likely_cause(
        found.length().to_mm(),
        across,
        glam::DVec3::new(0.0, axle_y, 0.0),
        usual::PLUMBED.to_mm() * 2.0_f64.sqrt(),
        rail,
    );
    let says = Phrase::of(|w| {
        if too_much {
            format!(
                "The bar reaches {} sideways, but its eyes were plumbed {} apart: {} off. {cause} The length rules here.",
                w.distance(found.reach()),
                w.distance(plumbed),
                w.distance(difference)
            )
        } else {
            format!("The eyes as plumbed agree with the bar's length within {}.", w.fine(difference))
        }
    });
    Some(EyeCheck { plumbed_mm: plumbed, difference_mm: difference, too_much, says })
}
