//! Stage Prove.

use crate::{Spoken, say};
use derecho_core::measure::centring::Centring;
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::{Angle, Length, Phrase, Stress};
use derecho_core::parts::BracketEnd;
use derecho_job::message::Label;
use derecho_job::prove::message::{LookFirst, ProveCheck, ProveMessage};

use derecho_job::document::proof::RoadStep;
use derecho_job::prove::cause::Cause;
use derecho_job::prove::gate::{GateKind, LookKind};
use derecho_job::prove::verdict::ProveVerdict;
use derecho_job::setups::adjuster::ThreadFault;
use derecho_job::verdict::FitCheck;

use super::bar::thread_fault;
use super::tape::cannot_prove;

pub(super) fn prove(message: &ProveMessage) -> Phrase {
    match message {
        ProveMessage::CheckName(check) => check_name(*check),
        ProveMessage::Cause { cause: why, wanted, measured, change, shift } => {
            cause(*why, (*wanted, *measured), change.zip(*shift))
        }
        ProveMessage::Readings { left, right, after } => readings([*left, *right], after),
        ProveMessage::Movement { predicted, measured, agrees } => movement(*predicted, *measured, *agrees),
        ProveMessage::MovedOtherwise { predicted, measured } => moved_otherwise(*predicted, *measured),
        ProveMessage::Stands { after } => stands(after),
        ProveMessage::Links { work } => links(*work),
        ProveMessage::LinksNotFitted => links_not_fitted(),
        ProveMessage::FitLinks => fit_links(),
        ProveMessage::LinksAdvice { work } => links_advice(*work),
        ProveMessage::LinksOpen => links_open(),
        ProveMessage::LinksOpenAdvice => links_open_advice(),
        ProveMessage::Clear => clear(),
        ProveMessage::ClearOpen => clear_open(),
        ProveMessage::Touches => touches(),
        ProveMessage::TouchesAdvice { headline } => touches_advice(&say(headline)),
        ProveMessage::Checked { verdict, after } => checked(*verdict, after),
        ProveMessage::AsNear { after } => as_near(after),
        ProveMessage::FoundCentred { after } => found_centred(after),
        ProveMessage::Says { verdict, after, y_link, fault } => {
            says(*verdict, after, *y_link, fault.as_ref())
        }
        ProveMessage::Advice { verdict, after, refusal, y_link, rounds, fault } => {
            let refusal = refusal.as_ref().map(say);
            advice(*verdict, after, (refusal.as_ref(), *y_link, *rounds), fault.as_ref())
        }
        ProveMessage::BarNow { name, length, left } => bar_now(name, *length, *left),
        ProveMessage::EyeNow { end, hole } => eye_now(*end, hole),
        ProveMessage::LinksNow { link } => links_now(*link),
        ProveMessage::ToolsUsed { tools } => tools_used(tools),
        ProveMessage::AngleCompared { read, wanted, good } => angle_compared(*read, *wanted, *good),
        ProveMessage::LinkCompared { read, wanted, good } => link_compared(*read, *wanted, *good),
        ProveMessage::StillOff { name } => still_off(name),
        ProveMessage::ComplaintOpen { text } => complaint_open(text),
        ProveMessage::TorqueMissing { names } => torque_missing(names),
        ProveMessage::ComplaintAgain { text, worse } => complaint_again(text, *worse),
        ProveMessage::RoadStopped { step, note } => road_stopped(*step, note),
        ProveMessage::Named { kind, names } => named(*kind, names),
        ProveMessage::DoesNotFit { check } => does_not_fit(check),
        ProveMessage::StepsOpen { open, of } => steps_open(*open, *of),
        ProveMessage::SwayBarOverstressed { stress, takes } => sway_bar_overstressed(*stress, *takes),
        ProveMessage::TrackBarOverloaded { name, margin } => track_bar_overloaded(name, *margin),
        ProveMessage::StickOutOff { off } => stick_out_off(off),
        ProveMessage::NotRight { kind } => not_right(*kind),
        ProveMessage::NotLookedAt { kind } => not_looked_at(*kind),
        ProveMessage::Odometer { reads, unit } => odometer(*reads, unit),
        ProveMessage::AfterFirstDay => after_first_day(),
        ProveMessage::AfterFifty => after_fifty(),
        ProveMessage::AfterFiveHundred => after_five_hundred(),
        ProveMessage::AfterFirstTrail => after_first_trail(),
        ProveMessage::AfterTwoWeeks => after_two_weeks(),
        ProveMessage::Temporary { name, until } => temporary(name, until),
        ProveMessage::CheckByFeel { names } => check_by_feel(names),
        ProveMessage::LookFirst(look) => look_first(*look),
    }
}

pub(crate) fn cause(
    cause: Cause,
    (wanted, measured): (Length, Length),
    change: Option<(Length, Length)>,
) -> Phrase {
    match cause {
        Cause::ReadWhileHanging => Phrase::plain(
            "These readings were taken while it hung: they prove nothing. Set it on its own weight, bounce it, read again.",
        ),
        Cause::HeightChanged => Phrase::of(|w| {
            match change {
                Some((change, shift)) => format!(
                    "The body stands {} {} than before. That alone moves the axle: {}. Bring it to the same height and read again.",
                    w.distance(change),
                    if change > Length::ZERO { "higher" } else { "lower" },
                    w.movement(shift)
                ),
                None => "It was read at another height than it is driven at. Bring it to the driven height and read again.".to_owned(),
            }
        }),
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

pub(crate) fn readings([left, right]: [Length; 2], after: &Centring) -> Phrase {
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

pub(crate) fn movement(predicted: Length, measured: Length, agrees: bool) -> Phrase {
    Phrase::of(|w| {
        let verdict = if agrees { "as predicted" } else { "not as predicted" };
        format!("Predicted {}, measured {}: {verdict}.", w.movement(predicted), w.movement(measured))
    })
}

pub(crate) fn moved_otherwise(predicted: Length, measured: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Predicted {}, measured {}. Bounce it and read both sides once more, on a sheet of its own: where that says the same, it is so.",
            w.movement(predicted),
            w.movement(measured)
        )
    })
}

pub(crate) fn stands(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!("It sits {}, give or take {}.", w.sideways(after.offset_mm), w.fine(after.uncertainty_mm))
    })
}

pub(crate) fn links(work: bool) -> Phrase {
    Phrase::plain(if work {
        "The sway links work over the whole travel"
    } else {
        "The sway links do not work over the whole travel"
    })
}

pub(crate) fn links_not_fitted() -> Phrase {
    Phrase::plain("The planned sway links are not fitted yet")
}

pub(crate) fn fit_links() -> Phrase {
    Phrase::plain(
        "They work over the whole travel. Set and hang them in the order of stage Bolt-up, then record them in stage Sway.",
    )
}

pub(crate) fn links_advice(work: bool) -> Phrase {
    Phrase::plain(if work {
        "Nothing else was worked on. Cycle it on the vehicle, road test, ask the complaints again, then settle it."
    } else {
        "Back to stage Sway: it says which length works."
    })
}

pub(crate) fn links_open() -> Phrase {
    Phrase::plain("Centred, but the sway links are not measured yet")
}

pub(crate) fn links_open_advice() -> Phrase {
    Phrase::plain("They belong to this job's work: stage Sway asks for them.")
}

pub(crate) fn clear() -> Phrase {
    Phrase::plain("Nothing that was measured ends the travel before its stops.")
}

pub(crate) fn clear_open() -> Phrase {
    Phrase::plain("Nothing that could touch was measured: cycle it on the vehicle and look.")
}

pub(crate) fn touches() -> Phrase {
    Phrase::plain("Centred, but something still ends the travel")
}

pub(crate) fn touches_advice(headline: &Phrase) -> Phrase {
    Phrase::of(|w| format!("Stage Cycle has it: {}.", headline.in_unit(w.unit())))
}

/// Somebody's work looked at: nothing was set here.
pub(crate) fn checked(verdict: ProveVerdict, after: &Centring) -> Phrase {
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
pub(crate) fn as_near(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        if w.shows_nothing(after.offset_mm) {
            return "As planned: centred as near as this bar goes".to_owned();
        }
        format!("As planned: {}, as near as this bar goes", w.sideways(after.offset_mm))
    })
}

/// Nothing was set, and nothing had to be.
pub(crate) fn found_centred(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!("Centred as found, within {}: nothing had to be set", w.distance(after.tolerance_mm))
    })
}

/// `fault` is what is wrong with the thread that is in.
pub(crate) fn says(
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

pub(crate) fn advice(
    verdict: ProveVerdict,
    after: &Centring,
    (refusal, y_link, rounds): (Option<&Phrase>, bool, usize),
    fault: Option<&ThreadFault>,
) -> Phrase {
    if let Some(fault) = fault {
        return Phrase::of(|w| format!("{} Back to stage Bar.", thread_fault(w, fault)));
    }
    if let Some(refusal) = refusal {
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
pub(crate) fn bar_now(name: &str, length: Length, left: Option<(Length, Length)>) -> Phrase {
    Phrase::of(|w| {
        let bar = if name.is_empty() { "The bar" } else { name };
        let rest = left.map_or_else(String::new, |(shorter, longer)| {
            format!("; it can still go {} shorter and {} longer", w.fine(shorter), w.fine(longer))
        });
        format!("{bar}: {} eye to eye{rest}.", w.fine(length))
    })
}

pub(crate) fn eye_now(end: BracketEnd, hole: &str) -> Phrase {
    let end = if end == BracketEnd::Axle { "Axle" } else { "Frame" };
    Phrase::plain(&format!("{end} eye in {hole}."))
}

pub(crate) fn links_now(link: Length) -> Phrase {
    Phrase::of(|w| format!("Sway links: {} eye to eye.", w.fine(link)))
}

pub(crate) fn tools_used(tools: &[String]) -> Phrase {
    Phrase::plain(&format!("On the bench: {}.", tools.join(", ")))
}

pub(crate) fn angle_compared(read: Angle, wanted: Angle, good: bool) -> Phrase {
    let advice = if good {
        "as predicted."
    } else {
        "Which hole is the eye in? Does it stand at the driven height? Was the finder zeroed on level?"
    };
    let reported = if good { "" } else { "otherwise than predicted. " };
    Phrase::plain(&format!("{} read, {} predicted: {reported}{advice}", degrees(read), degrees(wanted)))
}

pub(crate) fn link_compared(read: Length, wanted: Length, good: bool) -> Phrase {
    Phrase::of(|w| {
        let reported = if good {
            "as planned."
        } else {
            "not as planned. Set it again with its partner beside it, before the jam nuts are tight."
        };
        format!("{} read, {} planned: {reported}", w.fine(read), w.fine(wanted))
    })
}

pub(crate) fn still_off(name: &str) -> Phrase {
    Phrase::plain(&format!(
        "Still off the vehicle: {name}. Put it back in stage Bolt-up, or say why it stays off."
    ))
}

pub(crate) fn complaint_open(text: &str) -> Phrase {
    Phrase::plain(&format!("Not asked again after the road test: \u{201c}{}\u{201d}.", text.trim()))
}

pub(crate) fn torque_missing(names: &[Label]) -> Phrase {
    Phrase::plain(&format!(
        "No torque on record, nor why there is none: {}. Stage Bolt-up keeps them.",
        listed(names)
    ))
}

pub(crate) fn complaint_again(text: &str, worse: bool) -> Phrase {
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

pub(crate) fn road_stopped(step: RoadStep, note: &str) -> Phrase {
    let note = note.trim().trim_end_matches('.');
    let note = if note.is_empty() { String::new() } else { format!(": {note}") };
    Phrase::plain(&format!("The road test was stopped {}{note}.", road_step(step)))
}

/// Fasteners or parts that stand in the way, by name.
pub(crate) fn named(kind: GateKind, names: &[Label]) -> Phrase {
    let names = listed(names);
    Phrase::plain(&match kind {
        GateKind::TorqueOther => format!("Tightened otherwise than wanted: {names}. Tighten again."),
        GateKind::TorqueFromMemory => {
            format!("Torque from memory, unconfirmed: {names}. Look it up in the part's own sheet.")
        }
        _ => format!("Missing or the wrong one: {names}."),
    })
}

pub(crate) fn does_not_fit(check: &FitCheck) -> Phrase {
    let says = say(&check.says);
    Phrase::of(|w| {
        let says = says.in_unit(w.unit());
        let mut name = check.name.inches();
        if let Some(first) = name.get_mut(..1) {
            first.make_ascii_uppercase();
        }
        format!("{name}: {says}")
    })
}

pub(crate) fn steps_open(open: usize, of: usize) -> Phrase {
    Phrase::plain(&format!("{open} of {of} steps in stage Bolt-up are neither ticked nor struck out."))
}

pub(crate) fn sway_bar_overstressed(stress: Stress, takes: Stress) -> Phrase {
    Phrase::plain(&format!(
        "The sway bar is twisted past what its steel takes: {:.0} of {:.0} MPa cross-axled. Another hole, a thicker bar or less travel.",
        stress.to_mpa(),
        takes.to_mpa()
    ))
}

pub(crate) fn track_bar_overloaded(name: &str, margin: f64) -> Phrase {
    let name = if name.is_empty() { "The track bar" } else { name };
    Phrase::plain(&format!(
        "{name} stands {margin:.2} times the load it carries here, by estimate. A stronger bar, or a straighter one."
    ))
}

pub(crate) fn stick_out_off(off: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The sway bar sits {}: slide it until it sticks out equally on both sides.",
            w.sideways(off.offset_mm)
        )
    })
}

pub(crate) fn not_right(kind: LookKind) -> Phrase {
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

pub(crate) fn not_looked_at(kind: LookKind) -> Phrase {
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

pub(crate) fn odometer(reads: f64, unit: &str) -> Phrase {
    Phrase::plain(&format!("at {reads:.0} {unit}"))
}

pub(crate) fn after_first_day() -> Phrase {
    Phrase::plain("After the first day: torque everything again, look at the paint marks.")
}

pub(crate) fn after_fifty() -> Phrase {
    Phrase::plain("After 50 miles (80 km), or three days: torque everything again.")
}

pub(crate) fn after_five_hundred() -> Phrase {
    Phrase::plain("After 500 miles (800 km), or a month: torque everything again, read both sides.")
}

pub(crate) fn after_first_trail() -> Phrase {
    Phrase::plain("After the first day off the road: torque, paint marks, lines and looms.")
}

pub(crate) fn after_two_weeks() -> Phrase {
    Phrase::plain("After two weeks: how does it feel? Ask the complaints again.")
}

pub(crate) fn temporary(name: &str, until: &str) -> Phrase {
    Phrase::plain(&format!("There for a while only: {name}. To replace it: {until}."))
}

pub(crate) fn check_by_feel(names: &[Label]) -> Phrase {
    Phrase::plain(&format!("Tightened by feel or otherwise than wanted: {}. Torque them.", listed(names)))
}

fn look_first(look: LookFirst) -> Phrase {
    match look {
        LookFirst::Play(Some(play)) => Phrase::of(|w| {
            format!(
                "Play: the bolts have {} in their holes. A sleeve or the bolt's own size takes it out.",
                w.fine(play)
            )
        }),
        LookFirst::Play(None) => Phrase::plain(
            "Play: oval holes, bolts thinner than their holes, torn bushings. Have somebody turn the steering wheel to and fro while you hold the eye.",
        ),
        LookFirst::Bracket => {
            Phrase::plain("A bracket that moves: paint marks across it, watch it while the body is shoved.")
        }
        LookFirst::Angle(Some(angle)) => Phrase::plain(&format!(
            "Angle: the bar stands at {} as it is driven. Stage Bracket levels it; the length alone does not.",
            degrees(angle)
        )),
        LookFirst::Angle(None) => {
            Phrase::plain("Angle: measure the bar in stage Bar; a steep one steps sideways at every bump.")
        }
        LookFirst::Offset(Some(Some(off))) => Phrase::of(|w| {
            format!("Offset: the axle is {}. Stage Bar says what length centres it.", w.sideways(off))
        }),
        LookFirst::Offset(Some(None)) => Phrase::plain(
            "Offset: the axle reads centred. Look for a wheel or a tyre that differs from its partner.",
        ),
        LookFirst::Offset(None) => Phrase::plain("Offset: read both sides in stage Tape."),
        LookFirst::DragLink(true) => Phrase::plain(
            "Drag link against bar: stages Bracket and Cycle tell both angles and the bump steer.",
        ),
        LookFirst::DragLink(false) => Phrase::plain(
            "Drag link: measure it in stage Tape; one that lies otherwise than the bar steers over bumps.",
        ),
        LookFirst::Links(Some(true)) => Phrase::plain(
            "Links: they work over the whole travel. Look at holes and rate in stage Sway, road against trail.",
        ),
        LookFirst::Links(Some(false)) => {
            Phrase::plain("Links: they do not work over the travel. Stage Sway gives the window that does.")
        }
        LookFirst::Links(None) => Phrase::plain(
            "Links and bar: measure them in stage Sway; a stiff bar or a short link lifts a wheel early.",
        ),
        LookFirst::Steering => Phrase::plain(
            "Joints, bearings, damper and toe of the steering: looked at by whoever is qualified for it.",
        ),
        LookFirst::Wheel => {
            Phrase::plain("Steering wheel: the drag link's length sets it, once the axle is centred.")
        }
    }
}

/// What a check is of.
fn check_name(check: ProveCheck) -> Phrase {
    Phrase::plain(match check {
        ProveCheck::BarAngle => "bar's angle",
        ProveCheck::LeftLink => "left sway link",
        ProveCheck::RightLink => "right sway link",
        ProveCheck::Clear => "clear over its travel",
        ProveCheck::SwayLinks => "sway links",
        ProveCheck::Axle => "the axle under the frame",
    })
}

/// Names in a row.
fn listed(names: &[Label]) -> String {
    names.iter().map(Label::inches).collect::<Vec<_>>().join(", ")
}
