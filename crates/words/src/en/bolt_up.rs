//! Stage Bolt-up.

use crate::{Spoken, say, say_all};
use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::fastener::hex::drills;
use derecho_core::fastener::strength::TorqueStands;
use derecho_core::measure::phrase::Words;
use derecho_core::measure::physical::{NM_PER_LB_FT, torque};
use derecho_core::measure::{Length, Moment, Phrase, Side, Unit};
use derecho_core::parts::BracketEnd;
use derecho_core::pose::joint::JointKind;
use derecho_job::bolt_up::message::{
    BoltUpMessage, CutKind, FastenerName, FastenerWhat, MockUpOpen, PartName, PartPlace, StepContext,
    StepFacts, ToolName, ToolUse,
};
use derecho_job::document::work::{HeadSide, PartRecord, PartState, Stands, TorqueSource};

use derecho_job::bolt_up::rules::Rule;
use derecho_job::bolt_up::situation::{Situation, SwayWork, drill_size, is_bushing};
use derecho_job::bolt_up::tasks::{BracketBolts, What, end_word};

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
            Phrase::plain(&format!("{}: {}", fastener.inches(), check.inches()))
        }
        BoltUpMessage::Fastener(name) => Phrase::plain(&fastener(name)),
        BoltUpMessage::What(what) => fastener_what(what),
        BoltUpMessage::Part(name) => Phrase::plain(part_name(name)),
        BoltUpMessage::ToolName(name) => Phrase::plain(&tool_name(name)),
        BoltUpMessage::ToolUse(purpose) => Phrase::plain(&tool_use(purpose)),
        BoltUpMessage::NoTorque { name } => no_torque(&fastener(name)),
        BoltUpMessage::WrongPart { part, name } => wrong_part(part, part_name(name)),
        BoltUpMessage::WrongNut { name } => wrong_nut(&fastener(name)),
        BoltUpMessage::PartAt { place, length } => part_at(&part_place(*place), *length),
        BoltUpMessage::Reason { text } => reason(text),
        BoltUpMessage::Supplier { part, name, vehicle } => supplier(part, part_name(name), vehicle),
        BoltUpMessage::TorqueWanted { moment, typed, from } => torque_wanted(*moment, typed, *from),
        BoltUpMessage::TorqueMade { made, wanted } => torque_made(*made, *wanted),
        BoltUpMessage::ByFeel { because } => by_feel(because),
        BoltUpMessage::TorqueMissing => torque_missing(),
        BoltUpMessage::Reference { usual, stands } => reference(*usual, *stands),
        BoltUpMessage::EyeOff { stands, droop, steered } => eye_off(*stands, *droop, *steered),
        BoltUpMessage::Says { of, next } => says(*of, next.as_ref().map(say).as_ref()),
        BoltUpMessage::ChooseFirst => choose_first(),
        BoltUpMessage::NothingYet => nothing_yet(),
        BoltUpMessage::Refused => refused(),
        BoltUpMessage::MockUp { open } => mock_up(open),
        BoltUpMessage::CornersApart { name, apart } => corners_apart(name, *apart),
        BoltUpMessage::CornerMoved { name, change } => corner_moved(name, *change),
        BoltUpMessage::CornersMoved { moved } => corners_moved(&say_all(moved)),
        BoltUpMessage::CornersAlike => corners_alike(),
        BoltUpMessage::StillOff { names } => still_off(&names.iter().map(String::as_str).collect::<Vec<_>>()),
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

/// A step in words.
struct StepSays {
    does: Phrase,
    how: Option<Phrase>,
    because: &'static str,
    caution: Option<&'static str>,
}

const STANDS: &str = "Stands under the frame, never a jack alone. Springs store energy, and the axle shifts or drops when the bar comes off.";
const FINGERS: &str = "Engine off, fingers out of the hole while anything moves. A strap under load lets go along its line: stand clear of it.";
const WELDING: &str = "Eyes and hands covered, fuel and brake lines and soft bushings away from heat, something to put a fire out at hand. Structural welding belongs to people qualified and, where the law says so, licensed.";
const DRILLING: &str = "Eyes covered, the drill braced against its kick, hot chips away from hands, nothing behind the far wall.";
const STEERING: &str = "Steering parts by the maker's sheet alone: torqued, pinned and inspected.";
const SWAY: &str = "A twisted bar stores energy: level ground, both wheels alike before a link is undone.";

fn plain(text: &str) -> Phrase {
    Phrase::plain(text)
}

fn reported(
    does: Phrase,
    how: Option<Phrase>,
    because: &'static str,
    caution: Option<&'static str>,
) -> StepSays {
    StepSays { does, how, because, caution }
}

fn reported_of(facts: &StepFacts) -> StepSays {
    step(&facts.of, &facts.what)
}

/// The hole as people call it.
fn hole_name(name: &str) -> String {
    // A hole may be called by a bare word, such as high.
    match name {
        "" => "the old hole".to_owned(),
        _ if name.to_lowercase().contains("hole") => name.to_owned(),
        _ => format!("the hole \u{201c}{name}\u{201d}"),
    }
}

fn bracket_name(context: &StepContext, end: BracketEnd) -> String {
    let part = context.situation.at(end).and_then(|work| work.bracket.as_ref());
    part.map_or_else(|| format!("{} bracket", end_word(end)), |part| part.name.clone())
}

/// Where an eye is bolted.
fn into_hole(context: &StepContext, end: BracketEnd) -> String {
    match context.situation.at(end) {
        Some(work) if work.bracket.is_some() => {
            format!("into {} of the {}", hole_name(&work.hole), bracket_name(context, end))
        }
        Some(work) => format!("into {} of its bracket", hole_name(&work.hole)),
        None => "into its bracket".to_owned(),
    }
}

/// A step in words.
fn step(context: &StepContext, what: &What) -> StepSays {
    use What as W;
    match what {
        W::Corners
        | W::Stands
        | W::ComesOff(_)
        | W::BarOut
        | W::EyeOff(_)
        | W::EyeEased(_)
        | W::AdjusterOff => undoing(context, what),
        W::MockUp | W::Drill(_) => making(context, what),
        W::BatteryOff
        | W::Bare(_)
        | W::Tack(_)
        | W::TackCheck(_)
        | W::Weld(_)
        | W::Coat(_)
        | W::BatteryOn => welding(context, what),
        W::BracketByHand(_) | W::Snug(_) | W::BracketTight(..) => bracket_bolts(context, what),
        W::BarCut | W::BarTack | W::Build => bar_made(context, what),
        W::Bench | W::AdjusterByHand | W::Loosen | W::Turn | W::Jam => bar_set(context, what),
        W::EyeByHand(_) | W::EyeTight(_) | W::AdjusterTight | W::EyePin(_) | W::AdjusterPin => {
            eyes(context, what)
        }
        W::DragLink | W::DragLinkTight | W::DragLinkPin | W::DragLinkTurn | W::DragLinkClamps => {
            steering(context, what)
        }
        W::Spacers | W::Legs | W::LegsJam => y_link(context, what),
        W::SwayByHand
        | W::FirstArm
        | W::SecondArm
        | W::StickOut
        | W::SwayMounts
        | W::ArmsAlike
        | W::Pinch => swaying(context, what),
        W::LinksSet | W::LinksByHand | W::LinksTight | W::LinksRead | W::LinksJam => {
            sway_links(context, what)
        }
        W::OnItsWeight | W::ReadAgain | W::Grease | W::Witness | W::PutBack | W::Own { .. } => {
            closing(context, what)
        }
    }
}

fn undoing(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::Corners => reported(
            plain("Read the heights of all four corners"),
            Some(plain(
                "From the same mark on each wheel arch straight down to the hub's middle, on its weight, bounced to settle.",
            )),
            "Once something is undone nobody can tell what changed.",
            None,
        ),
        What::Stands => reported(
            plain("Chock the wheels, set stands under the frame, hold the axle with a jack"),
            None,
            "Nothing is undone before it cannot fall.",
            Some(STANDS),
        ),
        What::ComesOff(end) => {
            let first = context.situation.at(*end).and_then(|work| work.comes_off()).unwrap_or_default();
            reported(
                plain(&format!(
                    "Take off what is in the way of the {}: {first}",
                    bracket_name(context, *end)
                )),
                Some(plain("Write down below whatever is unclipped or eased with it: it has to go back.")),
                "The bracket sits crooked on what is left under it.",
                None,
            )
        }
        What::BarOut => reported(
            plain("Take the old bar out, axle eye first"),
            Some(plain(
                "Look while it is apart: oval holes, a bolt thinner than its hole, torn bushings, cracks in the brackets.",
            )),
            "The axle stays where its springs leave it once the bar is out.",
            Some(STANDS),
        ),
        What::EyeEased(end) => reported(
            plain(&format!("Ease the {} eye's bolt a turn", end_word(*end))),
            Some(plain("It stays in its hole; it is tightened again on the weight.")),
            "The bar comes to stand at another angle: rubber that is held would be wound up by it for good.",
            Some(STANDS),
        ),
        What::EyeOff(end) => reported(
            plain(&format!("Unbolt the {} eye", end_word(*end))),
            Some(plain("Look at the hole and the bushing while it is apart.")),
            "Its other end stays bolted and holds the bar.",
            Some(STANDS),
        ),
        _ => reported(
            plain("Unbolt the adjusting end and loosen its jam nut"),
            None,
            "A one-end bar turns only with its end free.",
            Some(STANDS),
        ),
    }
}

fn making(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::MockUp => reported(
            plain("Mock everything up and cycle it"),
            Some(Phrase::of(|w| {
                format!(
                    "Left and right equally high, the axle strapped to centre, both sides read until repeats agree, then from full droop to full bump and cross-axled, {} past the stops.",
                    w.distance(Length::from_mm(12.7))
                )
            })),
            "What is drilled or welded in the wrong place stays there.",
            Some(
                "With springs out the axle hangs on jacks: stands under the frame, nobody beneath, fingers out of every gap while it moves.",
            ),
        ),
        What::Drill(id) => {
            let drill = context.situation.drills.iter().find(|drill| drill.id == *id);
            let name = drill.map_or("", |drill| drill.name.as_str());
            reported(
                plain(&format!("Drill: {name}")),
                drill.and_then(drill_size).map(drilling),
                "Marked through the bracket, the hole is where the bracket is.",
                Some(DRILLING),
            )
        }
        _ => unsaid(),
    }
}

fn welding(context: &StepContext, what: &What) -> StepSays {
    let bracket = |end: &BracketEnd| bracket_name(context, *end);
    match what {
        What::BatteryOff => reported(
            plain("Battery: negative off"),
            Some(plain("Unplug what the vehicle's maker names before arc welding.")),
            "Welding current finds its way through electronics.",
            None,
        ),
        What::Bare(end) => reported(
            plain(&format!("Clean to bright metal and bevel where the {} goes", bracket(end))),
            Some(plain(
                "An old bracket in its place comes off first. Bushings and lines near it out or covered.",
            )),
            "Paint and rust in a weld are holes in it.",
            Some(WELDING),
        ),
        What::Tack(end) => reported(
            plain(&format!("Tack the {} only", bracket(end))),
            Some(plain("Angle finder zeroed on its partner at the other end, read on this one: both alike.")),
            "A tack comes off again.",
            Some(WELDING),
        ),
        What::TackCheck(end) => reported(
            plain(&format!("Check the tacked {}: angle, reach, full cycle", bracket(end))),
            Some(plain(
                "The bar must reach its length both ways and pass everything from full droop to full bump.",
            )),
            "Tacks pull as they cool.",
            None,
        ),
        What::Weld(end) => reported(
            plain(&format!("Weld the {} out", bracket(end))),
            Some(plain("Short runs turn about, bushings out, let it cool between.")),
            "One long run pulls it out of line and burns what is rubber.",
            Some(WELDING),
        ),
        What::Coat(end) => reported(
            plain(&format!("Let the {} cool, then coat it", bracket(end))),
            None,
            "Bare steel beside a weld rusts first.",
            None,
        ),
        What::BatteryOn => reported(plain("Battery: on again"), None, "All welding is done.", None),
        _ => unsaid(),
    }
}

/// Which drills, one after the other.
fn drilling(size: Length) -> Phrase {
    Phrase::of(|w| {
        let sizes: Vec<String> = drills(size, w.unit()).into_iter().map(|size| w.fine(size)).collect();
        format!(
            "Bracket hard against its seat and level with its partner. Mark through it (a pen, or paint through the holes on dark steel), punch, drill {}. The far side in line, or with the bracket off. Deburr, clear the chips, paint the raw edges.",
            sizes.join(", then ")
        )
    })
}

/// With the length the bar gets, where it gets another.
fn to_length(context: &StepContext, verb: &str) -> Phrase {
    match context.situation.bar.as_ref().and_then(|bar| bar.length) {
        Some(length) => Phrase::of(|w| format!("{verb} {}, eye to eye", w.fine(length))),
        None => plain(verb),
    }
}

/// How far to turn, jam nuts loose first.
fn setting(context: &StepContext) -> Option<Phrase> {
    // What was in the vehicle is held by its jam nuts.
    let hung = context.situation.bar.as_ref().is_some_and(|bar| bar.hangs.is_some());
    let loosen = (!hung).then(|| plain("Jam nuts or clamps loose first."));
    let reported: Vec<Phrase> = loosen.into_iter().chain(say_all(&context.setting)).collect();
    (!reported.is_empty()).then(|| in_a_row(&reported))
}

fn bracket_bolts(context: &StepContext, what: &What) -> StepSays {
    let situation = &context.situation;
    match what {
        What::BracketByHand(end) => reported(
            plain(&format!("Start every bolt of the {} by hand", bracket_name(context, *end))),
            Some(plain("All the way with the fingers: a nut that stops is the wrong one, or crossed.")),
            "One bolt pulled tight draws the others out of line.",
            None,
        ),
        What::Snug(end) => reported(
            plain(&format!("{}: all bolts snug, then back one turn", bracket_name(context, *end))),
            None,
            "It settles on its seat before it is held there.",
            None,
        ),
        What::BracketTight(end, bolts) => reported(
            plain(&format!("{}: tighten the {}", bracket_name(context, *end), bolts_reported(*bolts))),
            Some(plain(if through_bushing(situation, *end, *bolts) {
                "It goes through an arm's bushing: on its weight at the driven height, never hanging. The maker's \
                 order comes first where there is one."
            } else if *bolts == BracketBolts::Main {
                "The maker's order comes first where there is one."
            } else {
                "Where there are several, in two passes: all half tight, the middle ones first and the outermost \
                 last, then to full torque the same way. The maker's order comes first where there is one."
            })),
            "Pulled up from the small ones it sits crooked.",
            None,
        ),
        _ => unsaid(),
    }
}

fn bar_made(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::BarCut => reported(
            to_length(context, "Cut and cope the stock for a bar of"),
            Some(plain(
                "Measure the gap once more first, on its weight, the axle strapped to centre. The cut length and the \
                 wraps for the copes are in stage Bracket.",
            )),
            "Cut once: what is short stays short.",
            Some("Eyes covered, the stock clamped, sharp edges deburred."),
        ),
        What::BarTack => reported(
            plain("Tack the bar in its place, between both shells"),
            Some(plain(
                "On its weight at the driven height, the axle strapped to centre as for the gap, brackets snug, both \
                 eyes bolted. Set it down for this, and back on stands afterwards.",
            )),
            "Tacked where it hangs, both eyes lie in line with their bolts.",
            Some(WELDING),
        ),
        What::Build => reported(
            to_length(context, "Take the bar out, bushings out of their shells, and weld it to"),
            Some(plain(
                "Check the length between the bolts' centres against the tacked bar, weld in short runs turn about, \
                 let it cool, coat it, then the bushings in.",
            )),
            "A welded bar cannot be set afterwards, and the heat of the weld burns a bushing.",
            Some(WELDING),
        ),
        _ => unsaid(),
    }
}

fn bar_set(context: &StepContext, what: &What) -> StepSays {
    let situation = &context.situation;
    match what {
        What::Bench => reported(
            match &situation.bar {
                Some(bar) if bar.hangs.is_some() => to_length(
                    context,
                    &format!("On the bench, set the {} to", bar.hangs.as_deref().unwrap_or_default()),
                ),
                _ => to_length(context, "With its eye free, set the bar to"),
            },
            setting(context),
            "On the bench both ends can be seen and evened.",
            Some("Never fewer threads in than the maker asks."),
        ),
        What::AdjusterByHand => reported(
            to_length(context, "Turn the free end and bolt it back by hand: the bar is"),
            setting(context),
            "The eye must go over its bolt by itself.",
            Some(FINGERS),
        ),
        What::Loosen => reported(
            plain("Loosen both jam nuts or clamps, mark the sleeve where it stands"),
            Some(plain("A line across sleeve and thread shows every turn.")),
            "A sleeve that is still held tears at its thread.",
            None,
        ),
        What::Turn => reported(
            to_length(context, "Turn the sleeve until the bar is"),
            setting(context),
            "It turns with both eyes bolted, as it stands.",
            None,
        ),
        What::Jam => reported(
            plain(match situation.bar.as_ref().and_then(|bar| bar.kind) {
                Some(AdjusterKind::OneEnd) => "Tighten the jam nut",
                _ => "Tighten both jam nuts or clamps, clamps square",
            }),
            Some(plain("Hold the bar so that its eyes stay parallel.")),
            "Last, once both sides read alike: before that the length may still change.",
            None,
        ),
        _ => unsaid(),
    }
}

fn eyes(context: &StepContext, what: &What) -> StepSays {
    let situation = &context.situation;
    match what {
        What::EyeByHand(end) => reported(
            plain(&format!(
                "Bolt the {} eye {} by hand, on the {} side",
                end_word(*end),
                into_hole(context, *end),
                context.side(*end).map_or("", Side::word)
            )),
            if *end == BracketEnd::Axle || !situation.is_undone(BracketEnd::Axle) {
                context.eye.as_ref().map(say)
            } else {
                None
            },
            "The other end of the bar finds its hole only while this one is loose.",
            Some(FINGERS),
        ),
        What::EyeTight(end) => {
            let joint = situation.bar.as_ref().map(|bar| bar.joints[usize::from(*end == BracketEnd::Axle)]);
            reported(
                plain(&format!("Tighten the {} eye's bolt", end_word(*end))),
                joint.map(|joint| plain(tighten_at(joint))),
                eye_because(joint),
                None,
            )
        }
        What::AdjusterTight => {
            let joints = situation.bar.as_ref().map(|bar| bar.joints);
            let joint = joints.map(|j| j.into_iter().find(|joint| is_bushing(*joint)).unwrap_or(j[0]));
            reported(
                plain("Tighten the bolt of the adjusting end"),
                joint.map(|joint| plain(tighten_at(joint))),
                eye_because(joint),
                None,
            )
        }
        What::EyePin(end) => pin(&format!("{} eye's", end_word(*end))),
        What::AdjusterPin => pin("adjusting end's"),
        _ => unsaid(),
    }
}

fn y_link(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::Spacers => reported(
            plain("Take the spacers behind the old upper mount out, on stands"),
            None,
            "They keep the housing from turning: left in, they hold what the new link has to move.",
            Some(STANDS),
        ),
        What::Legs => reported(
            plain("Turn the legs of the Y-link until both sides read alike and the pinion stands as before"),
            (!context.legs.is_empty()).then(|| in_a_row(&say_all(&context.legs))),
            "One leg against the other moves the axle sideways, both alike turn the pinion.",
            None,
        ),
        What::LegsJam => reported(
            plain("Tighten the jam nuts of both legs"),
            None,
            "Last, once both sides read alike.",
            None,
        ),
        _ => unsaid(),
    }
}

fn closing(context: &StepContext, what: &What) -> StepSays {
    match what {
        What::OnItsWeight => reported(
            plain(&on_its_weight(context.driven.as_deref())),
            Some(plain(if context.steered {
                "Off the stands, wheels straight, bounced to settle, nobody leaning on it."
            } else {
                "Off the stands, bounced to settle, nobody leaning on it."
            })),
            "Bushings are tightened and readings are taken as it is driven.",
            Some("Nobody under the vehicle while it is let down or bounced."),
        ),
        What::ReadAgain => reported(
            plain("Read both sides again, in stage Prove"),
            Some(in_a_row(
                &context
                    .readings
                    .iter()
                    .map(say)
                    .chain([plain(
                        "First look: along the door handles as much tread shows on the left as on the right.",
                    )])
                    .collect::<Vec<_>>(),
            )),
            "What was reckoned is held against the tape before anything is locked.",
            None,
        ),
        What::Grease => reported(
            plain("Grease until it shows, wipe the rest off"),
            Some(plain("Where there is a nipple; polyurethane by its maker's grease.")),
            "Dry joints squeak and wear.",
            None,
        ),
        What::Witness => reported(
            plain("Paint a mark across every nut and what it sits on"),
            None,
            "A mark that has come apart is seen at a glance.",
            None,
        ),
        What::PutBack => reported(
            plain("Put everything back that was taken off"),
            Some(plain(
                "Every line of the put-back list, then lines and looms followed by hand from end to end.",
            )),
            "What is forgotten chafes or hangs.",
            None,
        ),
        What::Own { does, .. } => reported(plain(does), None, "Your own step.", None),
        _ => unsaid(),
    }
}

/// Said of a step in another function of this file.
fn unsaid() -> StepSays {
    reported(Phrase::default(), None, "", None)
}

/// A cotter pin through a castle nut of the bar.
fn pin(whose: &str) -> StepSays {
    reported(
        plain(&format!("Cotter pin through the {whose} castle nut")),
        Some(plain("Tighten on to the next slot, never back; bend the pin's legs round the nut.")),
        "Back off to a slot and the torque is gone.",
        None,
    )
}

fn steering(context: &StepContext, what: &What) -> StepSays {
    let name = context.situation.drag_link.clone().unwrap_or_default();
    match what {
        What::DragLink => reported(
            plain(&format!("Fit the {name}, nuts by hand")),
            Some(plain("Taper clean and dry, seated before the nut is drawn up.")),
            "The drag link follows the bar, or the wheel steers itself over bumps.",
            Some(STEERING),
        ),
        What::DragLinkTight => reported(
            plain(&format!("Tighten the nuts of the {name}")),
            None,
            "A ball stud turns in its taper until it is seated.",
            Some(STEERING),
        ),
        What::DragLinkTurn => reported(
            plain("Turn the drag link's sleeve until the steering wheel is straight"),
            context.link.as_ref().map(say).or_else(|| {
                Some(plain("Clamps loose, wheels straight ahead, half turns at a time; equal thread in at both ends."))
            }),
            "The steering wheel turns with the axle when it is centred.",
            Some(STEERING),
        ),
        What::DragLinkClamps => reported(
            plain("Tighten the clamps of the drag link's sleeve"),
            Some(plain("Both ball studs in the middle of their swing, the clamps' bolts clear of everything at lock.")),
            "A sleeve that turns by itself steers by itself.",
            Some(STEERING),
        ),
        _ => reported(
            plain(&format!("Cotter pins through the nuts of the {name}")),
            Some(plain("Tighten on to the next slot, never back.")),
            "Back off to a slot and the torque is gone.",
            Some(STEERING),
        ),
    }
}

fn swaying(context: &StepContext, what: &What) -> StepSays {
    let work = context.situation.sway.as_ref();
    match what {
        What::SwayByHand => reported(
            plain("Hang the sway bar in its clamps, bolts by hand"),
            Some(plain("A plate under one clamp wants an equal shim under the other.")),
            "It still has to slide.",
            Some(SWAY),
        ),
        What::FirstArm => reported(
            plain("First splined arm on, its mount bolt tight"),
            None,
            "The bar is pushed through against it.",
            Some(SWAY),
        ),
        What::SecondArm => reported(
            plain("Push the bar through, second arm on, its mount bolt loose"),
            Some(plain("Both arms in the same spline, or as close as the splines allow.")),
            "It slides until the stick-out is equal.",
            None,
        ),
        What::StickOut => reported(
            plain("Slide the sway bar until it sticks out equally on both sides"),
            Some(plain("Read it in stage Tape, sheet stick-out.")),
            "Off centre one arm comes nearer to what is beside it.",
            None,
        ),
        What::SwayMounts => reported(
            plain(if work.is_some_and(|work| work.splined) {
                "Tighten the second arm's mount bolt"
            } else {
                "Tighten the clamps of the sway bar, stops against them"
            }),
            None,
            "Once the stick-out is equal.",
            None,
        ),
        What::ArmsAlike => reported(
            plain("Bring both arms to the same angle"),
            Some(plain("Angle finder on both, on level ground, on its weight.")),
            "A spline apart twists the bar at rest.",
            None,
        ),
        What::Pinch => {
            reported(plain("Tighten the pinch bolts of both arms"), None, "Once both arms stand alike.", None)
        }
        _ => unsaid(),
    }
}

fn links_set(work: Option<&SwayWork>) -> StepSays {
    if unequal(work).is_some() {
        return reported(
            match work.and_then(|work| Some((work.link?, work.left_longer / 2.0))) {
                Some((link, half)) => Phrase::of(|w| {
                    let (left, right) = (w.fine(link + half), w.fine(link - half));
                    format!("Set the left sway link to {left} and the right one to {right}, eye to eye")
                }),
                None => plain("Set both sway links"),
            },
            Some(plain("Unequal on purpose; right- and left-hand thread in alike at each link.")),
            "The preload that is wanted comes from their difference.",
            Some(SWAY),
        );
    }
    reported(
        match work.and_then(|work| work.link) {
            Some(link) => Phrase::of(|w| format!("Set both sway links to {}, eye to eye", w.fine(link))),
            None => plain("Set both sway links alike"),
        },
        Some(plain("Side by side, a bolt through both eyes; right- and left-hand thread in alike.")),
        "Unequal links twist the bar at rest.",
        Some(SWAY),
    )
}

fn sway_links(context: &StepContext, what: &What) -> StepSays {
    let work = context.situation.sway.as_ref();
    match what {
        What::LinksSet => links_set(work),
        What::LinksByHand => reported(
            match work.and_then(|work| work.hole) {
                Some(arm) => Phrase::of(|w| {
                    format!("Hang both sway links by hand, in the hole {} from the bar's axis", w.fine(arm))
                }),
                None => plain("Hang both sway links by hand"),
            },
            Some(plain("Bolts from the side they come out of again.")),
            "Both sides hang before either is tight.",
            Some(SWAY),
        ),
        What::LinksTight => reported(
            plain("Tighten the sway links' bolts, both ends, both sides"),
            Some(plain("On its weight on level ground: their bushings rest where it is driven.")),
            "Tightened hanging, the bushings are wound up for good.",
            None,
        ),
        What::LinksRead if unequal(work).is_some() => reported(
            match unequal(work) {
                Some(longer) => Phrase::of(|w| {
                    let side = if longer > Length::ZERO { "left" } else { "right" };
                    format!(
                        "Measure both sway links: the {side} one {} longer, as wanted",
                        w.fine(longer.abs())
                    )
                }),
                None => plain("Measure both sway links"),
            },
            None,
            "They are unequal on purpose: the arms do not stand alike.",
            None,
        ),
        What::LinksRead => reported(
            plain("Look at both arms: the same angle left and right"),
            None,
            "One link a turn longer shows here.",
            None,
        ),
        What::LinksJam => reported(
            plain("Tighten the sway links' jam nuts"),
            None,
            if unequal(work).is_some() {
                "Last, once both links are as long as wanted."
            } else {
                "Last, once both arms stand alike."
            },
            None,
        ),
        _ => unsaid(),
    }
}

/// How much longer the left link is on purpose; None where both are alike.
fn unequal(work: Option<&SwayWork>) -> Option<Length> {
    work.map(|work| work.left_longer).filter(|longer| *longer != Length::ZERO)
}

/// What is cut, and where its template is.
pub(crate) fn cut(what: CutKind) -> (&'static str, &'static str) {
    match what {
        CutKind::BarStock => (
            "Stock of the bar",
            "Its length and the wraps for its copes, printed one to one, are in stage Bracket. Measure the check bar \
             on the paper before you mark.",
        ),
        CutKind::LinkRods => {
            ("Rods of the sway links", "Their length with the joints' threads is in stage Sway.")
        }
        CutKind::Panel => (
            "Hole in the panel for the sway arm",
            "The template is in stage Sway. Look what is behind the panel before you cut: lines, looms, the tyre.",
        ),
    }
}

const fn bolts_reported(bolts: BracketBolts) -> &'static str {
    match bolts {
        BracketBolts::Main => "main bolt",
        BracketBolts::Side => "side bolts",
        BracketBolts::Small => "small bolts",
    }
}

const fn tighten_at(joint: JointKind) -> &'static str {
    if is_bushing(joint) {
        "On its weight at the driven height, never in a raised mode."
    } else {
        "A spherical joint is tightened at any height."
    }
}

fn eye_because(joint: Option<JointKind>) -> &'static str {
    match joint {
        Some(JointKind::Rubber) => "A rubber bushing tightened hanging is wound up for good.",
        Some(JointKind::Polyurethane) => {
            "A polyurethane bushing tightened hanging is squeezed out of its place."
        }
        Some(JointKind::Spherical | JointKind::SphericalHighMisalignment) | None => {
            "After the bracket's own bolts."
        }
    }
}

fn on_its_weight(driven: Option<&str>) -> String {
    match driven {
        None => "Set it down on its weight, at ride height".to_owned(),
        Some(driven) => {
            format!("Set it down on its weight, at the height it is driven at: {driven}")
        }
    }
}

/// Whether a group of a bracket's bolts goes through an arm's bushing.
fn through_bushing(situation: &Situation, end: BracketEnd, bolts: BracketBolts) -> bool {
    let key = format!("{}/{}", end_word(end), bolts.word());
    situation.through_bushings.contains(&key)
}

/// Sentences one after the other, each with its full stop.
pub(crate) fn in_a_row(phrases: &[Phrase]) -> Phrase {
    Phrase::of(|w| {
        let stopped = |phrase: &Phrase| {
            let text = phrase.in_unit(w.unit()).trim();
            if text.ends_with(['.', '!', '?', ':']) { text.to_owned() } else { format!("{text}.") }
        };
        phrases.iter().map(stopped).collect::<Vec<_>>().join(" ")
    })
}

/// How the vehicle has to stand.
pub(crate) const fn stands(stands: Option<Stands>) -> &'static str {
    match stands {
        None => "at any height",
        Some(Stands::Supported) => "on stands, the axle held",
        Some(Stands::OnItsWeight) => "on its weight, at the driven height",
    }
}

/// Why a step comes after another one.
pub(crate) const fn rule(rule: Rule) -> &'static str {
    match rule {
        Rule::StandsFirst => "nothing is undone before stands are under the frame",
        Rule::ReadFirst => "it is read before anything is undone",
        Rule::OutOfTheWay => "it has to be out of the way first",
        Rule::MockUpFirst => "nothing is drilled, cut or welded before the mock-up stands",
        Rule::BatteryOff => "the battery's negative is off while it is welded",
        Rule::TackFirst => "it is tacked and checked before it is welded out",
        Rule::ColdFirst => "it has to be cold and coated first",
        Rule::DrilledFirst => "it is drilled before it is bolted or welded",
        Rule::SetFirst => "its length is set before it is hung",
        Rule::HungFirst => "it has to hang first",
        Rule::HandFirst => "every bolt is started by hand before any is tight",
        Rule::SnugFirst => "snug and back one turn comes before tight",
        Rule::MainFirst => "the main bolt comes before the side bolts",
        Rule::SideFirst => "the side bolts come before the small ones",
        Rule::BarBoltLast => "the bar's own bolt comes after the bracket's",
        Rule::OnItsWeight => "it has to stand on its weight at the driven height",
        Rule::FirstArmTight => "the first arm is tight before the bar is pushed through",
        Rule::StickOutFirst => "the stick-out has to be equal first",
        Rule::AnglesFirst => "both arms have to stand alike first",
        Rule::LooseFirst => "it has to be loose first",
        Rule::SetBeforeRead => "its length is set before it is read",
        Rule::ReadBeforeJam => "jam nuts and clamps are last, once both sides read alike",
        Rule::CentredFirst => "the axle is centred before the steering wheel is set by the drag link",
        Rule::TorqueBeforePin => "it is torqued before it is pinned",
        Rule::TightFirst => "everything has to be tight first",
        Rule::PutBackLast => "it goes back once the rest is tight",
        Rule::AsWritten => "you put it there",
    }
}

/// A pair that stands the wrong way round in a person's order.
pub(crate) fn broken(first: &Phrase, then: &Phrase, why: Rule) -> Phrase {
    Phrase::of(|w| {
        format!(
            "\u{201c}{}\u{201d} stands before \u{201c}{}\u{201d}, but {}.",
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
    Phrase::of(|w| format!("Done before \u{201c}{}\u{201d}, though {}.", first.in_unit(w.unit()), rule(why)))
}

pub(crate) fn stood_otherwise(stood: Stands, wanted: Stands) -> Phrase {
    Phrase::plain(&format!(
        "Done {}; it belongs done {}. Loosen it and do it again so, or keep the reason.",
        stands(Some(stood)),
        stands(Some(wanted))
    ))
}

pub(crate) fn stand_otherwise(wanted: Stands) -> Phrase {
    Phrase::plain(&format!("It does not stand so now: this is done {}.", stands(Some(wanted))))
}

pub(crate) fn changed(read: &str) -> Phrase {
    Phrase::plain(&format!(
        "The plan has changed since this was ticked. Then it said: \u{201c}{read}\u{201d}."
    ))
}

pub(crate) fn gone(read: &str) -> Phrase {
    Phrase::plain(&format!("Done, and no longer in the plan: \u{201c}{read}\u{201d}."))
}

pub(crate) fn no_torque(name: &str) -> Phrase {
    Phrase::plain(&format!("Ticked, but no torque is on record for the {name}."))
}

pub(crate) fn wrong_part(part: &PartRecord, name: &str) -> Phrase {
    let what = if part.state == Some(PartState::Wrong) { "is the wrong one" } else { "is not there" };
    let note = if part.note.trim().is_empty() { String::new() } else { format!(": {}", part.note.trim()) };
    Phrase::plain(&format!("The {name} {what}{note}. This step stops here."))
}

pub(crate) fn wrong_nut(name: &str) -> Phrase {
    Phrase::plain(&format!(
        "The nut of the {name} is not its own: it starts and then binds, and strips the thread. This step stops here."
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
    Phrase::plain(&format!("Reason: {}", text.trim()))
}

/// For the supplier.
pub(crate) fn supplier(part: &PartRecord, name: &str, vehicle: &str) -> Phrase {
    let what = if part.state == Some(PartState::Wrong) { "the wrong one came" } else { "is missing" };
    let note = if part.note.trim().is_empty() { String::new() } else { format!(" {}.", part.note.trim()) };
    let of = if vehicle.trim().is_empty() { String::new() } else { format!(" for {}", vehicle.trim()) };
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
        Some(TorqueSource::PartsSheet) => "from the part's sheet",
        Some(TorqueSource::VehicleManual) => "from the vehicle's manual",
        Some(TorqueSource::MakerTold) => "the maker told it",
        Some(TorqueSource::FromMemory) => "from memory, unconfirmed",
        None => "nobody said where from: unconfirmed",
    }
}

pub(crate) fn torque_wanted(moment: Moment, typed: &str, from: Option<TorqueSource>) -> Phrase {
    Phrase::of(|w| format!("{}, written as {typed}, {}", both(w, moment), source(from)))
}

pub(crate) fn torque_made(made: Moment, wanted: Option<Moment>) -> Phrase {
    Phrase::of(|w| match wanted {
        Some(wanted) => {
            format!("{} on the wrench, {} was wanted: tighten it again.", both(w, made), both(w, wanted))
        }
        None => format!("{} on the wrench", both(w, made)),
    })
}

pub(crate) fn by_feel(because: &str) -> Phrase {
    Phrase::plain(&format!(
        "By feel, because {}. It is on the list to check again.",
        because.trim().trim_end_matches('.')
    ))
}

pub(crate) fn torque_missing() -> Phrase {
    Phrase::plain("Take the torque from the part's own sheet; none is supplied here.")
}

pub(crate) fn reference(usual: Moment, stands: Option<TorqueStands>) -> Phrase {
    Phrase::of(|w| {
        let usual = torque(w, usual);
        match stands {
            Some(TorqueStands::Low) => {
                format!("Low: about {usual} is usual for such a bolt. Check the sheet's unit.")
            }
            Some(TorqueStands::PastProof) => {
                format!(
                    "More than the bolt carries: about {usual} is usual. Check the sheet's unit and the grade."
                )
            }
            Some(TorqueStands::Usual) => {
                format!("Usual for such a bolt: about {usual}. The sheet's figure rules.")
            }
            None => format!("About {usual} is usual for such a bolt, to compare the sheet's figure with."),
        }
    })
}

/// Where the eye is from its hole: on its weight, and at full droop with the axle where the old bar had it there, and
/// where it stood on its wheels. A side is told only where both agree.
pub(crate) fn eye_off(stands: Length, droop: Option<[Length; 2]>, steered: bool) -> Phrase {
    Phrase::of(|w| {
        let here = if w.shows_nothing(stands) {
            "As it stands on its weight the eye meets its hole.".to_owned()
        } else {
            format!("Surest on its weight: there the axle has to come {} for its hole.", w.sideways(stands))
        };
        let there = droop.map_or_else(String::new, |[held, stood]| at_droop(w, held, stood));
        let helper = if steered { ", or a helper turns the steering wheel a little" } else { "" };
        format!(
            "{here}{there} Push the body the other way, ratchet strap from the axle to the frame rail on the side the axle has to go to, jack under one side{helper}."
        )
    })
}

/// What is sure of the axle's place at full droop, with the old bar out.
fn at_droop(w: Words, held: Length, stood: Length) -> String {
    let (least, most) = if held.abs() <= stood.abs() { (held, stood) } else { (stood, held) };
    let same_side = held.to_mm() * stood.to_mm() > 0.0;
    let (near, far) = (w.movement(least), w.movement(most));
    match (w.shows_nothing(least), w.shows_nothing(most)) {
        (true, true) => " At full droop it meets its hole.".to_owned(),
        (true, false) => format!(" At full droop {far} at the most."),
        _ if same_side && w.distance(least) == w.distance(most) => format!(" At full droop {near}."),
        _ if same_side => format!(" At full droop between {near} and {far}."),
        _ => format!(
            " At full droop nothing holds the axle: look first, it may have to come {near} or {far}, by where springs \
             and bushings leave it."
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
    Phrase::plain("Choose a hole or the length alone in stage Bracket first")
}

pub(crate) fn nothing_yet() -> Phrase {
    Phrase::plain("Choose what is set in stage Bar, Bracket or Sway; the order of work follows from it.")
}

pub(crate) fn refused() -> Phrase {
    Phrase::plain("The bar cannot be set as planned: see stage Bar before anything is undone.")
}

fn mock_up(open: &[MockUpOpen]) -> Phrase {
    let open: Vec<&str> = open.iter().copied().map(open_of_mock_up).collect();
    if open.is_empty() {
        return Phrase::plain("The mock-up stands: measure the gap, drill, weld.");
    }
    Phrase::plain(&format!("Not before the mock-up stands. Still open: {}.", open.join(", ")))
}

const fn open_of_mock_up(open: MockUpOpen) -> &'static str {
    match open {
        MockUpOpen::CornersEqual => "left and right equally high",
        MockUpOpen::Strapped => "strapped to centre",
        MockUpOpen::RepeatsAgree => "repeats agree",
        MockUpOpen::Cycled => "the full cycle done",
    }
}

pub(crate) fn corners_apart(name: &str, apart: Length) -> Phrase {
    Phrase::of(|w| {
        format!("The {name} corners stand {} apart: no mock-up is measured so.", w.distance(apart))
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
            "It stands otherwise than before: {}. Readings before and after cannot be compared until it stands alike.",
            reported.join(", ")
        )
    })
}

pub(crate) fn corners_alike() -> Phrase {
    Phrase::plain("All four corners stand as before.")
}

pub(crate) fn still_off(names: &[&str]) -> Phrase {
    Phrase::plain(&format!("Still off: {}.", names.join(", ")))
}

/// A hole of the drill schedule.
pub(crate) fn drill(size: Option<Length>) -> Phrase {
    size.map_or_else(|| Phrase::plain("Type its size: pilot and steps follow from it."), drilling)
}

/// What a fastener is called.
fn fastener(name: &FastenerName) -> String {
    match name {
        FastenerName::FrameEye => "frame eye's bolt",
        FastenerName::AxleEye => "axle eye's bolt",
        FastenerName::Adjuster => "bolt of the adjusting end",
        FastenerName::JamNut => "bar's jam nut",
        FastenerName::JamNuts => "bar's jam nuts or clamps",
        FastenerName::DragLinkClamps => "clamps of the drag link's sleeve",
        FastenerName::DragLinkNuts => "nuts of the drag-link part",
        FastenerName::FirstMount => "first sway arm's mount bolt",
        FastenerName::SecondMount => "second sway arm's mount bolt",
        FastenerName::SwayClamps => "sway bar's clamps",
        FastenerName::Pinch => "pinch bolts of the sway arms",
        FastenerName::ArmEyes => "sway links' bolts on the arms",
        FastenerName::FarEnds => "sway links' bolts at the far ends",
        FastenerName::LinksJam => "sway links' jam nuts",
        FastenerName::LegsJam => "jam nuts of the Y-link's legs",
        FastenerName::Typed(name) => name,
        FastenerName::Bracket { bolts, bracket } => {
            let bracket = bracket.as_deref().unwrap_or("bracket");
            return match bolts {
                BracketBolts::Main => format!("main bolt of the {bracket}"),
                BracketBolts::Side => format!("side bolts of the {bracket}"),
                BracketBolts::Small => format!("small bolts of the {bracket}"),
            };
        }
    }
    .to_owned()
}

/// What a part of the plan is called.
fn part_name(name: &PartName) -> &str {
    match name {
        PartName::Typed(name) => name,
        PartName::BuiltBar => "built track bar",
        PartName::SwayBar => "sway bar",
        PartName::SwayLinks => "sway links",
    }
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
        PartPlace::SwayBar => "1, with its mounts".to_owned(),
        PartPlace::SwayLinks => "2, one a side".to_owned(),
    }
}

/// What a tool is called.
fn tool_name(name: &ToolName) -> String {
    match name {
        ToolName::Stands => "stands, jack, chocks",
        ToolName::TorqueWrench => "torque wrench",
        ToolName::Wrench(size) => return format!("{size} wrench"),
        ToolName::Strap => "ratchet strap",
        ToolName::Drill(size) => return format!("{size} drill"),
        ToolName::Punch => "centre punch, paint, deburring tool",
        ToolName::RightAngleDrill => "right-angle drill",
        ToolName::Welder => "welder, grinder, cover for lines",
        ToolName::AngleFinder => "angle finder",
        ToolName::Tape => "tape",
        ToolName::GreaseGun => "grease gun",
        ToolName::PaintPen => "paint pen",
    }
    .to_owned()
}

/// What a tool is for, or what does in its place.
fn tool_use(purpose: &ToolUse) -> String {
    match purpose {
        ToolUse::UnderIt => "two stands for the frame, a jack for the axle",
        ToolUse::Range => "with the range the sheets ask for; a crow's foot changes its reading",
        ToolUse::Wrenches { count: 0 | 1 } => "socket or wrench",
        ToolUse::Wrenches { count } => return format!("{count} at once, socket and wrench"),
        ToolUse::AxleToFrame { steered: true } => {
            "axle to frame; a helper at the steering wheel in its place"
        }
        ToolUse::AxleToFrame { steered: false } => "axle to frame",
        ToolUse::Hole { name } => return format!("for {name}"),
        ToolUse::Mark => "mark through the bracket, punch, paint the raw edges",
        ToolUse::NoRoom => "where a straight one has no room; or the bracket comes off",
        ToolUse::Weld => "bright metal, something to put a fire out at hand",
        ToolUse::Partner => "zeroed on the partner bracket",
        ToolUse::SwayArms => "on both sway arms",
        ToolUse::SameTape => "the one it was read with before",
        ToolUse::Grease => "with the maker's grease for polyurethane",
        ToolUse::Marks => "for the marks across the nuts",
    }
    .to_owned()
}

/// Everything known of a fastener but its torque, in one line.
fn fastener_what(what: &FastenerWhat) -> Phrase {
    let reported = [
        what.thread.clone(),
        what.grade.map(|grade| grade.word().to_owned()),
        what.nut.map(|nut| nut.word().to_owned()),
        what.treatment.map(|treatment| treatment.word().to_owned()),
        what.head.map(|head| format!("head {}", head_side(head))),
        what.reused_from.as_ref().map(|from| format!("reused from {from}")),
        what.access.clone(),
    ];
    Phrase::plain(&reported.into_iter().flatten().collect::<Vec<_>>().join(", "))
}

const fn head_side(head: HeadSide) -> &'static str {
    match head {
        HeadSide::Forward => "forward",
        HeadSide::Back => "back",
        HeadSide::Inward => "towards the middle",
        HeadSide::Outward => "outward",
        HeadSide::Up => "up",
        HeadSide::Down => "down",
    }
}
