//! Stage Prove.

use super::sides;
use crate::marked as say;
use derecho_core::measure::centring::Centring;
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Angle, Length, Phrase, Side, Stress};
use derecho_core::parts::BracketEnd;
use derecho_job::message::Label;
use derecho_job::prove::message::{LookFirst, ProveCheck, ProveMessage};

use derecho_job::document::FittedPart;
use derecho_job::document::hardpoints::ObstaclePart;
use derecho_job::document::proof::RoadStep;
use derecho_job::prove::cause::Cause;
use derecho_job::prove::look::LookKind;
use derecho_job::prove::verdict::ProveVerdict;
use derecho_job::setups::adjuster::ThreadFault;

use super::bar::thread_fault;
use super::bracket::capital;
use super::fit::does_not_fit;
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
        ProveMessage::SwayNotFitted => Phrase::plain("What is planned for the sway bar is not installed yet"),
        ProveMessage::FitSway => {
            Phrase::plain("Finish the steps on the Bolt-up screen, then record what was installed.")
        }
        ProveMessage::LinksUnmeasured => {
            Phrase::plain("Installed; the sway links are not measured over the travel")
        }
        ProveMessage::LinksUnmeasuredAdvice => Phrase::plain(
            "Look at the sway bar and its links from full droop to full bump, or measure them on the Sway screen.",
        ),
        ProveMessage::Clear => clear(),
        ProveMessage::ClearOpen => clear_open(),
        ProveMessage::ClearLooked => {
            Phrase::plain("You looked: it stays clear from full bump to full droop.")
        }
        ProveMessage::Touches => touches(),
        ProveMessage::TouchesAdvice { headline } => touches_advice(&say(headline)),
        ProveMessage::Checked { verdict, after } => checked(*verdict, after),
        ProveMessage::AsNear { after } => as_near(after),
        ProveMessage::FoundCentred { after } => found_centred(after),
        ProveMessage::Says { verdict, after, y_link, fault } => {
            says(*verdict, after, *y_link, fault.as_ref())
        }
        ProveMessage::Advice {
            verdict,
            after,
            refusal,
            y_link,
            rounds,
            fault,
            eye_suspected,
            cause_open,
        } => {
            let refusal = refusal.as_ref().map(say);
            let way = if *eye_suspected && *verdict == ProveVerdict::BackToBar {
                Way::MeasureTheEye
            } else if *y_link {
                Way::YLink
            } else if *cause_open {
                Way::FindTheCause
            } else {
                Way::Bar
            };
            advice(*verdict, after, (refusal.as_ref(), way, *rounds), fault.as_ref())
        }
        ProveMessage::BarNow { name, length, left } => bar_now(name, *length, *left),
        ProveMessage::EyeNow { end, hole, up, outward } => eye_now(*end, hole, (*up, *outward)),
        ProveMessage::DragLinkNow { length } => {
            let length = *length;
            Phrase::of(|w| format!("Drag link: {} eye to eye.", w.fine(length)))
        }
        ProveMessage::LinksNow { link, hole } => links_now(*link, *hole),
        ProveMessage::ToolsUsed { tools } => tools_used(tools),
        ProveMessage::AngleCompared { read, wanted, good } => angle_compared(*read, *wanted, *good),
        ProveMessage::LinkCompared { read, wanted, good } => link_compared(*read, *wanted, *good),
        ProveMessage::StillOff { name } => still_off(name),
        ProveMessage::ComplaintOpen { text } => complaint_open(text),
        ProveMessage::TorqueMissing { names } => torque_missing(names),
        ProveMessage::ComplaintAgain { text, worse } => complaint_again(text, *worse),
        ProveMessage::RoadStopped { step, note } => road_stopped(*step, note),
        ProveMessage::TorqueOther { names } => torque_other(names),
        ProveMessage::TorqueFromMemory { names } => torque_from_memory(names),
        ProveMessage::PartWrong { names } => part_wrong(names),
        ProveMessage::TravelEnds { ends } => travel_ends(&say(ends)),
        ProveMessage::PartsNotMeasured { parts } => parts_not_measured(parts),
        ProveMessage::ClearanceNotChecked => Phrase::plain(
            "Clearance over the travel is not checked: nothing near the bar was measured. Measure it on the Cycle screen, or cycle the axle, look, and say so on the Prove screen.",
        ),
        ProveMessage::ThreadEngaged { fault } => {
            Phrase::of(|w| format!("{} Go back to the Bar screen.", thread_fault(w, fault)))
        }
        ProveMessage::DoesNotFit { check } => does_not_fit(check),
        ProveMessage::StepsOpen { open, of } => steps_open(*open, *of),
        ProveMessage::SwayBarOverstressed { stress, takes } => sway_bar_overstressed(*stress, *takes),
        ProveMessage::Steers { over_bumps, angle } => steers(*over_bumps, *angle),
        ProveMessage::Installs { part, name } => Phrase::plain(&installs(*part, name)),
        ProveMessage::TrackBarOverloaded { name, margin } => track_bar_overloaded(name, *margin),
        ProveMessage::StickOutOff { off, driver } => stick_out_off(off, *driver),
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
        ProveMessage::Misplaced { end, up, outward, uncertainty, angle, by_angle } => {
            misplaced(*end, (*up, *outward), *uncertainty, (*angle, *by_angle))
        }
    }
}

/// Where an eye would sit, were that why the axle moved otherwise; heights + up, sideways + out.
fn misplaced(
    end: BracketEnd,
    (up, outward): (Length, Length),
    uncertainty: Length,
    (angle, by_angle): (Angle, bool),
) -> Phrase {
    let eye = if end == BracketEnd::Frame { "frame eye" } else { "axle eye" };
    Phrase::of(|w| {
        let place = elsewhere(w, (up, outward));
        let so = format!(
            "The {eye} {place} than planned explains the movement, give or take {}.",
            w.distance(uncertainty)
        );
        if by_angle {
            format!("{so} The bar angle you read fits it.")
        } else {
            format!("{so} An angle finder on the bar would then read {}.", degrees(angle))
        }
    })
}

pub(crate) fn cause(
    cause: Cause,
    (wanted, measured): (Length, Length),
    change: Option<(Length, Length)>,
) -> Phrase {
    match cause {
        Cause::ReadWhileHanging => Phrase::plain(
            "These were measured with the axle hanging, so they prove nothing. Set it on its wheels, bounce it, measure again.",
        ),
        Cause::HeightChanged => Phrase::of(|w| {
            match change {
                Some((change, shift)) => format!(
                    "The body is {} {} than before. That alone moves the axle: {}. Bring it back to the same height and measure again.",
                    w.distance(change),
                    if change > Length::ZERO { "higher" } else { "lower" },
                    w.movement(shift)
                ),
                None => "Measured at a different height than it is driven. Bring it to the driven height and measure again.".to_owned(),
            }
        }),
        Cause::FullDifferenceUsed => Phrase::of(|w| {
            format!(
                "It should have moved {} but moved {}, about twice as far: the bar was set by the full left-right difference instead of half.",
                w.movement(wanted),
                w.movement(measured)
            )
        }),
        Cause::SignTurned => Phrase::of(|w| {
            format!(
                "It should have moved {} but moved {}. The bar was turned the wrong way, or left and right got swapped.",
                w.movement(wanted),
                w.movement(measured)
            )
        }),
        Cause::NotMoved => Phrase::plain(
            "The axle hardly moved. Did you measure the bar eye to eye after turning it? Did you bounce it? Is a bolt hole oval?",
        ),
        Cause::EyeElsewhere => Phrase::of(|w| {
            format!(
                "It moved {}. None of the usual causes fits, but an eye you moved may not be where it was planned: measure it.",
                w.movement(measured)
            )
        }),
        Cause::Unexplained => Phrase::of(|w| {
            format!(
                "It moved {} and none of the usual causes fits. Measure the bar eye to eye, look for oval bolt holes and torn bushings, and measure again from the same points.",
                w.movement(measured)
            )
        }),
    }
}

pub(crate) fn readings([left, right]: [Length; 2], after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Left should measure {} and measures {}; right should measure {} and measures {}.",
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
            "Predicted {}, measured {}. Bounce it and measure both sides again as a new set: if that says the same, believe it.",
            w.movement(predicted),
            w.movement(measured)
        )
    })
}

pub(crate) fn stands(after: &Centring) -> Phrase {
    Phrase::of(|w| format!("The axle is {}, ±{}.", w.sideways(after.offset_mm), w.fine(after.uncertainty_mm)))
}

pub(crate) fn links(work: bool) -> Phrase {
    Phrase::plain(if work {
        "The sway links work over full travel"
    } else {
        "The sway links don't work over full travel"
    })
}

pub(crate) fn links_not_fitted() -> Phrase {
    Phrase::plain("The planned sway links are not installed yet")
}

pub(crate) fn fit_links() -> Phrase {
    Phrase::plain(
        "They work over full travel. Set and install them in the order on the Bolt-up screen, then record them: sway links on the Sway screen, parts on this one.",
    )
}

pub(crate) fn links_advice(work: bool) -> Phrase {
    Phrase::plain(if work {
        "Nothing else was worked on. Cycle it, road test it, go back over the complaints, then close the job."
    } else {
        "Go back to the Sway screen: it gives a length that works."
    })
}

pub(crate) fn links_open() -> Phrase {
    Phrase::plain("Centered, but the sway links are not measured yet")
}

pub(crate) fn links_open_advice() -> Phrase {
    Phrase::plain("They are part of this job: enter them on the Sway screen.")
}

pub(crate) fn clear() -> Phrase {
    Phrase::plain("Nothing that was measured gets in the way before the bump stops.")
}

pub(crate) fn clear_open() -> Phrase {
    Phrase::plain("Nothing nearby has been measured: cycle the vehicle and look.")
}

pub(crate) fn touches() -> Phrase {
    Phrase::plain("Centered, but something still stops the travel early")
}

pub(crate) fn touches_advice(headline: &Phrase) -> Phrase {
    Phrase::of(|w| format!("See the Cycle screen: {}.", headline.in_unit(w.unit())))
}

/// Somebody's work looked at: nothing was set here.
pub(crate) fn checked(verdict: ProveVerdict, after: &Centring) -> Phrase {
    Phrase::of(|w| match verdict {
        ProveVerdict::CanSettle => {
            format!("The work is good: centered within {}", w.distance(after.tolerance_mm))
        }
        ProveVerdict::BackToBar if w.shows_nothing(after.offset_mm) => {
            "Off by less than a tape can show".to_owned()
        }
        ProveVerdict::BackToBar => format!("The axle is {}", w.sideways(after.offset_mm)),
        _ => "Can't say yet if the work is good: measure again".to_owned(),
    })
}

/// As near as the bar goes, though not proved to the tolerance.
pub(crate) fn as_near(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        if w.shows_nothing(after.offset_mm) {
            return "As planned: centered as near as this bar goes".to_owned();
        }
        format!("As planned: {}, as near as this bar goes", w.sideways(after.offset_mm))
    })
}

/// Nothing was set, and nothing had to be.
pub(crate) fn found_centred(after: &Centring) -> Phrase {
    Phrase::of(|w| {
        format!("Centered as found, within {}: nothing had to be set", w.distance(after.tolerance_mm))
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
        return Phrase::plain("Not proved: the bar must not stay at this setting");
    }
    Phrase::of(|w| match verdict {
        ProveVerdict::CanSettle => format!("Proved: centered within {}", w.distance(after.tolerance_mm)),
        ProveVerdict::BackToBar if w.shows_nothing(after.offset_mm) => {
            "Still off by less than a tape can show".to_owned()
        }
        ProveVerdict::BackToBar => format!("Still off center: {}", w.sideways(after.offset_mm)),
        ProveVerdict::PlanNotFitted if y_link => "Centered, but the work is not done yet".to_owned(),
        ProveVerdict::PlanNotFitted => "Centered, but the chosen plan is not installed yet".to_owned(),
        ProveVerdict::NotDecided => {
            "Centered, but the recommended bracket is neither installed nor declined".to_owned()
        }
        ProveVerdict::BackToSway => links(false).in_unit(w.unit()).to_owned(),
        ProveVerdict::BackToCycle => touches().in_unit(w.unit()).to_owned(),
        ProveVerdict::ReadAgain if y_link => "Not proved: measure again on its wheels".to_owned(),
        ProveVerdict::ReadAgain => "Not proved: measure again".to_owned(),
    })
}

/// By what an axle is brought over that is off.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(crate) enum Way {
    /// The bar's length.
    Bar,
    /// The legs of a Y-link.
    YLink,
    /// Where an eye sits is found out first.
    MeasureTheEye,
    /// Why it moved otherwise is found out first.
    FindTheCause,
}

pub(crate) fn advice(
    verdict: ProveVerdict,
    after: &Centring,
    (refusal, way, rounds): (Option<&Phrase>, Way, usize),
    fault: Option<&ThreadFault>,
) -> Phrase {
    if let Some(fault) = fault {
        return Phrase::of(|w| format!("{} Go back to the Bar screen.", thread_fault(w, fault)));
    }
    if let Some(refusal) = refusal {
        return refusal.clone();
    }
    let y_link = way == Way::YLink;
    Phrase::of(|w| {
        let reading = format!("Measured {}, ±{}.", w.sideways(after.offset_mm), w.fine(after.uncertainty_mm));
        match verdict {
            ProveVerdict::CanSettle if rounds == 0 => {
                format!(
                    "{reading} Nothing was adjusted. Road test it, go back over the complaints, then close the job."
                )
            }
            ProveVerdict::CanSettle => {
                format!("{reading} Road test it, go back over the complaints, then close the job.")
            }
            ProveVerdict::BackToBar if way == Way::MeasureTheEye => {
                format!(
                    "{reading} An eye may not be where it was planned: measure it before you set the bar again."
                )
            }
            ProveVerdict::BackToBar if way == Way::FindTheCause => {
                format!(
                    "{reading} It didn't move as predicted: look under Cause before you set the bar again."
                )
            }
            ProveVerdict::BackToBar if y_link => {
                format!(
                    "{reading} Make one leg of the Y-link longer or shorter, or one longer and the other shorter, and record it here."
                )
            }
            ProveVerdict::BackToBar if rounds == 0 => {
                format!("{reading} The Bar screen gives the length that centers it.")
            }
            ProveVerdict::BackToBar => {
                format!("{reading} Go back to the Bar screen: it works from the length set now.")
            }
            ProveVerdict::PlanNotFitted if y_link => {
                format!(
                    "{reading} Do what the Bolt-up screen lists, record here what was done, and measure again."
                )
            }
            ProveVerdict::PlanNotFitted => {
                format!(
                    "{reading} Install it as the Bolt-up screen lists it and measure again, or choose something else on the Bracket screen."
                )
            }
            ProveVerdict::NotDecided => {
                format!("{reading} Choose a hole, or length only, on the Bracket screen.")
            }
            ProveVerdict::BackToSway => links_advice(false).in_unit(w.unit()).to_owned(),
            ProveVerdict::BackToCycle => format!("{reading} The Cycle screen shows what stops the travel."),
            ProveVerdict::ReadAgain if !after.repeats_can_tell => {
                format!("{reading} {}", cannot_prove(w, after))
            }
            ProveVerdict::ReadAgain => format!("{reading} Repeat until the numbers agree better."),
        }
    })
}

/// The bar as it is left, and how far it still goes either way.
pub(crate) fn bar_now(name: &str, length: Length, left: Option<(Length, Length)>) -> Phrase {
    Phrase::of(|w| {
        let bar = if name.is_empty() { "The bar".to_owned() } else { mark(name) };
        let rest = left.map_or_else(String::new, |(shorter, longer)| {
            format!("; {} shorter and {} longer still available", w.fine(shorter), w.fine(longer))
        });
        format!("{bar}: {} eye to eye{rest}.", w.fine(length))
    })
}

pub(crate) fn eye_now(end: BracketEnd, hole: &str, off: (Length, Length)) -> Phrase {
    let end = if end == BracketEnd::Axle { "Axle" } else { "Frame" };
    let hole = super::step::hole_name(hole);
    Phrase::of(|w| {
        let place = elsewhere(w, off);
        let place = if place.is_empty() { place } else { format!(", {place} than planned") };
        format!("{end} end in {hole}{place}.")
    })
}

/// How far an eye is from its place: up, then out; empty where it is there.
pub(super) fn elsewhere(w: Words, (up, outward): (Length, Length)) -> String {
    let height = || format!("{} {}", w.distance(up), if up > Length::ZERO { "higher" } else { "lower" });
    let sideways = || {
        let way = if outward > Length::ZERO { "out" } else { "in" };
        format!("{} further {way}", w.distance(outward))
    };
    match (up == Length::ZERO, outward == Length::ZERO) {
        (false, false) => format!("{} and {}", height(), sideways()),
        (false, true) => height(),
        (true, false) => sideways(),
        (true, true) => String::new(),
    }
}

pub(crate) fn links_now(link: Length, hole: Option<(usize, usize)>) -> Phrase {
    let hole = hole.map_or_else(String::new, |(number, of)| {
        format!(", in hole {number} of {of} of the sway bar arms, counted from the stiff end")
    });
    Phrase::of(|w| format!("Sway links: {} eye to eye{hole}.", w.fine(link)))
}

pub(crate) fn tools_used(tools: &[String]) -> Phrase {
    let tools: Vec<String> = tools.iter().map(|tool| mark(tool)).collect();
    Phrase::plain(&format!("Tools used: {}.", tools.join(", ")))
}

pub(crate) fn angle_compared(read: Angle, wanted: Angle, good: bool) -> Phrase {
    let advice = if good {
        "as predicted."
    } else {
        "Which hole is the bar in? Is it at the driven height? Was the finder zeroed on level?"
    };
    let reported = if good { "" } else { "not as predicted. " };
    Phrase::plain(&format!("Measured {}, predicted {}: {reported}{advice}", degrees(read), degrees(wanted)))
}

pub(crate) fn link_compared(read: Length, wanted: Length, good: bool) -> Phrase {
    Phrase::of(|w| {
        let reported = if good {
            "as planned."
        } else {
            "not as planned. Set it again next to the other one before you tighten the jam nuts."
        };
        format!("Measured {}, planned {}: {reported}", w.fine(read), w.fine(wanted))
    })
}

pub(crate) fn still_off(name: &str) -> Phrase {
    Phrase::plain(&format!(
        "Still off the vehicle: {}. Put it back on the Bolt-up screen, or say why it stays off.",
        mark(name)
    ))
}

pub(crate) fn complaint_open(text: &str) -> Phrase {
    Phrase::plain(&format!(
        "Complaint not checked after the road test: \u{201c}{}\u{201d}.",
        mark(text.trim())
    ))
}

pub(crate) fn torque_missing(names: &[Label]) -> Phrase {
    Phrase::plain(&format!(
        "No torque recorded and no reason given: {}. Enter it on the Bolt-up screen.",
        listed(names)
    ))
}

pub(crate) fn complaint_again(text: &str, worse: bool) -> Phrase {
    let how = if worse { "Worse than before" } else { "The same as before" };
    Phrase::plain(&format!("{how}: \u{201c}{}\u{201d}.", mark(text.trim())))
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
    let note = if note.is_empty() { String::new() } else { format!(": {}", mark(note)) };
    Phrase::plain(&format!("The road test was stopped {}{note}.", road_step(step)))
}

fn torque_other(names: &[Label]) -> Phrase {
    Phrase::plain(&format!("Not tightened to spec: {}. Tighten again.", listed(names)))
}

fn torque_from_memory(names: &[Label]) -> Phrase {
    Phrase::plain(&format!(
        "Torque from memory, unconfirmed: {}. Look it up in the part's instructions.",
        listed(names)
    ))
}

fn part_wrong(names: &[Label]) -> Phrase {
    Phrase::plain(&format!("Missing or wrong part: {}.", listed(names)))
}

/// `ends` is a clause.
fn travel_ends(ends: &Phrase) -> Phrase {
    Phrase::of(|w| format!("{}, before the stops. See the Cycle screen.", capital(ends.in_unit(w.unit()))))
}

pub(crate) fn steps_open(open: usize, of: usize) -> Phrase {
    Phrase::plain(&format!("{open} of {of} steps on the Bolt-up screen are neither checked off nor skipped."))
}

pub(crate) fn sway_bar_overstressed(stress: Stress, takes: Stress) -> Phrase {
    Phrase::plain(&format!(
        "Crossed up, the sway bar is twisted past what its steel takes: {:.0} of {:.0} MPa. Use another hole, a thicker bar or less travel.",
        stress.to_mpa(),
        takes.to_mpa()
    ))
}

/// How far bar and drag link lean apart, or what the wheels do over a bump.
fn steers(over_bumps: bool, angle: Angle) -> Phrase {
    Phrase::of(|w| {
        let angle = degrees(angle);
        if over_bumps {
            let bump = w.distance(Length::from_mm(50.0));
            format!("The wheels steer {angle} by themselves over a {bump} bump.")
        } else {
            format!(
                "Bar and drag link are {angle} apart at the driven height: the wheels steer as the axle moves."
            )
        }
    })
}

/// What is installed besides bar, brackets and drag link.
pub(super) fn installs(part: FittedPart, name: &str) -> String {
    match part {
        FittedPart::SwayBar => "the sway bar".to_owned(),
        FittedPart::Disconnect => "the sway bar disconnect".to_owned(),
        FittedPart::Brace => format!("the {}", mark(name)),
        FittedPart::SecondShim => "the shim under the other sway bar clamp".to_owned(),
        FittedPart::YLink => "the Y-link".to_owned(),
        FittedPart::Straps => "the limit straps".to_owned(),
        FittedPart::TieRod => "the tie rod in its new place".to_owned(),
    }
}

pub(crate) fn track_bar_overloaded(name: &str, margin: f64) -> Phrase {
    let name = if name.is_empty() { "The track bar".to_owned() } else { mark(name) };
    Phrase::plain(&format!(
        "{name} is estimated to hold {margin:.2} times its load here. Use a stronger bar, or a straighter one."
    ))
}

pub(crate) fn stick_out_off(off: &Centring, driver: Option<Side>) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The sway bar is {}: slide it until it sticks out equally on both sides.",
            sides::sideways(w, off.offset_mm, driver)
        )
    })
}

pub(crate) fn not_right(kind: LookKind) -> Phrase {
    Phrase::plain(match kind {
        LookKind::WheelStraight => "The steering wheel is not straight: adjust the drag link.",
        LookKind::Toe => "Toe is not right.",
        LookKind::Sensors => "The stability-control sensors need to be re-zeroed.",
        LookKind::Lines => "A brake line or wiring is not free at full droop and full lock.",
        LookKind::WheelNuts => "The lug nuts are not torqued.",
        LookKind::PinsLevel => "The pins don't go in and out on level ground.",
        LookKind::StowedClear => "The stowed sway link does not stay clear.",
        LookKind::Clear => "Something touches between full bump and full droop.",
    })
}

pub(crate) fn not_looked_at(kind: LookKind) -> Phrase {
    Phrase::plain(match kind {
        LookKind::WheelStraight => "Not checked: is the steering wheel straight?",
        LookKind::Toe => "Not checked: toe.",
        LookKind::Sensors => "Not checked: the zero of the stability-control sensors.",
        LookKind::Lines => "Not checked: brake lines and wiring free at full droop and full lock.",
        LookKind::WheelNuts => "Not checked: lug nuts torqued.",
        LookKind::PinsLevel => "Not checked: pins go in and out on level ground.",
        LookKind::StowedClear => "Not checked: the stowed sway link stays clear.",
        LookKind::Clear => "Not checked: clear of everything from full bump to full droop.",
    })
}

pub(crate) fn odometer(reads: f64, unit: &str) -> Phrase {
    Phrase::plain(&format!("at {reads:.0} {}", mark(unit)))
}

pub(crate) fn after_first_day() -> Phrase {
    Phrase::plain("After the first day: re-torque everything, check the paint marks.")
}

pub(crate) fn after_fifty() -> Phrase {
    Phrase::plain("After 50 miles (80 km), or three days: re-torque everything.")
}

pub(crate) fn after_five_hundred() -> Phrase {
    Phrase::plain("After 500 miles (800 km), or a month: re-torque everything, measure both sides.")
}

pub(crate) fn after_first_trail() -> Phrase {
    Phrase::plain("After the first trail day: re-torque, check paint marks, lines and wiring.")
}

pub(crate) fn after_two_weeks() -> Phrase {
    Phrase::plain("After two weeks: how does it drive? Go back over the complaints.")
}

pub(crate) fn temporary(name: &str, until: &str) -> Phrase {
    Phrase::plain(&format!("Temporary part: {}. Replace with: {}.", mark(name), mark(until)))
}

pub(crate) fn check_by_feel(names: &[Label]) -> Phrase {
    Phrase::plain(&format!("Tightened by feel or not to spec: {}. Torque them.", listed(names)))
}

fn look_first(look: LookFirst) -> Phrase {
    match look {
        LookFirst::Play(Some(play)) => Phrase::of(|w| {
            format!(
                "Slop: the bolts have {} of clearance in their holes. A sleeve or the right size bolt fixes it.",
                w.fine(play)
            )
        }),
        LookFirst::Play(None) => Phrase::plain(
            "Slop: oval holes, undersized bolts, torn bushings. Have someone turn the steering wheel back and forth while you feel the bar end with a flat hand. Keep fingers out of the bracket and the bolt hole.",
        ),
        LookFirst::Bracket => Phrase::plain(
            "Loose bracket: paint marks across it and watch it while someone pushes the body side to side.",
        ),
        LookFirst::Angle(Some(angle)) => Phrase::plain(&format!(
            "Bar angle: {} at driven height. A bracket levels it; length alone doesn't.",
            degrees(angle)
        )),
        LookFirst::Angle(None) => Phrase::plain(
            "Bar angle: measure it on the Bar screen; a steep bar kicks the axle sideways over every bump.",
        ),
        LookFirst::Offset(Some(Some(off))) => Phrase::of(|w| {
            format!(
                "Off center: the axle is {}. The Bar screen gives the length that centers it.",
                w.sideways(off)
            )
        }),
        LookFirst::Offset(Some(None)) => Phrase::plain(
            "Off center: the axle measures centered. Look for a wheel or tire that differs side to side.",
        ),
        LookFirst::Offset(None) => Phrase::plain("Off center: measure both sides on the Tape screen."),
        LookFirst::DragLink(true) => Phrase::plain(
            "Drag link and bar: the Bracket and Cycle screens give both angles and the bump steer.",
        ),
        LookFirst::DragLink(false) => Phrase::plain(
            "Drag link: measure it on the Tape screen; if it is not parallel to the bar you get bump steer.",
        ),
        LookFirst::Links(Some(true)) => Phrase::plain(
            "Sway links: they work over full travel. Look at hole and rate on the Sway screen, Road vs. trail.",
        ),
        LookFirst::Links(Some(false)) => Phrase::plain(
            "Sway links: they don't work over full travel. The Sway screen gives the lengths that do.",
        ),
        LookFirst::Links(None) => Phrase::plain(
            "Sway bar and links: measure them on the Sway screen. A stiff sway bar or a short sway link lifts a wheel early.",
        ),
        LookFirst::Steering => Phrase::plain(
            "Have steering joints, wheel bearings, steering damper and toe checked by someone qualified.",
        ),
        LookFirst::Shocks => Phrase::plain(
            "Shocks: push a corner down and let go. If it moves up and down more than once, the shock is worn; look for oil on it.",
        ),
        LookFirst::RoofLoad => Phrase::plain(
            "Load on the roof: take it off and drive the same bend again. What is up high leans the body most.",
        ),
        LookFirst::SwayBar => Phrase::plain(
            "Sway bar: both links connected, bushings and clamps tight? Then how stiff it is: a shorter hole on the sway bar arm or a thicker bar, on the Sway screen.",
        ),
        LookFirst::Wheel => {
            Phrase::plain("Steering wheel off center: fix it with the drag link once the axle is centered.")
        }
    }
}

/// What a check is of.
fn check_name(check: ProveCheck) -> Phrase {
    Phrase::plain(match check {
        ProveCheck::BarAngle => "bar angle",
        ProveCheck::LeftLink => "left sway link",
        ProveCheck::RightLink => "right sway link",
        ProveCheck::Clear => "clear over its travel",
        ProveCheck::SwayLinks => "sway links",
        ProveCheck::Axle => "axle under the frame",
    })
}

/// Names in a row.
fn listed(names: &[Label]) -> String {
    names.iter().map(|name| say(&name.0).inches).collect::<Vec<_>>().join(", ")
}

/// What nobody measured, though it may be near.
fn parts_not_measured(parts: &[ObstaclePart]) -> Phrase {
    let named: Vec<&str> = parts
        .iter()
        .map(|part| match part {
            ObstaclePart::Exhaust => "exhaust",
            ObstaclePart::FuelTank => "fuel tank",
            ObstaclePart::OilPan => "oil pan",
            ObstaclePart::Other => "other part",
        })
        .collect();
    Phrase::plain(&format!("No {} measured: clearance to it is not checked.", named.join(" or ")))
}
