//! Stage Prove: readings taken after the work against what was predicted, by what was done: a
//! track bar, a Y-link, an axle that needed nothing, sway links alone. `cause` finds why a
//! movement differs, `words` makes the sentences. Not here: what was predicted;
//! `setups` and the stages before say that.

mod cause;
pub mod complaints;
pub mod settling;
mod verdict;
mod words;

use derecho_core::bar::FrontView;
use derecho_core::measure::centring::{Answer, Centring, Sense};
use derecho_core::measure::length::in_quadrature;
use derecho_core::measure::phrase::Value;
use derecho_core::measure::{Length, Phrase, Step, Working};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use self::cause::Cause;
use self::cause::{Moved, cause};
pub use self::verdict::ProveVerdict;
use crate::cycle::Brief;
use crate::document::sway::SwayKind;
use crate::document::{AxleLocation, Job, Purpose, Sheet, SheetKind};
use crate::setups::moves::EyeMoves;
use crate::setups::{Resolved, read_before};
use crate::tape::SheetResult;
use crate::verdict::{FitCheck, FitVerdict, check};

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
    /// What it was done to, each with how it came out; every one must be good.
    pub grounds: Vec<FitCheck>,
    /// The sheet of after-readings it rests on, where there is something to centre.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sheet: Option<String>,
    /// Its offset, with uncertainty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub after: Option<Centring>,
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

fn newest_after<'a>(job: &'a Job, sheets: &'a [SheetResult]) -> Option<(&'a Sheet, &'a SheetResult)> {
    let round = job.setups.axle_rounds().len();
    job.sheets.iter().zip(sheets).rfind(|(sheet, result)| {
        job.setups.axle_rounds_before(sheet.round) == round
            && sheet.kind == SheetKind::Centring
            && result.centring.is_some()
    })
}

/// Whether a sheet was begun that reads the axle under the frame.
fn reads_the_axle(job: &Job) -> bool {
    job.sheets.iter().any(|sheet| {
        sheet.kind == SheetKind::Centring && sheet.left.iter().chain(&sheet.right).any(Option::is_some)
    })
}

/// What other stages found of what is proved here.
#[derive(Clone, Copy, Debug, Default)]
pub struct Found<'a> {
    /// Whether the sway links work at the ends of travel; None while not measured.
    pub links_work: Option<bool>,
    /// What ends the travel, where the axle could be cycled.
    pub cycled: Option<&'a Brief>,
}

/// Whether the sway bar is all this job is about: it was said so, and nothing else was set or chosen.
fn is_sway_alone(job: &Job) -> bool {
    !job.to_do.is_empty()
        && job.to_do.iter().all(|purpose| purpose.is_sway())
        && job.setups.axle_rounds().is_empty()
        && job.setups.plans.chosen.is_none()
}

/// Whether somebody's work is looked at and nothing is set: the readings as found are the proof.
fn is_check_alone(job: &Job) -> bool {
    job.to_do.contains(&Purpose::CheckWork)
        && job.setups.axle_rounds().is_empty()
        && job.setups.plans.chosen.is_none()
}

/// Proves what was done; None until there is something to hold against: the axle read after the last
/// round, an axle found centred that needs nothing, an axle whose work is checked, or sway links where nothing
/// else was worked on. What the job is for has to hold too before it can be settled.
#[must_use]
pub fn prove(job: &Job, resolved: &Resolved, found: Found<'_>) -> Option<ProveResult> {
    let y_link = job.rig.axle_location == Some(AxleLocation::YLink);
    let nothing_else = resolved.setups().is_none() && !y_link && !reads_the_axle(job);
    if nothing_else || is_sway_alone(job) {
        let fitted = resolved.sway.plan == resolved.sway.fitted;
        return found.links_work.map(|work| sway_alone(work, fitted));
    }
    let axle = prove_axle(job, resolved, y_link)?;
    Some(with_purposes(job, resolved, found, axle))
}

/// The proof of the axle, held against what else the job is for.
fn with_purposes(job: &Job, resolved: &Resolved, found: Found<'_>, axle: ProveResult) -> ProveResult {
    let asked: Vec<ProveResult> =
        [clear_asked(job, found.cycled), sway_asked(job, resolved, found.links_work)]
            .into_iter()
            .flatten()
            .collect();
    let grounds: Vec<FitCheck> =
        axle.grounds.iter().chain(asked.iter().flat_map(|proof| &proof.grounds)).cloned().collect();
    let stops = asked.into_iter().find(|proof| proof.verdict != ProveVerdict::CanSettle);
    match (axle.verdict, stops) {
        (ProveVerdict::CanSettle, Some(ProveResult { verdict, says, advice, .. })) => {
            ProveResult { grounds, verdict, says, advice, ..axle }
        }
        _ => ProveResult { grounds, ..axle },
    }
}

/// Where something was to come clear: whether it has.
fn clear_asked(job: &Job, cycled: Option<&Brief>) -> Option<ProveResult> {
    if !job.to_do.contains(&Purpose::ClearSomething) {
        return None;
    }
    let name = "clear over its travel";
    // What nobody measured neither touches nor stays clear.
    let cycled = cycled.filter(|_| !job.hardpoints.is_empty());
    Some(match cycled {
        None => bare(check(name, FitVerdict::Open, words::clear_open()), ProveVerdict::CanSettle),
        Some(brief) if brief.ended => ProveResult {
            says: words::touches(),
            advice: words::touches_advice(&brief.headline),
            ..bare(check(name, FitVerdict::Bad, words::touches()), ProveVerdict::BackToCycle)
        },
        Some(_) => bare(check(name, FitVerdict::Good, words::clear()), ProveVerdict::CanSettle),
    })
}

/// Where sway links were to be fitted as well: how they stand.
fn sway_asked(job: &Job, resolved: &Resolved, links_work: Option<bool>) -> Option<ProveResult> {
    let asked = job.to_do.iter().any(|purpose| purpose.is_sway());
    if !asked || resolved.sway.plan.kind == Some(SwayKind::None) {
        return None;
    }
    Some(match links_work {
        Some(work) => sway_alone(work, resolved.sway.plan == resolved.sway.fitted),
        None => ProveResult {
            says: words::links_open(),
            advice: words::links_open_advice(),
            ..bare(check("sway links", FitVerdict::Open, words::links_open()), ProveVerdict::BackToSway)
        },
    })
}

fn bare(ground: FitCheck, verdict: ProveVerdict) -> ProveResult {
    ProveResult {
        grounds: vec![ground],
        sheet: None,
        after: None,
        verdict,
        says: Phrase::default(),
        advice: Phrase::default(),
        movement: None,
        cause: None,
        cause_says: None,
    }
}

fn prove_axle(job: &Job, resolved: &Resolved, y_link: bool) -> Option<ProveResult> {
    let checks = is_check_alone(job);
    let (sheet, result) = newest_after(job, &resolved.sheets)?;
    let after = result.centring.clone()?;
    let rounds = job.setups.axle_rounds().len();
    let usable = result.refused.is_empty();
    // Nothing was set: only an axle that is found centred, or whose work is checked, has something to prove.
    if rounds == 0 && !checks && (after.answer != Answer::WithinTolerance || !usable) {
        return None;
    }
    let setups = resolved.setups();
    let before = read_before(job, &resolved.sheets, rounds);
    let before_sheet = before.and_then(|(_, before)| job.sheets.iter().find(|sheet| sheet.id == before.id));
    let earlier = before.zip(setups).map(|((round, _), setups)| &setups.rounds[round]);
    let movement = before
        .and_then(|(_, before)| before.centring.as_ref())
        .zip(before_sheet)
        .zip(earlier.zip(setups))
        .map(|((before, before_sheet), (earlier, setups))| {
            let moved = setups.fitted.moves.since(earlier.moves);
            movement(before, &after, (before_sheet, sheet), (&earlier.view, moved), &setups.fitted.view)
        });
    let moved = movement.as_ref().map(|movement| Moved {
        before: movement.before_mm,
        predicted: movement.predicted_mm,
        measured: movement.measured_mm,
        uncertainty: movement.uncertainty_mm,
        agrees: movement.agrees,
    });
    let cause = cause(sheet, result, before_sheet, moved.as_ref());
    let fault = setups.and_then(|setups| setups.fitted.bar.thread_faults().into_iter().next());
    let open = setups.is_some_and(|setups| !setups.unread && setups.plan.differs(&setups.fitted));
    let verdict = match after.answer {
        _ if fault.is_some() => ProveVerdict::BackToBar,
        _ if !usable => ProveVerdict::ReadAgain,
        Answer::WithinTolerance if open => ProveVerdict::PlanNotFitted,
        Answer::WithinTolerance => ProveVerdict::CanSettle,
        Answer::OffCentre => ProveVerdict::BackToBar,
        Answer::CannotTell => ProveVerdict::ReadAgain,
    };
    let cause_says = cause.map(|cause| {
        words::cause(cause, moved.as_ref(), (before_sheet, sheet), earlier.map(|earlier| &earlier.view))
    });
    Some(ProveResult {
        grounds: vec![centred(&after, usable)],
        sheet: Some(sheet.id.clone()),
        says: if checks && fault.is_none() {
            words::checked(verdict, &after)
        } else {
            words::says(verdict, &after, y_link, fault.as_ref())
        },
        advice: words::advice(verdict, &after, (result, y_link, rounds), fault.as_ref()),
        after: Some(after),
        verdict,
        movement,
        cause,
        cause_says,
    })
}

fn centred(after: &Centring, usable: bool) -> FitCheck {
    let verdict = match after.answer {
        _ if !usable => FitVerdict::Open,
        Answer::WithinTolerance => FitVerdict::Good,
        Answer::OffCentre => FitVerdict::Bad,
        Answer::CannotTell => FitVerdict::Open,
    };
    check("the axle under the frame", verdict, words::stands(after))
}

/// A job of sway links alone: whether they work as they are planned, and whether they are fitted so.
fn sway_alone(work: bool, fitted: bool) -> ProveResult {
    let (verdict, ground) = match (work, fitted) {
        (false, _) => (ProveVerdict::BackToSway, FitVerdict::Bad),
        (true, false) => (ProveVerdict::PlanNotFitted, FitVerdict::Open),
        (true, true) => (ProveVerdict::CanSettle, FitVerdict::Good),
    };
    ProveResult {
        says: if work && !fitted { words::links_not_fitted() } else { words::links(work) },
        advice: if work && !fitted { words::fit_links() } else { words::links_advice(work) },
        ..bare(check("sway links", ground, words::links(work)), verdict)
    }
}

fn movement(
    before: &Centring,
    after: &Centring,
    (before_sheet, after_sheet): (&Sheet, &Sheet),
    (view, moved): (&FrontView, EyeMoves),
    changed: &FrontView,
) -> Movement {
    // Features of one's own are alike where they go by one name.
    let feature = |sheet: &Sheet| (sheet.method, sheet.sense, sheet.method_name.trim().to_lowercase());
    let same_method = feature(before_sheet) == feature(after_sheet);
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
    Movement {
        readings_say: readings.map(|readings| words::readings(readings, after)),
        predicted_readings_mm: readings,
        before_mm: before.offset_mm,
        after_mm: after.offset_mm,
        predicted_mm: predicted,
        measured_mm: measured,
        uncertainty_mm: uncertainty,
        agrees,
        says: words::movement(predicted, measured, agrees),
        working: Working { title: "Movement, predicted and measured".to_owned(), steps },
    }
}
