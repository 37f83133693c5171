//! Stage Prove: readings taken after the work against what was predicted, by what was done: a
//! track bar, a Y-link, an axle that needed nothing, sway links alone. `cause` finds why a
//! movement differs, `words` makes the sentences. Not here: what was predicted;
//! `setups` and the stages before say that.

pub mod cause;
pub mod complaints;
pub mod look;
pub mod message;
pub mod misplaced;
pub(crate) mod prediction;
pub mod settling;
pub mod verdict;

use self::message::ProveCheck;
use derecho_core::bar::FrontView;
use derecho_core::bar::adjuster::{AdjusterKind, Verdict, setting};
use derecho_core::measure::centring::{Answer, Centring, Sense};
use derecho_core::measure::conformity::{agree, proves};
use derecho_core::measure::length::in_quadrature;
use derecho_core::measure::phrase::Value;
use derecho_core::measure::{Heading, Length, Meaning, Step, Working};
use serde::Serialize;
use utoipa::ToSchema;

pub use self::cause::Cause;
use self::cause::{Moved, cause, height_change};
use self::misplaced::{Misplaced, misplaced};
use self::prediction::{SaidOffset, landing, of_difference};
pub use self::verdict::ProveVerdict;
use crate::bar::need::Need;
use crate::bar::need_of;
use crate::cycle::Brief;
use crate::document::sway::SwayKind;
use crate::document::{AxleLocation, FittedPart, Job, Purpose, Round, Sheet, SheetKind};
use crate::message::Message;
use crate::prove::message::ProveMessage;
use crate::setups::moves::EyeMoves;
use crate::setups::{Resolved, Setups, read_before};
use crate::tape::{SheetResult, same_feature};
use crate::verdict::{FitCheck, FitVerdict, check};

/// Predicted against measured.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    pub readings_say: Option<Message>,
    /// What the difference of the two is good to, U: both sets of readings and the prediction.
    pub uncertainty_mm: Length,
    /// What the prediction is good to, as a standard uncertainty: set lengths or turns, heights, play.
    pub prediction_uncertainty_mm: Length,
    /// Where the axle lands by both together, where they agree, + left.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub landing_mm: Option<Length>,
    /// Its standard uncertainty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub landing_uncertainty_mm: Option<Length>,
    /// Whether they agree within that.
    pub agrees: bool,
    /// In words.
    pub says: Message,
    /// The arithmetic with this job's numbers.
    pub working: Working,
}

/// The result of the stage.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    pub says: Message,
    /// What to do.
    pub advice: Message,
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
    pub cause_says: Option<Message>,
    /// Where an eye that was moved may really sit, were that the cause.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub misplaced: Vec<Misplaced>,
}

fn newest_after<'a>(job: &'a Job, sheets: &'a [SheetResult]) -> Option<(&'a Sheet, &'a SheetResult)> {
    let round = job.setups.axle_rounds().len();
    job.sheets.iter().zip(sheets).rfind(|(sheet, result)| {
        job.setups.axle_rounds_before(&sheet.after) == round
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
pub struct FoundElsewhere<'a> {
    /// Whether the sway links work at the ends of travel; None while not measured.
    pub links_work: Option<bool>,
    /// What ends the travel, where the axle could be cycled.
    pub cycled: Option<&'a Brief>,
    /// How many steps of the work are done or struck out, and of how many.
    pub work: (usize, usize),
}

impl FoundElsewhere<'_> {
    /// Whether there is work in the plan and none of it is done.
    const fn nothing_done(&self) -> bool {
        self.work.0 == 0 && self.work.1 > 0
    }
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
pub fn prove(job: &Job, resolved: &Resolved, found: FoundElsewhere<'_>) -> Option<ProveResult> {
    let y_link = job.rig.axle_location == Some(AxleLocation::YLink);
    let nothing_else = resolved.setups().is_none() && !y_link && !reads_the_axle(job);
    if nothing_else || job.is_sway_alone() {
        let fitted = sway_fitted(job, resolved, found);
        return match found.links_work {
            Some(work) => Some(sway_alone(work, fitted)),
            None => sway_unmeasured(job, found, fitted),
        };
    }
    let axle = prove_axle(job, resolved, (y_link, found))?;
    Some(with_purposes(job, resolved, found, axle))
}

/// The proof of the axle, held against what else the job is for.
fn with_purposes(
    job: &Job,
    resolved: &Resolved,
    found: FoundElsewhere<'_>,
    axle: ProveResult,
) -> ProveResult {
    let asked: Vec<ProveResult> =
        [clear_asked(job, found.cycled), sway_asked(job, resolved, found)].into_iter().flatten().collect();
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
    let name = ProveMessage::CheckName(ProveCheck::Clear);
    // What nobody measured neither touches nor stays clear.
    let cycled = cycled.filter(|brief| brief.ended || !job.hardpoints.obstacles.is_empty());
    Some(match cycled {
        None if job.proof.looked_at.clear == Some(true) => {
            bare(check(name, FitVerdict::Good, ProveMessage::ClearLooked), ProveVerdict::CanSettle)
        }
        None => bare(check(name, FitVerdict::Open, ProveMessage::ClearOpen), ProveVerdict::CanSettle),
        Some(brief) if brief.ended => ProveResult {
            says: ProveMessage::Touches.into(),
            advice: ProveMessage::TouchesAdvice { headline: brief.headline.clone() }.into(),
            ..bare(check(name, FitVerdict::Bad, ProveMessage::Touches), ProveVerdict::BackToCycle)
        },
        Some(_) => bare(check(name, FitVerdict::Good, ProveMessage::Clear), ProveVerdict::CanSettle),
    })
}

/// Whether the sway bar is fitted as it is planned: recorded so, with everything of it that is installed in this job.
fn sway_fitted(job: &Job, resolved: &Resolved, found: FoundElsewhere<'_>) -> bool {
    let mut open = job.not_installed();
    open.retain(|part| matches!(part, FittedPart::SwayBar | FittedPart::Disconnect | FittedPart::SecondShim));
    resolved.sway.plan == resolved.sway.fitted && open.is_empty() && !found.nothing_done()
}

/// Where sway links were to be fitted as well: how they stand.
fn sway_asked(job: &Job, resolved: &Resolved, found: FoundElsewhere<'_>) -> Option<ProveResult> {
    let asked = job.to_do.iter().any(|purpose| purpose.is_sway());
    if !asked || resolved.sway.plan.kind == Some(SwayKind::None) {
        return None;
    }
    Some(match found.links_work {
        Some(work) => sway_alone(work, sway_fitted(job, resolved, found)),
        None => ProveResult {
            says: ProveMessage::LinksOpen.into(),
            advice: ProveMessage::LinksOpenAdvice.into(),
            ..bare(
                check(
                    ProveMessage::CheckName(ProveCheck::SwayLinks),
                    FitVerdict::Open,
                    ProveMessage::LinksOpen,
                ),
                ProveVerdict::BackToSway,
            )
        },
    })
}

fn bare(ground: FitCheck, verdict: ProveVerdict) -> ProveResult {
    ProveResult {
        grounds: vec![ground],
        sheet: None,
        after: None,
        verdict,
        says: Message::NOTHING,
        advice: Message::NOTHING,
        movement: None,
        cause: None,
        cause_says: None,
        misplaced: Vec::new(),
    }
}

fn prove_axle(
    job: &Job,
    resolved: &Resolved,
    (y_link, found): (bool, FoundElsewhere<'_>),
) -> Option<ProveResult> {
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
    // Where there was no bar, no bar's length says how far the axle should have come: strapped, it was anywhere before.
    let had_no_bar = |read: usize| read == 0 && setups.is_some_and(|setups| setups.known.built);
    let before = read_before(job, &resolved.sheets, rounds).filter(|(read, _)| !had_no_bar(*read));
    let before_sheet = before.and_then(|(_, before)| job.sheets.iter().find(|sheet| sheet.id == before.id));
    let before_round = before.map_or(0, |(round, _)| round);
    let earlier = before.zip(setups).map(|((round, _), setups)| &setups.rounds[round]);
    let movement = before
        .and_then(|(_, before)| before.centring.as_ref())
        .zip(before_sheet)
        .zip(earlier.zip(setups))
        .map(|((before, before_sheet), (earlier, setups))| {
            let moved = setups.fitted.moves.since(earlier.moves);
            let fitted = &setups.fitted;
            let since = job.setups.axle_rounds();
            let since = &since[before_round..];
            let good_to = prediction::uncertainty(job, setups, (earlier, fitted), since);
            movement((before, &after), (before_sheet, sheet), (&earlier.view, moved), &fitted.view, good_to)
        });
    let moved = movement.as_ref().map(|movement| Moved {
        before: movement.before_mm,
        predicted: movement.predicted_mm,
        measured: movement.measured_mm,
        uncertainty: movement.uncertainty_mm,
        agrees: movement.agrees,
    });
    // Once somebody found what it was, nobody guesses any more.
    let since = job.setups.axle_rounds().last().map_or(0, |(place, _)| *place);
    let found_out = job.setups.rounds.iter().skip(since).any(|round| round.cause.is_some())
        || !job.diagnosis.causes.is_empty();
    let misplaced = moved
        .as_ref()
        .zip(setups)
        .filter(|_| usable && !found_out)
        .map_or_else(Vec::new, |(moved, setups)| misplaced(job, setups, moved, before_round));
    let cause = cause(sheet, result, before_sheet, moved.as_ref()).filter(|_| !found_out || !usable);
    let cause = cause.map(|cause| match cause {
        Cause::Unexplained if !misplaced.is_empty() => Cause::EyeElsewhere,
        other => other,
    });
    let fault = setups.and_then(|setups| setups.fitted.bar.thread_faults().into_iter().next());
    let unbuilt = rounds == 0 && setups.is_some_and(|setups| setups.known.built);
    let open = setups.is_some_and(|setups| !setups.unread && setups.plan.differs(&setups.fitted))
        || unbuilt
        || !job.not_installed().is_empty()
        || (rounds == 0 && !checks && found.nothing_done());
    let undecided = setups.is_some_and(|setups| is_undecided(job, setups));
    let together = movement.as_ref().and_then(|movement| {
        let (at, u) = (movement.landing_mm?, movement.landing_uncertainty_mm?);
        Some(proves(at, u, after.tolerance_mm))
    });
    let within = after.answer == Answer::WithinTolerance || together == Some(true);
    let nearest = usable
        && !within
        && movement.as_ref().is_none_or(|movement| movement.agrees)
        && setups.is_some_and(|setups| is_as_near_as_it_goes(setups, &after));
    let verdict = match after.answer {
        _ if fault.is_some() => ProveVerdict::BackToBar,
        _ if !usable => ProveVerdict::ReadAgain,
        _ if (within || nearest) && open => ProveVerdict::PlanNotFitted,
        _ if (within || nearest) && undecided => ProveVerdict::NotDecided,
        _ if within || nearest => ProveVerdict::CanSettle,
        Answer::CannotTell => ProveVerdict::ReadAgain,
        Answer::OffCentre | Answer::WithinTolerance => ProveVerdict::BackToBar,
    };
    let cause_says = cause.map(|cause| {
        let change = height_change(before_sheet, sheet);
        let shift = change.zip(earlier).and_then(|(change, earlier)| earlier.view.shift_of_lift(change).ok());
        let (wanted, measured) =
            moved.map_or((Length::ZERO, Length::ZERO), |moved| (-moved.before, moved.measured));
        ProveMessage::Cause { cause, wanted, measured, change, shift }.into()
    });
    Some(ProveResult {
        grounds: vec![centred(&after, usable, within || nearest)],
        sheet: Some(sheet.id.clone()),
        says: if nearest && verdict == ProveVerdict::CanSettle {
            ProveMessage::AsNear { after: after.clone() }.into()
        } else if rounds == 0 && !checks && verdict == ProveVerdict::CanSettle {
            ProveMessage::FoundCentred { after: after.clone() }.into()
        } else if checks && fault.is_none() {
            ProveMessage::Checked { verdict, after: after.clone() }.into()
        } else {
            ProveMessage::Says { verdict, after: after.clone(), y_link, fault: fault.as_ref().copied() }
                .into()
        },
        advice: ProveMessage::Advice {
            verdict,
            after: after.clone(),
            refusal: result.refusals.first().cloned(),
            y_link,
            rounds,
            fault: fault.as_ref().copied(),
            eye_suspected: !misplaced.is_empty(),
            cause_open: cause.is_some_and(Cause::is_open),
        }
        .into(),
        after: Some(after),
        verdict,
        movement,
        cause,
        cause_says,
        misplaced,
    })
}

/// Whether the bar was to be brought nearer to level, a bracket is urged as it stands, and nobody chose one or the
/// length alone.
fn is_undecided(job: &Job, setups: &Setups) -> bool {
    job.to_do.contains(&Purpose::LevelBar)
        && job.setups.plans.chosen.is_none()
        && need_of(job, setups).facts.need == Need::Recommended
}

/// Whether the axle stands within the tolerance as measured, and the bar cannot be set nearer: a fixed one lands where
/// its plan said, and another is off by less than half of what it can be turned by.
fn is_as_near_as_it_goes(setups: &Setups, after: &Centring) -> bool {
    if after.offset_mm.abs() > after.tolerance_mm {
        return false;
    }
    let Some(adjuster) = &setups.fitted.bar.adjuster else { return false };
    let view = &setups.fitted.view;
    adjuster.kind == AdjusterKind::Fixed
        || view
            .recentred(after.offset_mm)
            .is_ok_and(|wanted| setting(adjuster, view.length(), wanted.length_mm).verdict == Verdict::AsItIs)
}

fn centred(after: &Centring, usable: bool, good: bool) -> FitCheck {
    let verdict = match after.answer {
        _ if !usable => FitVerdict::Open,
        _ if good => FitVerdict::Good,
        Answer::WithinTolerance => FitVerdict::Good,
        Answer::OffCentre => FitVerdict::Bad,
        Answer::CannotTell => FitVerdict::Open,
    };
    check(ProveMessage::CheckName(ProveCheck::Axle), verdict, ProveMessage::Stands { after: after.clone() })
}

/// A job of sway links alone: whether they work as they are planned, and whether they are fitted so.
fn sway_alone(work: bool, fitted: bool) -> ProveResult {
    let (verdict, ground) = match (work, fitted) {
        (false, _) => (ProveVerdict::BackToSway, FitVerdict::Bad),
        (true, false) => (ProveVerdict::PlanNotFitted, FitVerdict::Open),
        (true, true) => (ProveVerdict::CanSettle, FitVerdict::Good),
    };
    ProveResult {
        says: if work && !fitted {
            ProveMessage::LinksNotFitted.into()
        } else {
            ProveMessage::Links { work }.into()
        },
        advice: if work && !fitted {
            ProveMessage::FitLinks.into()
        } else {
            ProveMessage::LinksAdvice { work }.into()
        },
        ..bare(
            check(ProveMessage::CheckName(ProveCheck::SwayLinks), ground, ProveMessage::Links { work }),
            verdict,
        )
    }
}

/// Sway bar, disconnect or links that were installed, and not measured over the travel: what is proved is that they are
/// in; whether they stay clear somebody looks at. None while nothing of it is begun.
fn sway_unmeasured(job: &Job, found: FoundElsewhere<'_>, fitted: bool) -> Option<ProveResult> {
    let on_record = job.setups.rounds.iter().any(Round::is_sway_alone);
    if !on_record && found.work.0 < found.work.1.max(1) {
        return None;
    }
    let (verdict, says, advice) = if fitted {
        (ProveVerdict::CanSettle, ProveMessage::LinksUnmeasured, ProveMessage::LinksUnmeasuredAdvice)
    } else {
        (ProveVerdict::PlanNotFitted, ProveMessage::SwayNotFitted, ProveMessage::FitSway)
    };
    let name = ProveMessage::CheckName(ProveCheck::SwayLinks);
    Some(ProveResult {
        says: says.into(),
        advice: advice.into(),
        ..bare(check(name, FitVerdict::Open, ProveMessage::LinksUnmeasured), verdict)
    })
}

fn reported(centring: &Centring) -> SaidOffset {
    SaidOffset {
        at: centring.offset_mm,
        repeats: centring.repeat_uncertainty_mm,
        feature: centring.feature_uncertainty_mm,
    }
}

/// The arithmetic of a movement from its readings on: offsets before and after, what was measured and what both sheets are
/// good to, what was predicted and what that is good to, and where both together land.
fn measured_steps(
    (before, after): (Length, Length),
    (measured, of_readings): (Length, Length),
    (predicted, good_to): (Length, Length),
    landing: Option<(Length, Length)>,
) -> Vec<Step> {
    let length = Value::Length;
    let uncertainty = in_quadrature(&[of_readings, good_to]) * 2.0;
    let mut steps = vec![
        Step::new(
            Meaning::Measured,
            "{e_after} − {e_before}",
            &[("e_after", length(after)), ("e_before", length(before))],
            length(measured),
        ),
        Step::new(Meaning::SheetsGoodTo, "u_m", &[], length(of_readings)),
        Step::new(
            Meaning::DifferenceGoodTo,
            "U = 2 √({u_m}² + {u_p}²)",
            &[("u_m", length(of_readings)), ("u_p", length(good_to))],
            length(uncertainty),
        ),
    ];
    if let Some((at, u)) = landing {
        steps.push(Step::new(
            Meaning::Landing,
            "{e_after}; {e_before} + {p}; u = {u}",
            &[
                ("e_after", length(after)),
                ("e_before", length(before)),
                ("p", length(predicted)),
                ("u", length(u)),
            ],
            length(at),
        ));
    }
    steps
}

fn movement(
    (before, after): (&Centring, &Centring),
    (before_sheet, after_sheet): (&Sheet, &Sheet),
    (view, moved): (&FrontView, EyeMoves),
    changed: &FrontView,
    predicted_good_to: Length,
) -> Movement {
    let same_method = same_feature(before_sheet, after_sheet);
    let predicted = (view.reach() - changed.reach()) * view.frame_eye_side().sign() + moved.sideways();
    let measured = after.offset_mm - before.offset_mm;
    let (now, then) = (reported(after), reported(before));
    let of_readings = of_difference(now, then, same_method);
    let together = in_quadrature(&[of_readings, predicted_good_to]);
    let agrees = agree(measured, predicted, together);
    let uncertainty = together * 2.0;
    let carried = SaidOffset { at: before.offset_mm + predicted, ..then };
    let landing = agrees.then(|| landing(now, carried, predicted_good_to, same_method));
    let length = Value::Length;
    let s = view.frame_eye_side().sign();
    let mut steps = vec![Step::new(
        Meaning::Predicted,
        "s · (h − h′) + {m} = {s} · ({h} − {h′}) + {m}",
        &[
            ("s", Value::Number(s, 0)),
            ("h", length(view.reach())),
            ("h′", length(changed.reach())),
            ("m", length(moved.sideways())),
        ],
        length(predicted),
    )];
    let offsets = (before.offset_mm, after.offset_mm);
    steps.extend(measured_steps(offsets, (measured, of_readings), (predicted, predicted_good_to), landing));
    // What a side gains the other loses; which one, the method's sense says.
    let gain = predicted * if before_sheet.sense == Sense::Outward { 1.0 } else { -1.0 };
    let readings = same_method.then(|| [before.left_mean_mm + gain, before.right_mean_mm - gain]);
    Movement {
        readings_say: readings.map(|readings| {
            ProveMessage::Readings { left: readings[0], right: readings[1], after: after.clone() }.into()
        }),
        predicted_readings_mm: readings,
        before_mm: before.offset_mm,
        after_mm: after.offset_mm,
        predicted_mm: predicted,
        measured_mm: measured,
        uncertainty_mm: uncertainty,
        prediction_uncertainty_mm: predicted_good_to,
        landing_mm: landing.map(|(at, _)| at),
        landing_uncertainty_mm: landing.map(|(_, u)| u),
        agrees,
        says: ProveMessage::Movement { predicted, measured, agrees }.into(),
        working: Working { title: Heading::Movement, steps },
    }
}
