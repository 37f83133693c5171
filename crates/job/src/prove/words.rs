//! Every sentence of stage Prove.

use derecho_core::bar::FrontView;
use derecho_core::measure::centring::Centring;
use derecho_core::measure::{Length, Phrase};

use super::cause::{Cause, Moved, height_change};
use super::verdict::ProveVerdict;
use crate::bar::words::thread_fault;
use crate::document::Sheet;
use crate::setups::adjuster::ThreadFault;
use crate::tape::SheetResult;

pub(super) fn cause(
    cause: Cause,
    movement: Option<&Moved>,
    (before, sheet): (Option<&Sheet>, &Sheet),
    view: Option<&FrontView>,
) -> Phrase {
    let zero = Length::ZERO;
    let (wanted, measured) = movement.map_or((zero, zero), |m| (-m.before, m.measured));
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

pub(super) fn readings([left, right]: [Length; 2], after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The left should read {} and reads {}; the right should read {} and reads {}.",
            w.distance(left),
            w.distance(after.left_mean_mm),
            w.distance(right),
            w.distance(after.right_mean_mm)
        )
    })
}

pub(super) fn movement(predicted: Length, measured: Length, agrees: bool) -> Phrase {
    Phrase::of(|w| {
        let verdict = if agrees { "as predicted" } else { "not as predicted" };
        format!("Predicted {}, measured {}: {verdict}.", w.movement(predicted), w.movement(measured))
    })
}

pub(super) fn stands(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!("It sits {}, give or take {}.", w.sideways(after.offset_mm), w.fine(after.uncertainty_mm))
    })
}

pub(super) fn links(work: bool) -> Phrase {
    Phrase::plain(if work {
        "The sway links work over the whole travel"
    } else {
        "The sway links do not work over the whole travel"
    })
}

pub(super) fn links_advice(work: bool) -> Phrase {
    Phrase::plain(if work {
        "Nothing else was worked on. Cycle it on the vehicle, road test, ask the complaints again, then settle it."
    } else {
        "Back to stage Sway: it says which length works."
    })
}

/// `fault` is what is wrong with the thread that is in.
pub(super) fn says(
    verdict: ProveVerdict,
    after: &Centring,
    y_link: bool,
    fault: Option<&ThreadFault>,
) -> Phrase {
    if fault.is_some() {
        return Phrase::plain("Not proved: the bar must not stay as it is set");
    }
    Phrase::of(|w| match verdict {
        ProveVerdict::CanSettle => format!("Proved: centred within {}", w.distance(after.tolerance_mm)),
        ProveVerdict::BackToBar => match w.sideways(after.offset_mm) {
            rounded if rounded == "centred" => "Still off by less than the tape shows".to_owned(),
            sideways => format!("Still {sideways}"),
        },
        ProveVerdict::PlanNotFitted => "Centred, but the chosen plan is not fitted yet".to_owned(),
        ProveVerdict::BackToSway => links(false).in_unit(w.unit()).to_owned(),
        ProveVerdict::ReadAgain if y_link => "Not proved: read again on its weight".to_owned(),
        ProveVerdict::ReadAgain => "Not proved: read again".to_owned(),
    })
}

pub(super) fn advice(
    verdict: ProveVerdict,
    after: &Centring,
    (result, y_link, rounds): (&SheetResult, bool, usize),
    fault: Option<&ThreadFault>,
) -> Phrase {
    if let Some(fault) = fault {
        return Phrase::of(|w| format!("{} Back to stage Bar.", thread_fault(w, fault)));
    }
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
            ProveVerdict::CanSettle if rounds == 0 => {
                format!("{reading} Nothing was set. Road test, ask the complaints again, then settle it.")
            }
            ProveVerdict::CanSettle => {
                format!("{reading} Road test, ask the complaints again, then settle it.")
            }
            ProveVerdict::BackToBar if y_link => {
                format!(
                    "{reading} Turn one leg of the Y-link, or both by opposite amounts, and record it here."
                )
            }
            ProveVerdict::BackToBar => {
                format!("{reading} Back to stage Bar: it starts from the length set now.")
            }
            ProveVerdict::PlanNotFitted => {
                format!(
                    "{reading} Fit what was chosen in stage Bracket and read again, or choose the length alone."
                )
            }
            ProveVerdict::BackToSway => links_advice(false).in_unit(w.unit()).to_owned(),
            ProveVerdict::ReadAgain if !after.method_can_prove => format!(
                "{reading} This way of reading cannot prove {}: read from frame to hub, or more often.",
                w.distance(after.tolerance_mm)
            ),
            ProveVerdict::ReadAgain => format!("{reading} Repeat them until they are surer than that."),
        }
    })
}
