//! Proving: readings taken after the bar was set, against what was predicted, and the
//! likely cause where the two differ.

use crate::usual;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::bar::{BarResult, sheet_of_round};
use crate::document::{Job, MadeSetting, Sheet, SheetKind};
use crate::setups::moves::{self, EyeMoves};
use crate::tape::{SheetResult, stance};
use derecho_core::bar::FrontView;
use derecho_core::measure::centring::{Answer, Centring, Sense};
use derecho_core::measure::length::in_quadrature;
use derecho_core::measure::phrase::Value;
use derecho_core::measure::{Length, Phrase, Step, Working};

/// Why the movement differs from the prediction.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Cause {
    /// The after-readings were taken while it hung.
    ReadWhileHanging,
    /// The body stood at another height.
    HeightChanged,
    /// The bar was changed by the whole difference of the sides instead of half.
    FullDifferenceUsed,
    /// The bar was turned the wrong way.
    SignTurned,
    /// The axle has hardly moved.
    NotMoved,
    /// None of these fits.
    Unexplained,
}

/// What comes next.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProveVerdict {
    /// Centred within the tolerance: it can be settled.
    CanSettle,
    /// Off centre: back to stage Bar with these readings.
    BackToBar,
    /// These readings prove nothing: read again.
    ReadAgain,
}

/// Predicted against measured.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Movement {
    /// Offset before, + left.
    pub before_mm: Length,
    /// Offset after.
    pub after_mm: Length,
    /// Movement to the left that the set length should have made.
    pub predicted_mm: Length,
    /// Movement to the left that the readings show.
    pub measured_mm: Length,
    /// What both sides should read after it, left and right, where the tape goes as before.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub predicted_readings_mm: Option<[Length; 2]>,
    /// Those against what they read, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub readings_say: Option<Phrase>,
    /// What the difference of the two is good to, U.
    pub uncertainty_mm: Length,
    /// Whether they agree within that.
    pub agrees: bool,
    /// In words.
    pub says: Phrase,
    /// The arithmetic with this job's numbers.
    pub working: Working,
}

/// The result of the stage.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ProveResult {
    /// The sheet of after-readings it rests on.
    pub sheet: String,
    /// Its offset, with uncertainty.
    pub after: Centring,
    /// What comes next.
    pub verdict: ProveVerdict,
    /// The answer in one sentence.
    pub says: Phrase,
    /// What to do.
    pub advice: Phrase,
    /// Movement, where there are usable readings from before.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub movement: Option<Movement>,
    /// The likely cause, where movement and prediction differ or the sheet is no use.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cause: Option<Cause>,
    /// The cause in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cause_says: Option<Phrase>,
}

fn newest_after<'a>(
    job: &'a Job,
    sheets: &'a [SheetResult],
    round: usize,
) -> Option<(&'a Sheet, &'a SheetResult)> {
    job.sheets.iter().zip(sheets).rfind(|(sheet, result)| {
        sheet.after_setting as usize == round
            && sheet.kind == SheetKind::Centring
            && result.centring.is_some()
    })
}

/// Proves the last setting; `None` until the bar was set and both sides read again.
#[must_use]
pub fn prove(job: &Job, sheets: &[SheetResult], bar: Option<&BarResult>) -> Option<ProveResult> {
    let round = job.setups.as_built.len();
    let last = round.checked_sub(1)?;
    let (sheet, result) = newest_after(job, sheets, round)?;
    let after = result.centring.clone()?;
    let before = sheet_of_round(job, sheets, last);
    let before_sheet = before.and_then(|before| job.sheets.iter().find(|sheet| sheet.id == before.id));
    let view = view_of_round(job, bar, last);
    let movement =
        before.and_then(|before| before.centring.as_ref()).zip(before_sheet).zip(view.as_ref()).and_then(
            |((before, before_sheet), view)| {
                movement(before, &after, (before_sheet, sheet), view, &job.setups.as_built[last])
            },
        );
    let cause = cause(sheet, result, before_sheet, movement.as_ref());
    let verdict = match after.answer {
        _ if !result.refusals.is_empty() => ProveVerdict::ReadAgain,
        Answer::WithinTolerance => ProveVerdict::CanSettle,
        Answer::OffCentre => ProveVerdict::BackToBar,
        Answer::CannotTell => ProveVerdict::ReadAgain,
    };
    let cause_says =
        cause.map(|cause| cause_says(cause, movement.as_ref(), before_sheet, sheet, view.as_ref()));
    Some(ProveResult {
        sheet: sheet.id.clone(),
        says: says(verdict, &after),
        advice: advice(verdict, &after, result),
        after,
        verdict,
        movement,
        cause,
        cause_says,
    })
}

/// The bar before the setting that ended a round, at the driven height.
fn view_of_round(job: &Job, bar: Option<&BarResult>, round: usize) -> Option<FrontView> {
    let bar = bar?;
    let length = match round.checked_sub(1) {
        Some(last) => job.setups.as_built.get(last)?.length.length(),
        None => job.setups.as_found.length.as_ref()?.length(),
    };
    let fore_aft =
        job.setups.as_found.fore_aft.as_ref().map_or(Length::ZERO, derecho_core::measure::TapeEntry::length);
    // The bar as it lies now includes whatever was moved since.
    let (earlier, now) = (moves::fitted(job, round), moves::fitted(job, bar.round as usize));
    let rise = bar.found.rise_mm - now.rise() + earlier.rise();
    FrontView::new(length, rise, fore_aft + earlier.fore_aft(), job.rig.frame_eye_side?).ok()
}

fn movement(
    before: &Centring,
    after: &Centring,
    (before_sheet, after_sheet): (&Sheet, &Sheet),
    view: &FrontView,
    made: &MadeSetting,
) -> Option<Movement> {
    let same_method = before_sheet.method == after_sheet.method;
    let set = made.length.length();
    let moved = made.moved.as_ref().map_or(EyeMoves::default(), EyeMoves::from);
    let changed = view.moved(set, moved.rise(), moved.fore_aft()).ok()?;
    let predicted = (view.reach() - changed.reach()) * view.frame_eye_side().sign() + moved.sideways();
    let measured = after.offset_mm - before.offset_mm;
    // The feature's own uncertainty is the same both times and drops out, unless the
    // tape went to another feature.
    let feature = if same_method {
        Length::ZERO
    } else {
        in_quadrature(&[before.feature_uncertainty_mm, after.feature_uncertainty_mm])
    };
    let uncertainty =
        in_quadrature(&[before.repeat_uncertainty_mm, after.repeat_uncertainty_mm, feature]) * 2.0;
    let agrees = (measured - predicted).abs() <= uncertainty;
    let length = Value::Length;
    let steps = vec![
        Step::new(
            "predicted: to the left, from the length set and the eye moved by m",
            "s · (h − h′) + {m} = {s} · ({h} − {h′}) + {m}",
            &[
                ("s", Value::Number(view.frame_eye_side().sign(), 0)),
                ("h", length(view.reach())),
                ("h′", length(changed.reach())),
                ("m", length(moved.sideways())),
            ],
            length(predicted),
        ),
        Step::new(
            "measured: to the left, from both sheets",
            "{e after} − {e before}",
            &[("e after", length(after.offset_mm)), ("e before", length(before.offset_mm))],
            length(measured),
        ),
        Step::new(
            "what their difference is good to; the feature's own drops out",
            "U = 2 √({u before}² + {u after}² + {u feature}²)",
            &[
                ("u before", length(before.repeat_uncertainty_mm)),
                ("u after", length(after.repeat_uncertainty_mm)),
                ("u feature", length(feature)),
            ],
            length(uncertainty),
        ),
    ];
    // What a side gains the other loses; which one, the method's sense says.
    let gain = predicted * if before_sheet.sense == Sense::Outward { 1.0 } else { -1.0 };
    let readings = same_method.then(|| [before.left_mean_mm + gain, before.right_mean_mm - gain]);
    Some(Movement {
        readings_say: readings.map(|[left, right]| {
            Phrase::of(|w| {
                format!(
                    "The left should read {} and reads {}; the right should read {} and reads {}.",
                    w.distance(left),
                    w.distance(after.left_mean_mm),
                    w.distance(right),
                    w.distance(after.right_mean_mm)
                )
            })
        }),
        predicted_readings_mm: readings,
        before_mm: before.offset_mm,
        after_mm: after.offset_mm,
        predicted_mm: predicted,
        measured_mm: measured,
        uncertainty_mm: uncertainty,
        agrees,
        says: Phrase::of(|w| {
            let verdict = if agrees { "as predicted" } else { "not as predicted" };
            format!("Predicted {}, measured {}: {verdict}.", w.movement(predicted), w.movement(measured))
        }),
        working: Working { title: "Movement, predicted and measured".to_owned(), steps },
    })
}

fn height_change(before: Option<&Sheet>, after: &Sheet) -> Option<Length> {
    let change = stance(after)? - stance(before?)?;
    (change.abs() > usual::HEIGHT_CHANGED).then_some(change)
}

fn cause(
    sheet: &Sheet,
    result: &SheetResult,
    before: Option<&Sheet>,
    movement: Option<&Movement>,
) -> Option<Cause> {
    if sheet.conditions.on_its_weight == Some(false) {
        return Some(Cause::ReadWhileHanging);
    }
    if !result.refusals.is_empty() {
        return Some(Cause::HeightChanged);
    }
    let movement = movement?;
    let wanted = -movement.before_mm;
    // What the axle did, and what the recorded length says it should have done: either
    // can be twice the wanted movement, or turned round.
    let near = |value: Length, target: Length| {
        (value - target).abs() <= movement.uncertainty_mm.max(wanted.abs() / 4.0)
    };
    let worth_telling = wanted.abs() > movement.uncertainty_mm;
    for moved in [movement.predicted_mm, movement.measured_mm] {
        if worth_telling && near(moved, wanted * 2.0) && !near(moved, wanted) {
            return Some(Cause::FullDifferenceUsed);
        }
        if worth_telling && near(moved, -wanted) {
            return Some(Cause::SignTurned);
        }
    }
    if movement.agrees {
        return None;
    }
    if height_change(before, sheet).is_some() {
        return Some(Cause::HeightChanged);
    }
    if movement.measured_mm.abs() <= movement.uncertainty_mm {
        return Some(Cause::NotMoved);
    }
    Some(Cause::Unexplained)
}

fn cause_says(
    cause: Cause,
    movement: Option<&Movement>,
    before: Option<&Sheet>,
    sheet: &Sheet,
    view: Option<&FrontView>,
) -> Phrase {
    let zero = Length::ZERO;
    let (wanted, measured) = movement.map_or((zero, zero), |m| (-m.before_mm, m.measured_mm));
    match cause {
        Cause::ReadWhileHanging => Phrase::plain(
            "These readings were taken while it hung: they prove nothing. Set it on its own weight, bounce it, read again.",
        ),
        Cause::HeightChanged => {
            let change = height_change(before, sheet);
            let shift = change.zip(view).and_then(|(change, view)| view.shift_of_lift(change).ok());
            Phrase::of(|w| {
                match (change, shift) {
                (Some(change), Some(shift)) => format!(
                    "The body stands {} {} than before. That alone moves the axle: {}. Bring it to the same height and read again.",
                    w.distance(change),
                    if change > zero { "higher" } else { "lower" },
                    w.movement(shift)
                ),
                _ => "It was read at another height than it is driven at. Bring it to the driven height and read again.".to_owned(),
            }
            })
        }
        Cause::FullDifferenceUsed => Phrase::of(|w| {
            format!(
                "It wanted to move {} and went {}, about twice as far. That is the full difference of the two sides instead of half of it.",
                w.movement(wanted),
                w.movement(measured)
            )
        }),
        Cause::SignTurned => Phrase::of(|w| {
            format!(
                "It wanted to move {} and went {}. The bar was turned the wrong way, or a sheet has left and right swapped.",
                w.movement(wanted),
                w.movement(measured)
            )
        }),
        Cause::NotMoved => Phrase::plain(
            "The axle has hardly moved. Was the length measured eye to eye after turning? Was it bounced to settle? Is a bolt hole worn oval?",
        ),
        Cause::Unexplained => Phrase::of(|w| {
            format!(
                "It moved {} and none of the usual causes fits. Measure the bar eye to eye, look for worn bolt holes and torn bushings, and read again from the same features.",
                w.movement(measured)
            )
        }),
    }
}

fn says(verdict: ProveVerdict, after: &Centring) -> Phrase {
    Phrase::of(|w| match verdict {
        ProveVerdict::CanSettle => format!("Proved: centred within {}", w.distance(after.tolerance_mm)),
        ProveVerdict::BackToBar => match w.sideways(after.offset_mm) {
            rounded if rounded == "centred" => "Still off by less than the tape shows".to_owned(),
            sideways => format!("Still {sideways}"),
        },
        ProveVerdict::ReadAgain => "Not proved: read again".to_owned(),
    })
}

fn advice(verdict: ProveVerdict, after: &Centring, result: &SheetResult) -> Phrase {
    if let Some(refusal) = result.refusals.first() {
        return refusal.clone();
    }
    Phrase::of(|w| {
        let reading = format!(
            "The readings say {}, give or take {}.",
            w.sideways(after.offset_mm),
            w.fine(after.uncertainty_mm)
        );
        match verdict {
            ProveVerdict::CanSettle => {
                format!("{reading} Road test, ask the complaints again, then settle it.")
            }
            ProveVerdict::BackToBar => {
                format!("{reading} Back to stage Bar: it starts from the length set now.")
            }
            ProveVerdict::ReadAgain if !after.method_can_prove => format!(
                "{reading} This way of reading cannot prove {}: read from frame to hub, or more often.",
                w.distance(after.tolerance_mm)
            ),
            ProveVerdict::ReadAgain => format!("{reading} Repeat them until they are surer than that."),
        }
    })
}
