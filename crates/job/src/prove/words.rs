//! Every sentence of stage Prove.

use derecho_core::bar::FrontView;
use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::{Angle, Length, Phrase, Stress};
use derecho_core::parts::BracketEnd;

use super::cause::{Cause, Moved, height_change};
use super::gate::{GateKind, LookKind};
use super::verdict::ProveVerdict;
use crate::bar::BarResult;
use crate::bar::words::thread_fault;
use crate::document::proof::RoadStep;
use crate::document::{ComplaintAbout, Sheet};
use crate::setups::adjuster::ThreadFault;
use crate::tape::{SheetResult, cannot_prove};
use crate::verdict::FitCheck;

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

pub(super) fn moved_otherwise(predicted: Length, measured: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Predicted {}, measured {}. Bounce it and read both sides once more, on a sheet of its own: where that says the same, it is so.",
            w.movement(predicted),
            w.movement(measured)
        )
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

pub(super) fn links_not_fitted() -> Phrase {
    Phrase::plain("The planned sway links are not fitted yet")
}

pub(super) fn fit_links() -> Phrase {
    Phrase::plain(
        "They work over the whole travel. Set and hang them in the order of stage Bolt-up, then record them in stage Sway.",
    )
}

pub(super) fn links_advice(work: bool) -> Phrase {
    Phrase::plain(if work {
        "Nothing else was worked on. Cycle it on the vehicle, road test, ask the complaints again, then settle it."
    } else {
        "Back to stage Sway: it says which length works."
    })
}

pub(super) fn links_open() -> Phrase {
    Phrase::plain("Centred, but the sway links are not measured yet")
}

pub(super) fn links_open_advice() -> Phrase {
    Phrase::plain("They belong to this job's work: stage Sway asks for them.")
}

pub(super) fn clear() -> Phrase {
    Phrase::plain("Nothing that was measured ends the travel before its stops.")
}

pub(super) fn clear_open() -> Phrase {
    Phrase::plain("Nothing that could touch was measured: cycle it on the vehicle and look.")
}

pub(super) fn touches() -> Phrase {
    Phrase::plain("Centred, but something still ends the travel")
}

pub(super) fn touches_advice(headline: &Phrase) -> Phrase {
    Phrase::of(|w| format!("Stage Cycle has it: {}.", headline.in_unit(w.unit())))
}

/// Somebody's work looked at: nothing was set here.
pub(super) fn checked(verdict: ProveVerdict, after: &Centring) -> Phrase {
    Phrase::of(|w| match verdict {
        ProveVerdict::CanSettle => {
            format!("The work holds: centred within {}", w.distance(after.tolerance_mm))
        }
        ProveVerdict::BackToBar if w.shows_nothing(after.offset_mm) => {
            "Off by less than the tape shows".to_owned()
        }
        ProveVerdict::BackToBar => format!("The axle sits {}", w.sideways(after.offset_mm)),
        _ => "No telling yet whether the work holds: read again".to_owned(),
    })
}

/// As near as the bar goes, though not proved to the tolerance.
pub(super) fn as_near(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        if w.shows_nothing(after.offset_mm) {
            return "As planned: centred as near as this bar goes".to_owned();
        }
        format!("As planned: {}, as near as this bar goes", w.sideways(after.offset_mm))
    })
}

/// Nothing was set, and nothing had to be.
pub(super) fn found_centred(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!("Centred as found, within {}: nothing had to be set", w.distance(after.tolerance_mm))
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
        ProveVerdict::BackToBar if w.shows_nothing(after.offset_mm) => {
            "Still off by less than the tape shows".to_owned()
        }
        ProveVerdict::BackToBar => format!("Still {}", w.sideways(after.offset_mm)),
        ProveVerdict::PlanNotFitted if y_link => "Centred, but the work is not done yet".to_owned(),
        ProveVerdict::PlanNotFitted => "Centred, but the chosen plan is not fitted yet".to_owned(),
        ProveVerdict::NotDecided => {
            "Centred, but the bracket that is urged is neither fitted nor declined".to_owned()
        }
        ProveVerdict::BackToSway => links(false).in_unit(w.unit()).to_owned(),
        ProveVerdict::BackToCycle => touches().in_unit(w.unit()).to_owned(),
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
            ProveVerdict::BackToBar if rounds == 0 => {
                format!("{reading} Stage Bar says what length centres it.")
            }
            ProveVerdict::BackToBar => {
                format!("{reading} Back to stage Bar: it starts from the length set now.")
            }
            ProveVerdict::PlanNotFitted if y_link => {
                format!("{reading} Do what stage Bolt-up lists, record here what was done, and read again.")
            }
            ProveVerdict::PlanNotFitted => {
                format!(
                    "{reading} Fit it as stage Bolt-up lists it and read again, or choose otherwise in stage Bracket."
                )
            }
            ProveVerdict::NotDecided => {
                format!("{reading} Choose a hole in stage Bracket, or choose the length alone there.")
            }
            ProveVerdict::BackToSway => links_advice(false).in_unit(w.unit()).to_owned(),
            ProveVerdict::BackToCycle => format!("{reading} Stage Cycle shows where it touches."),
            ProveVerdict::ReadAgain if !after.repeats_can_tell => {
                format!("{reading} {}", cannot_prove(w, after))
            }
            ProveVerdict::ReadAgain => format!("{reading} Repeat them until they are surer than that."),
        }
    })
}

/// The bar as it is left, and how far it still goes either way.
pub(super) fn bar_now(name: &str, length: Length, left: Option<(Length, Length)>) -> Phrase {
    Phrase::of(|w| {
        let bar = if name.is_empty() { "The bar" } else { name };
        let rest = left.map_or_else(String::new, |(shorter, longer)| {
            format!("; it can still go {} shorter and {} longer", w.fine(shorter), w.fine(longer))
        });
        format!("{bar}: {} eye to eye{rest}.", w.fine(length))
    })
}

pub(super) fn eye_now(end: BracketEnd, hole: &str) -> Phrase {
    let end = if end == BracketEnd::Axle { "Axle" } else { "Frame" };
    Phrase::plain(&format!("{end} eye in {hole}."))
}

pub(super) fn links_now(link: Length) -> Phrase {
    Phrase::of(|w| format!("Sway links: {} eye to eye.", w.fine(link)))
}

pub(super) fn tools_used(tools: &[String]) -> Phrase {
    Phrase::plain(&format!("On the bench: {}.", tools.join(", ")))
}

pub(super) fn angle_compared(read: Angle, wanted: Angle, good: bool) -> Phrase {
    let advice = if good {
        "as predicted."
    } else {
        "Which hole is the eye in? Does it stand at the driven height? Was the finder zeroed on level?"
    };
    let told = if good { "" } else { "otherwise than predicted. " };
    Phrase::plain(&format!("{} read, {} predicted: {told}{advice}", degrees(read), degrees(wanted)))
}

pub(super) fn link_compared(read: Length, wanted: Length, good: bool) -> Phrase {
    Phrase::of(|w| {
        let told = if good {
            "as planned."
        } else {
            "not as planned. Set it again with its partner beside it, before the jam nuts are tight."
        };
        format!("{} read, {} planned: {told}", w.fine(read), w.fine(wanted))
    })
}

pub(super) fn still_off(name: &str) -> Phrase {
    Phrase::plain(&format!(
        "Still off the vehicle: {name}. Put it back in stage Bolt-up, or say why it stays off."
    ))
}

pub(super) fn complaint_open(text: &str) -> Phrase {
    Phrase::plain(&format!("Not asked again after the road test: \u{201c}{}\u{201d}.", text.trim()))
}

pub(super) fn torque_missing(names: &[String]) -> Phrase {
    Phrase::plain(&format!(
        "No torque on record, nor why there is none: {}. Stage Bolt-up keeps them.",
        names.join(", ")
    ))
}

pub(super) fn complaint_again(text: &str, worse: bool) -> Phrase {
    let how = if worse { "Worse than before" } else { "The same as before" };
    Phrase::plain(&format!("{how}: \u{201c}{}\u{201d}.", text.trim()))
}

const fn road_step(step: RoadStep) -> &'static str {
    match step {
        RoadStep::Yard => "in the yard",
        RoadStep::SlowTurns => "in slow turns",
        RoadStep::Dips => "in dips",
        RoadStep::ExpansionJoints => "on expansion joints",
        RoadStep::Swerve => "in the swerve",
        RoadStep::Washboard => "on washboard",
        RoadStep::Highway => "on the highway",
        RoadStep::Trail => "on the trail",
    }
}

pub(super) fn road_stopped(step: RoadStep, note: &str) -> Phrase {
    let note = note.trim().trim_end_matches('.');
    let note = if note.is_empty() { String::new() } else { format!(": {note}") };
    Phrase::plain(&format!("The road test was stopped {}{note}.", road_step(step)))
}

/// Fasteners or parts that stand in the way, by name.
pub(super) fn named(kind: GateKind, names: &[String]) -> Phrase {
    let names = names.join(", ");
    Phrase::plain(&match kind {
        GateKind::TorqueOther => format!("Tightened otherwise than wanted: {names}. Tighten again."),
        GateKind::TorqueFromMemory => {
            format!("Torque from memory, unconfirmed: {names}. Look it up in the part's own sheet.")
        }
        _ => format!("Missing or the wrong one: {names}."),
    })
}

pub(super) fn does_not_fit(check: &FitCheck) -> Phrase {
    Phrase::of(|w| {
        let says = check.says.in_unit(w.unit());
        let mut name = check.name.clone();
        if let Some(first) = name.get_mut(..1) {
            first.make_ascii_uppercase();
        }
        format!("{name}: {says}")
    })
}

pub(super) fn steps_open(open: usize, of: usize) -> Phrase {
    Phrase::plain(&format!("{open} of {of} steps in stage Bolt-up are neither ticked nor struck out."))
}

pub(super) fn sway_bar_overstressed(stress: Stress, takes: Stress) -> Phrase {
    Phrase::plain(&format!(
        "The sway bar is twisted past what its steel takes: {:.0} of {:.0} MPa cross-axled. Another hole, a thicker bar or less travel.",
        stress.to_mpa(),
        takes.to_mpa()
    ))
}

pub(super) fn track_bar_overloaded(name: &str, margin: f64) -> Phrase {
    let name = if name.is_empty() { "The track bar" } else { name };
    Phrase::plain(&format!(
        "{name} stands {margin:.2} times the load it carries here, by estimate. A stronger bar, or a straighter one."
    ))
}

pub(super) fn stick_out_off(off: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The sway bar sits {}: slide it until it sticks out equally on both sides.",
            w.sideways(off.offset_mm)
        )
    })
}

/// A look by the name of its field.
pub(super) const fn look_key(kind: LookKind) -> &'static str {
    match kind {
        LookKind::WheelStraight => "wheel_straight",
        LookKind::Toe => "toe",
        LookKind::Sensors => "sensors",
        LookKind::Lines => "lines",
        LookKind::WheelNuts => "wheel_nuts",
        LookKind::PinsLevel => "pins_level",
        LookKind::StowedClear => "stowed_clear",
    }
}

pub(super) fn not_right(kind: LookKind) -> Phrase {
    Phrase::plain(match kind {
        LookKind::WheelStraight => "The steering wheel is not straight: set it by the drag link.",
        LookKind::Toe => "Toe is not right.",
        LookKind::Sensors => "The stability sensors want their zero.",
        LookKind::Lines => "A line or loom is not free over the whole travel.",
        LookKind::WheelNuts => "The wheel nuts are not torqued.",
        LookKind::PinsLevel => "The pins do not go in and out on level ground.",
        LookKind::StowedClear => "The stowed link does not stay clear.",
    })
}

pub(super) fn not_looked_at(kind: LookKind) -> Phrase {
    Phrase::plain(match kind {
        LookKind::WheelStraight => "Nobody looked whether the steering wheel is straight.",
        LookKind::Toe => "Nobody looked at the toe.",
        LookKind::Sensors => "Nobody looked at the stability sensors.",
        LookKind::Lines => "Nobody looked whether lines and looms are free over the whole travel.",
        LookKind::WheelNuts => "Nobody said that the wheel nuts are torqued.",
        LookKind::PinsLevel => "Nobody tried the pins on level ground.",
        LookKind::StowedClear => "Nobody looked whether the stowed link stays clear.",
    })
}

pub(super) fn odometer(reads: f64, unit: &str) -> Phrase {
    Phrase::plain(&format!("at {reads:.0} {unit}"))
}

pub(super) fn after_first_day() -> Phrase {
    Phrase::plain("After the first day: torque everything again, look at the paint marks.")
}

pub(super) fn after_fifty() -> Phrase {
    Phrase::plain("After 50 miles (80 km), or three days: torque everything again.")
}

pub(super) fn after_five_hundred() -> Phrase {
    Phrase::plain("After 500 miles (800 km), or a month: torque everything again, read both sides.")
}

pub(super) fn after_first_trail() -> Phrase {
    Phrase::plain("After the first day off the road: torque, paint marks, lines and looms.")
}

pub(super) fn after_two_weeks() -> Phrase {
    Phrase::plain("After two weeks: how does it feel? Ask the complaints again.")
}

pub(super) fn temporary(name: &str, until: &str) -> Phrase {
    Phrase::plain(&format!("There for a while only: {name}. To replace it: {until}."))
}

pub(super) fn check_by_feel(names: &[String]) -> Phrase {
    Phrase::plain(&format!("Tightened by feel or otherwise than wanted: {}. Torque them.", names.join(", ")))
}

/// What the sentences about complaints need.
pub(super) struct ComplaintFacts<'a> {
    pub(super) centring: Option<&'a Centring>,
    pub(super) bar: Option<&'a BarResult>,
    pub(super) view: Option<&'a FrontView>,
    pub(super) play: Option<Length>,
    pub(super) drag_link: bool,
    pub(super) links_work: Option<bool>,
}

/// What to look at for a complaint, the likeliest first.
pub(super) fn complaint(about: ComplaintAbout, facts: &ComplaintFacts<'_>) -> Vec<Phrase> {
    let play = || match facts.play {
        Some(play) if play > Length::ZERO => Phrase::of(|w| {
            format!(
                "Play: the bolts have {} in their holes. A sleeve or the bolt's own size takes it out.",
                w.fine(play)
            )
        }),
        _ => Phrase::plain(
            "Play: oval holes, bolts thinner than their holes, torn bushings. Have somebody turn the steering wheel to and fro while you hold the eye.",
        ),
    };
    let bracket =
        || Phrase::plain("A bracket that moves: paint marks across it, watch it while the body is shoved.");
    let angle = || match facts.view {
        Some(view) => {
            let angle = view.angle();
            Phrase::of(|_| {
                format!(
                    "Angle: the bar stands at {} as it is driven. Stage Bracket levels it; the length alone does not.",
                    degrees(angle)
                )
            })
        }
        None => {
            Phrase::plain("Angle: measure the bar in stage Bar; a steep one steps sideways at every bump.")
        }
    };
    let offset = || match facts.centring {
        Some(centring) if centring.answer == Answer::OffCentre => {
            let off = centring.offset_mm;
            Phrase::of(|w| {
                format!("Offset: the axle is {}. Stage Bar says what length centres it.", w.sideways(off))
            })
        }
        Some(_) => Phrase::plain(
            "Offset: the axle reads centred. Look for a wheel or a tyre that differs from its partner.",
        ),
        None => Phrase::plain("Offset: read both sides in stage Tape."),
    };
    let drag_link = || match facts.drag_link {
        true => Phrase::plain(
            "Drag link against bar: stages Bracket and Cycle tell both angles and the bump steer.",
        ),
        false => Phrase::plain(
            "Drag link: measure it in stage Tape; one that lies otherwise than the bar steers over bumps.",
        ),
    };
    let links = || match facts.links_work {
        Some(true) => Phrase::plain(
            "Links: they work over the whole travel. Look at holes and rate in stage Sway, road against trail.",
        ),
        Some(false) => {
            Phrase::plain("Links: they do not work over the travel. Stage Sway gives the window that does.")
        }
        None => Phrase::plain(
            "Links and bar: measure them in stage Sway; a stiff bar or a short link lifts a wheel early.",
        ),
    };
    let steering = || {
        Phrase::plain(
            "Joints, bearings, damper and toe of the steering: looked at by whoever is qualified for it.",
        )
    };
    let wheel = || Phrase::plain("Steering wheel: the drag link's length sets it, once the axle is centred.");
    match about {
        ComplaintAbout::OffCentre => vec![offset()],
        ComplaintAbout::SideStepping => {
            let rate = facts.bar.map(|bar| bar.rate_says.clone());
            [angle()].into_iter().chain(rate).chain([play(), drag_link()]).collect()
        }
        ComplaintAbout::Wander => vec![play(), steering(), drag_link()],
        ComplaintAbout::Wobble => vec![play(), bracket(), steering()],
        ComplaintAbout::Rocking => vec![play(), bracket(), links()],
        ComplaintAbout::Rub => vec![offset(), angle()],
        ComplaintAbout::Clunk => vec![play(), bracket()],
        ComplaintAbout::WheelCrooked => vec![wheel(), drag_link(), offset()],
        ComplaintAbout::LiftsEarly => vec![links()],
    }
}
