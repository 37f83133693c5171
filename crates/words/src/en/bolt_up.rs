//! Stage Bolt-up.

use super::sides;
use super::step::{DRILLING, STANDS, StepSays, in_a_row, plain, reported, unsaid};
use crate::{all_marked as say_all, marked as say};
use derecho_core::fastener::hex::{drills, is_sawn};
use derecho_core::fastener::strength::TorqueStands;
use derecho_core::measure::phrase::Words;
use derecho_core::measure::physical::{NM_PER_LB_FT, torque};
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Length, Moment, Phrase, Side, Unit};
use derecho_job::bolt_up::message::{
    BoltUpMessage, CutKind, FastenerName, FastenerWhat, MockUpOpen, PartName, PartPlace, StepContext,
    StepFacts, ToolName, ToolUse,
};
use derecho_job::document::work::{HeadSide, PartRecord, PartState, Stands, TorqueSource};

use derecho_job::bolt_up::situation::drill_size;
use derecho_job::bolt_up::tasks::What;
use derecho_job::work::kinds::bracket::{Bolts, end_word};
use derecho_job::work::rules::Rule;

pub(super) fn bolt_up(message: &BoltUpMessage) -> Phrase {
    match message {
        BoltUpMessage::InARow { phrases } => in_a_row(&say_all(phrases)),
        BoltUpMessage::Broken { first, then, why } => broken(&say(first), &say(then), *why),
        BoltUpMessage::Waits { first, why } => waits(&say(first), *why),
        BoltUpMessage::DoneBefore { first, why } => done_before(&say(first), *why),
        BoltUpMessage::StoodOtherwise { stood, wanted } => stood_otherwise(*stood, *wanted),
        BoltUpMessage::StandOtherwise { wanted } => stand_otherwise(*wanted),
        BoltUpMessage::Changed { read } => changed(read),
        BoltUpMessage::Gone { read } => gone(read),
        BoltUpMessage::OfFastener { fastener, check } => {
            Phrase::plain(&format!("{}: {}", say(&fastener.0).inches, say(&check.0).inches))
        }
        BoltUpMessage::Fastener(name) => Phrase::plain(&fastener(name)),
        BoltUpMessage::What(what) => fastener_what(what),
        BoltUpMessage::Part(name) => Phrase::plain(&part_name(name)),
        BoltUpMessage::ToolName(name) => Phrase::plain(&tool_name(name)),
        BoltUpMessage::ToolUse(purpose) => Phrase::plain(&tool_use(purpose)),
        BoltUpMessage::NoTorque { name } => no_torque(&fastener(name)),
        BoltUpMessage::WrongPart { part, name } => wrong_part(part, &part_name(name)),
        BoltUpMessage::BoltDoesNotFit { check } => super::fit::does_not_fit(check),
        BoltUpMessage::StrapsTooLong { by } => straps_too_long(*by),
        BoltUpMessage::StrapsTooShort { by } => straps_too_short(*by),
        BoltUpMessage::WrongNut { name } => wrong_nut(&fastener(name)),
        BoltUpMessage::PartAt { place, length } => part_at(&part_place(*place), *length),
        BoltUpMessage::Reason { text } => reason(text),
        BoltUpMessage::Supplier { part, name, vehicle } => supplier(part, &part_name(name), vehicle),
        BoltUpMessage::TorqueWanted { moment, typed, from } => torque_wanted(*moment, typed, *from),
        BoltUpMessage::TorqueMade { made, wanted } => torque_made(*made, *wanted),
        BoltUpMessage::ByFeel { because } => by_feel(because),
        BoltUpMessage::TorqueMissing => torque_missing(),
        BoltUpMessage::Reference { usual, stands } => reference(*usual, *stands),
        BoltUpMessage::EyeOff { stands, droop, steered, driver } => {
            eye_off(*stands, *droop, (*steered, *driver))
        }
        BoltUpMessage::Says { of, next } => says(*of, next.as_ref().map(say).as_ref()),
        BoltUpMessage::ChooseFirst => choose_first(),
        BoltUpMessage::NothingYet => nothing_yet(),
        BoltUpMessage::Refused => refused(),
        BoltUpMessage::MockUp { open } => mock_up(open),
        BoltUpMessage::CornersApart { name, apart } => corners_apart(name, *apart),
        BoltUpMessage::CornerMoved { name, change } => corner_moved(name, *change),
        BoltUpMessage::CornersMoved { moved } => corners_moved(&say_all(moved)),
        BoltUpMessage::CornersAlike => corners_alike(),
        BoltUpMessage::StillOff { names } => still_off(names),
        BoltUpMessage::Drill { size } => drill(*size),
        BoltUpMessage::Does(step) => reported_of(step).does,
        BoltUpMessage::How(step) => reported_of(step).how.unwrap_or_default(),
        BoltUpMessage::Because(step) => plain(reported_of(step).because),
        BoltUpMessage::Caution(step) => plain(reported_of(step).caution.unwrap_or_default()),
        BoltUpMessage::HowItStands(how) => plain(stands(*how)),
        BoltUpMessage::CutName(what) => plain(cut(*what).0),
        BoltUpMessage::CutSays(what) => plain(cut(*what).1),
    }
}

fn reported_of(facts: &StepFacts) -> StepSays {
    step(&facts.of, &facts.what)
}

fn undoing(what: &What) -> StepSays {
    match what {
        What::Corners => reported(
            plain("Measure the ride height at all four corners"),
            Some(plain(
                "From the same spot on each wheel arch straight down to the hub center, on its wheels, bounced to settle.",
            )),
            "Once something is apart you can't tell what changed.",
            None,
        ),
        What::Stands => reported(
            plain("Chock the wheels, put jack stands under the frame, support the axle with a jack"),
            None,
            "Nothing comes loose until nothing can fall.",
            Some(STANDS),
        ),
        _ => unsaid(),
    }
}

fn battery(what: &What) -> StepSays {
    match what {
        What::BatteryOff => reported(
            plain("Disconnect the negative battery cable"),
            Some(plain("Unplug whatever the vehicle manufacturer lists before arc welding.")),
            "Welding current can kill electronics.",
            None,
        ),
        What::BatteryOn => reported(plain("Reconnect the battery"), None, "Welding is finished.", None),
        _ => unsaid(),
    }
}

fn straps_too_long(by: Length) -> Phrase {
    Phrase::of(|w| {
        if w.shows_nothing(by) {
            return "The limit straps only go tight where the shocks end. Use shorter straps.".to_owned();
        }
        format!(
            "The limit straps are still slack at full droop, by {}: the shocks end first. Use shorter straps.",
            w.distance(by)
        )
    })
}

fn straps_too_short(by: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The limit straps are too short by {} at the driven height: the axle couldn't drop at all. Use longer straps.",
            w.distance(by)
        )
    })
}

/// A step in words.
fn step(context: &StepContext, what: &What) -> StepSays {
    use What as W;
    match what {
        W::Corners | W::Stands => undoing(what),
        W::MockUp | W::Drill(_) => making(context, what),
        W::BatteryOff | W::BatteryOn => battery(what),
        W::Kind(step) => super::kinds::step(context, *step),
        W::OnItsWeight | W::ReadAgain | W::Grease | W::Witness | W::PutBack | W::Own { .. } => {
            closing(context, what)
        }
    }
}

fn making(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::MockUp if !context.situation.mocks_up_the_axle() => reported(
            plain("Hold the bracket in place and check it over the travel before you drill"),
            Some(plain(
                "Bolts snug: the bar end reaches its hole, and from full droop to full bump nothing hits the bracket or \
                 the bar.",
            )),
            "Drilled in the wrong place, it stays there.",
            Some(STANDS),
        ),
        What::MockUp => reported(
            plain("Mock everything up and cycle it"),
            Some(Phrase::of(|w| {
                format!(
                    "Level side to side, axle strapped to center, both sides measured until the repeats agree; then from full droop to full bump and crossed up, {} past the stops.",
                    w.distance(Length::from_mm(12.7))
                )
            })),
            "Drilled or welded in the wrong place, it stays there.",
            Some(
                "With the springs out only jacks hold the axle: jack stands under the frame, nobody underneath, fingers out of every gap while it moves.",
            ),
        ),
        What::Drill(id) => {
            let drill = context.situation.drills.iter().find(|drill| drill.id == *id);
            let name = drill.map_or_else(String::new, |drill| mark(&drill.name));
            reported(
                plain(&format!("Drill: {name}")),
                drill.and_then(drill_size).map(drilling),
                "Marked through the bracket, the hole ends up where the bracket needs it.",
                Some(DRILLING),
            )
        }
        _ => unsaid(),
    }
}

/// Which drills, one after the other.
fn drilling(size: Length) -> Phrase {
    Phrase::of(|w| {
        let sizes = drills(size, w.unit());
        let saw = |size: Length| if is_sawn(size) { " hole saw" } else { "" };
        let sizes: Vec<String> =
            sizes.into_iter().map(|size| format!("{}{}", w.fine(size), saw(size))).collect();
        format!(
            "Bracket tight on its seat and level with its mate. Mark through it (pen, or paint through the holes on dark steel), center-punch, drill {}. Drill the far side in line with the near hole, or with the bracket off. Deburr, clear the chips, paint the bare edges.",
            sizes.join(", then ")
        )
    })
}

fn closing(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::OnItsWeight => reported(
            plain(&on_its_weight(context.driven.as_deref())),
            Some(plain(if context.steered {
                "Off the jack stands, wheels straight, bounced to settle, nobody leaning on it."
            } else {
                "Off the jack stands, bounced to settle, nobody leaning on it."
            })),
            "Tighten bushings and take measurements at the height it is driven.",
            Some("Nobody underneath while it is lowered or bounced."),
        ),
        What::ReadAgain => reported(
            plain("Measure both sides again, on the Prove screen"),
            Some(in_a_row(
                &context
                    .situation
                    .y_link()
                    .filter(|link| link.converts)
                    .map(|_| plain("Record the Y-link as installed first, under Parts."))
                    .into_iter()
                    .chain(context.readings.iter().map(say))
                    .chain([plain(
                        "Quick look: sighting down the door handles you should see the same amount of tread left and right.",
                    )])
                    .collect::<Vec<_>>(),
            )),
            "Check the calculation against the tape before you lock anything.",
            None,
        ),
        What::Grease => reported(
            plain("Grease until it shows, wipe the rest off"),
            Some(plain("If it has a grease fitting; on polyurethane use the manufacturer's grease.")),
            "Dry joints squeak and wear.",
            None,
        ),
        What::Witness => reported(
            plain("Paint a stripe across every nut onto the part under it"),
            None,
            "A stripe that no longer lines up shows at a glance.",
            None,
        ),
        What::PutBack => reported(
            plain("Put back everything you took off"),
            Some(plain(
                "Every line of the put-back list, then follow lines and wiring by hand end to end.",
            )),
            "What you forget will chafe or hang.",
            None,
        ),
        What::Own { does, .. } => reported(plain(&mark(does)), None, "Your own step.", None),
        _ => unsaid(),
    }
}

/// What is cut, and where its template is.
pub(crate) fn cut(what: CutKind) -> (&'static str, &'static str) {
    match what {
        CutKind::BarStock => (
            "Bar stock",
            "Cut length and full-size cope templates are on the Bar screen, under Other bars. Measure the printed check line before you mark.",
        ),
        CutKind::LinkRods => {
            ("Rod for the sway links", "Cut length, with the joint threads, is on the Sway screen.")
        }
        CutKind::Panel => (
            "Hole in the panel for the sway arm",
            "The template is on the Sway screen. Look behind the panel before you cut: lines, wiring, tire.",
        ),
    }
}

fn on_its_weight(driven: Option<&str>) -> String {
    match driven {
        None => "Set it down on its wheels, at ride height".to_owned(),
        Some(driven) => {
            format!("Set it down on its wheels, at the height it is driven: {}", mark(driven))
        }
    }
}

/// How the vehicle has to stand.
pub(crate) const fn stands(stands: Option<Stands>) -> &'static str {
    match stands {
        None => "at any height",
        Some(Stands::Supported) => "on jack stands, axle supported",
        Some(Stands::OnItsWeight) => "on its wheels, at the driven height",
    }
}

/// Why a step comes after another one.
pub(crate) const fn rule(rule: Rule) -> &'static str {
    match rule {
        Rule::StandsFirst => "jack stands go under the frame before anything comes loose",
        Rule::ReadFirst => "measure it before anything comes loose",
        Rule::OutOfTheWay => "it has to be out of the way first",
        Rule::MockUpFirst => "finish the mock-up before you drill, cut or weld",
        Rule::BatteryOff => {
            "take the battery negative off before you weld and leave it off until welding is finished"
        }
        Rule::TackFirst => "tack and check it before you finish-weld it",
        Rule::ColdFirst => "it has to be cold and painted first",
        Rule::DrilledFirst => "drill it before you bolt or weld it",
        Rule::SetFirst => "set its length before it goes in",
        Rule::HungFirst => "it has to be in place first",
        Rule::HandFirst => "start every bolt by hand before you tighten any",
        Rule::SnugFirst => "snug and back off one turn before you tighten",
        Rule::MainFirst => "the main bolt comes before the side bolts",
        Rule::SideFirst => "the side bolts come before the small ones",
        Rule::BarBoltLast => "the bar's own bolt comes after the bracket's",
        Rule::OnItsWeight => "it has to be on its wheels at the driven height",
        Rule::GreasedFirst => "grease the bushings before anything clamps them",
        Rule::LockFirst => "find the lock both ways before the blocks are tight",
        Rule::BracketFirst => "the bracket is tight before what braces it",
        Rule::StickOutFirst => "the stick-out has to be equal first",
        Rule::AnglesFirst => "both sway bar arms have to be at the same angle first",
        Rule::LooseFirst => "it has to be loose first",
        Rule::SetBeforeRead => "set its length before you measure",
        Rule::ReadBeforeJam => "jam nuts and clamps come last, once both sides measure the same",
        Rule::CentredFirst => "the axle is centered before the steering wheel is set by the drag link",
        Rule::ClearFirst => "check that it clears everything before you tighten it",
        Rule::TieRodHolds => "the tie rod stays on while it stands on its wheels",
        Rule::ToeFirst => "set toe before you straighten the steering wheel",
        Rule::TorqueBeforePin => "torque it before you pin it",
        Rule::TightFirst => "everything has to be tight first",
        Rule::PutBackLast => "put it back once the rest is tight",
        Rule::AsWritten => "you put it there",
    }
}

/// A pair that stands the wrong way round in a person's order.
pub(crate) fn broken(first: &Phrase, then: &Phrase, why: Rule) -> Phrase {
    Phrase::of(|w| {
        format!(
            "\u{201c}{}\u{201d} comes before \u{201c}{}\u{201d} here, but {}.",
            then.in_unit(w.unit()),
            first.in_unit(w.unit()),
            rule(why)
        )
    })
}

/// A step that waits for another one.
pub(crate) fn waits(first: &Phrase, why: Rule) -> Phrase {
    Phrase::of(|w| format!("First \u{201c}{}\u{201d}: {}.", first.in_unit(w.unit()), rule(why)))
}

/// A step that was done before another one that comes first.
pub(crate) fn done_before(first: &Phrase, why: Rule) -> Phrase {
    Phrase::of(|w| format!("Done before \u{201c}{}\u{201d}, but {}.", first.in_unit(w.unit()), rule(why)))
}

pub(crate) fn stood_otherwise(stood: Stands, wanted: Stands) -> Phrase {
    Phrase::plain(&format!(
        "Done {}, but it should be done {}. Loosen it and do it again that way, or leave the reason on record.",
        stands(Some(stood)),
        stands(Some(wanted))
    ))
}

pub(crate) fn stand_otherwise(wanted: Stands) -> Phrase {
    Phrase::plain(&format!("The vehicle is not set up for this: do it {}.", stands(Some(wanted))))
}

pub(crate) fn changed(read: &str) -> Phrase {
    Phrase::plain(&format!(
        "The plan has changed since this was checked off. It said: \u{201c}{}\u{201d}.",
        mark(read)
    ))
}

pub(crate) fn gone(read: &str) -> Phrase {
    Phrase::plain(&format!("Done, and no longer in the plan: \u{201c}{}\u{201d}.", mark(read)))
}

pub(crate) fn no_torque(name: &str) -> Phrase {
    Phrase::plain(&format!("Checked off, but no torque recorded for the {name}."))
}

pub(crate) fn wrong_part(part: &PartRecord, name: &str) -> Phrase {
    let what = if part.state == Some(PartState::Wrong) { "is the wrong part" } else { "is missing" };
    let note =
        if part.note.trim().is_empty() { String::new() } else { format!(": {}", mark(part.note.trim())) };
    Phrase::plain(&format!("The {name} {what}{note}. Stop here."))
}

pub(crate) fn wrong_nut(name: &str) -> Phrase {
    Phrase::plain(&format!(
        "Wrong nut on the {name}: it starts, then binds and strips the thread. Stop here."
    ))
}

/// How many of a part, where, and how long.
pub(crate) fn part_at(place: &str, length: Option<Length>) -> Phrase {
    match length {
        Some(length) => Phrase::of(|w| format!("{place}, {}", w.fine(length))),
        None => Phrase::plain(place),
    }
}

/// A reason as it was written down.
pub(crate) fn reason(text: &str) -> Phrase {
    Phrase::plain(&format!("Reason: {}", mark(text.trim())))
}

/// For the supplier.
pub(crate) fn supplier(part: &PartRecord, name: &str, vehicle: &str) -> Phrase {
    let what = if part.state == Some(PartState::Wrong) { "the wrong one came" } else { "is missing" };
    let note =
        if part.note.trim().is_empty() { String::new() } else { format!(" {}.", mark(part.note.trim())) };
    let of = if vehicle.trim().is_empty() { String::new() } else { format!(" for {}", mark(vehicle.trim())) };
    Phrase::plain(&format!("{name}{of}: {what}.{note} Please send the right one."))
}

/// A torque in both units, the person's own first.
pub(crate) fn both(w: Words, moment: Moment) -> String {
    let pound_feet = format!("{:.0} lb-ft", moment.to_nm() / NM_PER_LB_FT);
    let newton_metres = format!("{:.0} N·m", moment.to_nm());
    match w.unit() {
        Unit::Inches => format!("{pound_feet} ({newton_metres})"),
        Unit::Millimetres => format!("{newton_metres} ({pound_feet})"),
    }
}

pub(crate) const fn source(source: Option<TorqueSource>) -> &'static str {
    match source {
        Some(TorqueSource::PartsSheet) => "from the part's instructions",
        Some(TorqueSource::VehicleManual) => "from the vehicle manual",
        Some(TorqueSource::MakerTold) => "from the manufacturer",
        Some(TorqueSource::FromMemory) => "from memory, unconfirmed",
        None => "source unknown: unconfirmed",
    }
}

pub(crate) fn torque_wanted(moment: Moment, typed: &str, from: Option<TorqueSource>) -> Phrase {
    // As it was typed where that says something else than the figure: 1,680 lb-in, or 12 m-kg.
    let letters = |text: &str| -> String {
        text.chars().filter(|c| c.is_alphanumeric()).flat_map(char::to_lowercase).collect()
    };
    Phrase::of(|w| {
        let both = both(w, moment);
        let said = both.split(" (").any(|one| letters(one) == letters(typed));
        let typed = if said { String::new() } else { format!("entered as {typed}, ") };
        format!("{both}, {typed}{}", source(from))
    })
}

pub(crate) fn torque_made(made: Moment, wanted: Option<Moment>) -> Phrase {
    Phrase::of(|w| match wanted {
        Some(wanted) => {
            format!("Torqued to {}, should be {}: tighten it again.", both(w, made), both(w, wanted))
        }
        None => format!("torqued to {}", both(w, made)),
    })
}

pub(crate) fn by_feel(because: &str) -> Phrase {
    Phrase::plain(&format!(
        "By feel, because {}. It is on the recheck list.",
        mark(because.trim().trim_end_matches('.'))
    ))
}

pub(crate) fn torque_missing() -> Phrase {
    Phrase::plain("Get the torque from the part's instructions; none is given here.")
}

pub(crate) fn reference(usual: Moment, stands: Option<TorqueStands>) -> Phrase {
    Phrase::of(|w| {
        let usual = torque(w, usual);
        match stands {
            Some(TorqueStands::Low) => {
                format!("Low: about {usual} is typical for this bolt. Check the units in the instructions.")
            }
            Some(TorqueStands::PastProof) => {
                format!(
                    "More than this bolt can take: about {usual} is typical. Check the units and the grade."
                )
            }
            Some(TorqueStands::Usual) => {
                format!("Typical for this bolt: about {usual}. The instructions rule.")
            }
            None => format!("About {usual} is typical for this bolt, to check the instructions against."),
        }
    })
}

/// Where the eye is from its hole: on its weight, and at full droop with the axle where the old bar had it there, and
/// where it stood on its wheels. A side is told only where all agree.
fn eye_off(stands: Length, droop: Option<[Length; 2]>, (steered, driver): (bool, Option<Side>)) -> Phrase {
    let ways = droop.into_iter().flatten().all(|way| way.to_mm() * stands.to_mm() >= 0.0);
    Phrase::of(|w| {
        let lines_up = w.shows_nothing(stands);
        let here = if lines_up {
            "On its wheels the bar end lines up with its hole.".to_owned()
        } else {
            format!(
                "Surest on its wheels: there the axle has to come {} to line up.",
                sides::sideways(w, stands, driver)
            )
        };
        let there =
            droop.map_or_else(String::new, |[held, stood]| at_droop(w, (stands, held, stood), driver));
        let helper = if steered { "; or have a helper turn the steering wheel a little" } else { "" };
        let (to, other) = (Side::of(stands.to_mm()), Side::of(-stands.to_mm()));
        let push = if ways && !lines_up {
            format!(
                "To move the axle to the {0}: push the body to the {1}; or ratchet-strap from the axle to the {0} frame rail",
                to.word(),
                other.word()
            )
        } else {
            "To move the axle: push the body the opposite way; or ratchet-strap from the axle to the frame rail on the \
             side the axle has to go"
                .to_owned()
        };
        format!("{here}{there} {push}; or jack under one side{helper}.")
    })
}

/// What is sure of the axle's place at full droop, with the old bar out.
/// Whose side it is stands with a side that was not mentioned before: + to the left, as the axle has to come.
fn at_droop(w: Words, (stands, held, stood): (Length, Length, Length), driver: Option<Side>) -> String {
    let (least, most) = if held.abs() <= stood.abs() { (held, stood) } else { (stood, held) };
    let same_side = held.to_mm() * stood.to_mm() > 0.0;
    let mentioned = |way: Length| !w.shows_nothing(stands) && way.to_mm() * stands.to_mm() >= 0.0;
    let to = |way: Length| if mentioned(way) { w.movement(way) } else { sides::sideways(w, way, driver) };
    let (near, far) = (to(least), to(most));
    match (w.shows_nothing(least), w.shows_nothing(most)) {
        (true, true) => " Hanging at full droop it lines up.".to_owned(),
        (true, false) => format!(" Hanging at full droop it has to come {far} at most."),
        _ if same_side && w.distance(least) == w.distance(most) => {
            format!(" Hanging at full droop it has to come {near}.")
        }
        _ if same_side => format!(" Hanging at full droop it has to come between {near} and {far}."),
        _ => format!(
            " At full droop nothing holds the axle, so look first: it may have to come {near} or {far}."
        ),
    }
}

/// The next step, or that there is none.
pub(crate) fn says(of: usize, next: Option<&Phrase>) -> Phrase {
    match next {
        Some(next) => next.clone(),
        None if of == 0 => Phrase::plain("Nothing to bolt up yet"),
        None => Phrase::plain(&format!("All {of} steps are done")),
    }
}

pub(crate) fn choose_first() -> Phrase {
    Phrase::plain("Choose a hole, or length only, on the Bracket screen first")
}

pub(crate) fn nothing_yet() -> Phrase {
    Phrase::plain("Choose what to set on the Bar, Bracket or Sway screen; the steps follow from that.")
}

pub(crate) fn refused() -> Phrase {
    Phrase::plain("The bar can't be set as planned: see the Bar screen before you take anything apart.")
}

fn mock_up(open: &[MockUpOpen]) -> Phrase {
    let open: Vec<&str> = open.iter().copied().map(open_of_mock_up).collect();
    if open.is_empty() {
        return Phrase::plain("Mock-up done: measure the gap, drill, weld.");
    }
    Phrase::plain(&format!("Finish the mock-up first. Still open: {}.", open.join(", ")))
}

const fn open_of_mock_up(open: MockUpOpen) -> &'static str {
    match open {
        MockUpOpen::CornersEqual => "left and right equally high",
        MockUpOpen::Strapped => "strapped to center",
        MockUpOpen::RepeatsAgree => "repeats agree",
        MockUpOpen::Cycled => "the full cycle done",
    }
}

pub(crate) fn corners_apart(name: &str, apart: Length) -> Phrase {
    Phrase::of(|w| {
        format!("The {name} corners are {} different: too much to measure a mock-up.", w.distance(apart))
    })
}

pub(crate) fn corner_moved(name: &str, change: Length) -> Phrase {
    Phrase::of(|w| {
        let way = if change > Length::ZERO { "higher" } else { "lower" };
        format!("{} {way} at the {name}", w.distance(change))
    })
}

pub(crate) fn corners_moved(moved: &[Phrase]) -> Phrase {
    Phrase::of(|w| {
        let reported: Vec<&str> = moved.iter().map(|phrase| phrase.in_unit(w.unit())).collect();
        format!(
            "It is not at the height it was before: {}. You can't compare before and after until it is.",
            reported.join(", ")
        )
    })
}

pub(crate) fn corners_alike() -> Phrase {
    Phrase::plain("All four corners are at the same height as before.")
}

pub(crate) fn still_off(names: &[String]) -> Phrase {
    let names: Vec<String> = names.iter().map(|name| mark(name)).collect();
    Phrase::plain(&format!("Still off: {}.", names.join(", ")))
}

/// A hole of the drill schedule.
pub(crate) fn drill(size: Option<Length>) -> Phrase {
    size.map_or_else(|| Phrase::plain("Enter its size to get the pilot and step drills."), drilling)
}

/// What a fastener is called.
fn fastener(name: &FastenerName) -> String {
    match name {
        FastenerName::FrameEye => "frame eye bolt",
        FastenerName::AxleEye => "axle eye bolt",
        FastenerName::Adjuster => "adjusting-end bolt",
        FastenerName::JamNut => "bar jam nut",
        FastenerName::JamNuts => "bar jam nuts or clamps",
        FastenerName::DragLinkClamps => "clamps of the drag link's sleeve",
        FastenerName::DragLinkNuts => "drag link nuts",
        FastenerName::FirstMount => "left sway bar mount bolts",
        FastenerName::SecondMount => "right sway bar mount bolts",
        FastenerName::SwayClamps => "sway bar clamps",
        FastenerName::Pinch => "sway arm pinch bolts",
        FastenerName::ArmEyes => "sway link bolts at the sway bar arms",
        FastenerName::FarEnds => "sway link bolts at the other ends",
        FastenerName::LinksJam => "sway link jam nuts",
        FastenerName::LegsJam => "Y-link leg jam nuts",
        FastenerName::LegsBrackets => "Y-link bracket bolts",
        FastenerName::LegsBolts => "Y-link and control arm bolts",
        FastenerName::Retaining => "sway arm retaining bolts",
        FastenerName::DisconnectStuds => "disconnect stud nuts",
        FastenerName::StowStuds => "stow stud nuts",
        FastenerName::BraceAtBracket => "brace bolts at the bracket",
        FastenerName::BraceAtRail => "brace bolts at the frame rail",
        FastenerName::TieRodNuts => "tie rod end nuts",
        FastenerName::TieRodClamps => "tie rod clamps or jam nuts",
        FastenerName::StrapsAtFrame => "limit strap bolts at the frame",
        FastenerName::StrapsAtAxle => "limit strap bolts at the axle",
        FastenerName::Typed(name) => return mark(name),
        FastenerName::Bracket { bolts, bracket } => {
            let bracket = bracket.as_deref().map_or_else(|| "bracket".to_owned(), mark);
            return match bolts {
                Bolts::Main => format!("{bracket} main bolt"),
                Bolts::Side => format!("{bracket} side bolts"),
                Bolts::Small => format!("{bracket} small bolts"),
            };
        }
    }
    .to_owned()
}

/// What a part of the plan is called.
fn part_name(name: &PartName) -> String {
    match name {
        PartName::Typed(name) => return mark(name),
        PartName::BuiltBar => "built track bar",
        PartName::SwayBar => "sway bar",
        PartName::SwayLinks => "sway links",
        PartName::Disconnect => "sway bar disconnect",
        PartName::SecondShim => "clamp shim",
        PartName::YLink => "Y-link",
        PartName::Straps => "limit straps",
        PartName::TaperInserts => "tapered inserts for the tie rod ends",
    }
    .to_owned()
}

/// How many of a part, and where it goes.
fn part_place(place: PartPlace) -> String {
    match place {
        PartPlace::TrackBar => "1, the track bar".to_owned(),
        PartPlace::Bracket { end, side } => {
            let side = side.map_or_else(String::new, |side| format!(", {} side", side.word()));
            format!("1, on the {}{side}", end_word(end))
        }
        PartPlace::DragLink => "on the drag link".to_owned(),
        PartPlace::SwayBar => "1, with what it mounts in".to_owned(),
        PartPlace::SwayLinks => "2, one per side".to_owned(),
        PartPlace::Disconnect => "2, one per side, with pins".to_owned(),
        PartPlace::TaperInserts => "2, one per steering arm".to_owned(),
        PartPlace::Straps => "2, one per side, frame to axle".to_owned(),
        PartPlace::Brace => "1, from the frame bracket to the other frame rail".to_owned(),
        PartPlace::SecondShim => "1, under the other sway bar clamp".to_owned(),
        PartPlace::YLink => "1, with its brackets".to_owned(),
    }
}

/// What a tool is called.
fn tool_name(name: &ToolName) -> String {
    match name {
        ToolName::Stands => "jack stands, jack, chocks",
        ToolName::TorqueWrench => "torque wrench",
        ToolName::Wrench(size) => return format!("{size} wrench"),
        ToolName::Strap => "ratchet strap",
        ToolName::Drill(size) => return format!("{size} drill"),
        ToolName::HoleSaw(size) => return format!("{size} hole saw"),
        ToolName::Separator => "ball joint separator",
        ToolName::TaperReamer => "taper reamer",
        ToolName::Punch => "center punch, paint, deburring tool",
        ToolName::RightAngleDrill => "right-angle drill",
        ToolName::Welder => "welder, grinder, cover for lines",
        ToolName::AngleFinder => "angle finder",
        ToolName::Tape => "tape measure",
        ToolName::GreaseGun => "grease gun",
        ToolName::PaintPen => "paint pen",
    }
    .to_owned()
}

/// What a tool is for, or what does in its place.
fn tool_use(purpose: &ToolUse) -> String {
    match purpose {
        ToolUse::UnderIt => "two jack stands for the frame, a jack for the axle",
        ToolUse::Range => "in the range the instructions call for; a crow's foot changes the reading",
        ToolUse::Wrenches { count: 0 | 1 } => "socket or wrench",
        ToolUse::Wrenches { count } => return format!("{count} at once, socket and wrench"),
        ToolUse::AxleToFrame { steered: true } => "axle to frame; or a helper on the steering wheel",
        ToolUse::AxleToFrame { steered: false } => "axle to frame",
        ToolUse::Hole { name } => return format!("for {}", mark(name)),
        ToolUse::TubeHoles => "for the tubes through the frame rails",
        ToolUse::Mark => "mark through the bracket, punch, paint the bare edges",
        ToolUse::Pinion => "on the axle housing, for the pinion angle",
        ToolUse::Taper => "a puller type; a fork tears the boot",
        ToolUse::Seats => "of the tie rod studs' own taper",
        ToolUse::NoRoom => "where a straight one won't fit; or take the bracket off",
        ToolUse::Weld => "bare metal, fire extinguisher within reach",
        ToolUse::Partner => "zeroed on the bracket at the other end",
        ToolUse::SwayArms => "on both sway bar arms",
        ToolUse::SameTape => "the same one you measured with before",
        ToolUse::Grease => "with the manufacturer's grease for polyurethane",
        ToolUse::Marks => "for the marks across the nuts",
    }
    .to_owned()
}

/// Everything known of a fastener but its torque, in one line.
fn fastener_what(what: &FastenerWhat) -> Phrase {
    let reported = [
        what.thread.as_deref().map(mark),
        what.grade.map(|grade| grade.word().to_owned()),
        what.nut.map(|nut| nut.word().to_owned()),
        what.treatment.map(|treatment| treatment.word().to_owned()),
        what.head.map(|head| format!("head {}", head_side(head))),
        what.reused_from.as_ref().map(|from| format!("reused from {}", mark(from))),
        what.access.as_deref().map(mark),
    ];
    Phrase::plain(&reported.into_iter().flatten().collect::<Vec<_>>().join(", "))
}

const fn head_side(head: HeadSide) -> &'static str {
    match head {
        HeadSide::Forward => "forward",
        HeadSide::Back => "back",
        HeadSide::Inward => "toward the middle",
        HeadSide::Outward => "outward",
        HeadSide::Up => "up",
        HeadSide::Down => "down",
    }
}
