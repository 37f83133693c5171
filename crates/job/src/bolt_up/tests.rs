//! The order of work of random plans, held against the rules of the trade and not against the plan's own list.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::measure::Length;
use derecho_core::parts::{Attachment, BracketEnd, BracketPart};
use derecho_core::pose::joint::JointKind;
use proptest::prelude::*;
use serde_json::json;

use super::cuts;
use super::message::{BoltUpMessage, CutKind};
use super::order::{arranged, broken, sorted};
use super::situation::{BarWork, EndWork, Situation, is_bushing};
use super::tasks::{Key, Task, What, tasks};
use crate::document::hardpoints::{TieRodSeats, TieRodTo};
use crate::document::work::DrillForm;
use crate::document::work::{OwnStep, Stands};
use crate::document::{DrillId, Job};
use crate::setups::PlannedGap;
use crate::work::kinds::brace::Brace;
use crate::work::kinds::disconnect::Disconnect;
use crate::work::kinds::links::{ArmHolePlace, Links};
use crate::work::kinds::second_shim::SecondShim;
use crate::work::kinds::splined::{Splined, Tubes};
use crate::work::kinds::straps::Straps;
use crate::work::kinds::tie_rod::TieRod;
use crate::work::kinds::y_link::YLink;
use crate::work::kinds::{Change, KindStep, bracket, built_bar, drag_link, eyes, length, splined, y_link};
use crate::work::rules::Rule;

fn joint() -> impl Strategy<Value = JointKind> {
    prop::sample::select(vec![
        JointKind::Rubber,
        JointKind::Polyurethane,
        JointKind::Spherical,
        JointKind::SphericalHighMisalignment,
    ])
}

prop_compose! {
    fn bar()(
        hangs in prop::option::of(Just("new bar".to_owned())),
        kind in prop::option::of(prop::sample::select(vec![AdjusterKind::Fixed, AdjusterKind::OneEnd, AdjusterKind::Turnbuckle])),
        made_to_length: bool,
        length in prop::option::of(Just(Length::from_mm(830.0))),
        frame in joint(), axle in joint(),
    ) -> BarWork {
        // What is cut and welded to length is hung, and has one.
        let hangs = if made_to_length { Some("new bar".to_owned()) } else { hangs };
        let length = if made_to_length { Some(Length::from_mm(830.0)) } else { length };
        BarWork { hangs, kind: kind.filter(|_| !made_to_length), made_to_length, length, joints: [frame, axle] }
    }
}

fn end(end: BracketEnd) -> impl Strategy<Value = Option<EndWork>> {
    let bracket = (prop::bool::ANY, prop::bool::ANY).prop_map(move |(welded, first)| BracketPart {
        name: "bracket".to_owned(),
        end,
        attachment: if welded { Attachment::WeldOn } else { Attachment::BoltOn },
        comes_off_first: if first { "the old bracket".to_owned() } else { String::new() },
        ..BracketPart::default()
    });
    let work = prop::option::of(bracket).prop_map(move |bracket| EndWork {
        end,
        hole: "hole 2".to_owned(),
        bracket,
    });
    prop::option::of(work)
}

/// A sway bar or none, with its links; a disconnect, a second shim, a brace, a Y-link.
fn changes() -> impl Strategy<Value = Vec<Change>> {
    let bars = vec![
        None,
        Some(Change::OnePiece),
        Some(Change::Splined(Splined::default())),
        Some(Change::Splined(Splined { tubes: Some(Tubes::default()) })),
        Some(Change::TwoRate { powered: false }),
        Some(Change::TwoRate { powered: true }),
    ];
    let y_link = prop::option::weighted(0.1, any::<(bool, bool)>());
    let tie_rod = prop::option::weighted(
        0.3,
        prop::sample::select(vec![TieRodSeats::There, TieRodSeats::Reamed, TieRodSeats::Inserts]),
    );
    let rest = (any::<[bool; 8]>(), tie_rod, y_link);
    (prop::sample::select(bars), rest).prop_map(
        |(bar, ([links, set, fixed, longer, pins, shim, brace, straps], tie_rod, y_link))| {
            let length = Length::from_mm(250.0);
            let links = (links || pins || bar.is_some()).then(|| Links {
                length: set.then_some(length),
                fixed,
                hole: (set && longer).then_some(ArmHolePlace { number: 2, of: 3, arm: length }),
                left_longer: Length::from_mm(if longer { 6.0 } else { 0.0 }),
                pinned: pins,
            });
            let shim = shim.then(|| SecondShim {
                thickness: Length::from_mm(6.0),
                side: None,
                with_the_bar: bar.is_some(),
            });
            let y_link = y_link.map(|(converts, spacers)| Change::YLink(YLink { converts, spacers }));
            bar.into_iter()
                .chain(links.map(Change::Links))
                .chain(pins.then_some(Change::Disconnect(Disconnect { presses: set, stows: longer })))
                .chain(shim.map(Change::SecondShim))
                .chain(straps.then_some(Change::Straps(Straps::default())))
                .chain(tie_rod.map(|seats| Change::TieRod(TieRod { to: TieRodTo::Over, by: None, seats })))
                .chain(brace.then(|| Change::Brace(Brace { name: "rail brace".to_owned() })))
                .chain(y_link)
                .collect()
        },
    )
}

prop_compose! {
    fn situation()(
        bar in prop::option::of(bar()),
        frame in end(BracketEnd::Frame),
        axle in end(BracketEnd::Axle),
        drag_link in prop::option::of(Just("raised arm".to_owned())),
        changes in changes(),
        drills in 0..3_usize,
        castle_nuts in prop::sample::subsequence(vec!["bar/frame-eye", "bar/axle-eye", "bar/adjuster"], 0..=3),
        through_bushings in prop::sample::subsequence(vec!["frame/main", "axle/main", "axle/side"], 0..=3),
        (measured, first_frame_bracket) in any::<(bool, bool)>(),
    ) -> Situation {
        Situation {
            turns_drag_link: drag_link.is_some() || (measured && bar.is_some()),
            bar,
            ends: frame.into_iter().chain(axle).collect(),
            drag_link,
            changes,
            drills: (0..drills).map(|place| DrillForm { id: DrillId::new(place.to_string()), ..DrillForm::default() }).collect(),
            castle_nuts,
            gap: PlannedGap::None,
            first_frame_bracket,
            through_bushings: through_bushings.into_iter().map(str::to_owned).collect(),
        }
    }
}

fn keys_of(steps: &[Task]) -> Vec<String> {
    steps.iter().map(|task| task.key.to_string()).collect()
}

fn plan(situation: &Situation) -> Vec<Task> {
    sorted(tasks(situation, &[]))
}

fn place(tasks: &[Task], wanted: impl Fn(&What) -> bool) -> Option<usize> {
    tasks.iter().position(|task| wanted(&task.what))
}

/// Every step that does such a thing.
fn places(tasks: &[Task], wanted: impl Fn(&What) -> bool) -> Vec<usize> {
    (0..tasks.len()).filter(|index| wanted(&tasks[*index].what)).collect()
}

fn all_before(tasks: &[Task], first: impl Fn(&What) -> bool, then: impl Fn(&What) -> bool) -> bool {
    let last = places(tasks, first).into_iter().max();
    let next = places(tasks, then).into_iter().min();
    last.zip(next).is_none_or(|(last, next)| last < next)
}

proptest! {
    /// No step waits for one behind it, no key comes twice, and nothing is lost in sorting.
    #[test]
    fn every_plan_is_in_a_legal_order(situation in situation()) {
        let loose = tasks(&situation, &[]);
        let sorted = plan(&situation);
        prop_assert_eq!(loose.len(), sorted.len());
        prop_assert_eq!(broken(&sorted, false), vec![]);
        for (index, task) in sorted.iter().enumerate() {
            prop_assert!(!sorted[..index].iter().any(|other| other.key == task.key), "{} twice", task.key);
            for (first, _) in &task.after {
                prop_assert!(sorted[..index].iter().any(|other| other.key == *first), "{first} before {}", task.key);
            }
        }
    }

    /// The trade's own rules, written down here once more.
    #[test]
    fn every_plan_keeps_the_rules_of_the_trade(situation in situation()) {
        let steps = plan(&situation);
        // Nothing is undone, drilled or welded before the corners are read and stands are under it.
        if let Some(stands) = place(&steps, |what| *what == What::Stands) {
            let read = place(&steps, |what| *what == What::Corners);
            prop_assert!(read.is_some_and(|read| read < stands));
            let undone = |what: &What| matches!(what, What::Drill(_) | What::Kind(_))
                && *what != What::Kind(KindStep::YLink(y_link::Step::PinionBefore));
            prop_assert!(all_before(&steps, |what| *what == What::Stands, undone));
        }
        // Drilled and welded only with the mock-up standing, welded with the battery off, tacked before.
        prop_assert!(all_before(&steps, |what| *what == What::MockUp, |what| matches!(what, What::Drill(_) | What::Kind(KindStep::Bracket(bracket::Step::Tack(_)))
            | What::Kind(KindStep::BuiltBar(built_bar::Step::Cut)) | What::Kind(KindStep::BuiltBar(built_bar::Step::Tack)) | What::Kind(KindStep::BuiltBar(built_bar::Step::Weld)))));
        prop_assert_eq!(
            place(&steps, |what| matches!(what, What::Drill(_) | What::Kind(KindStep::Bracket(bracket::Step::Tack(_))) | What::Kind(KindStep::BuiltBar(built_bar::Step::Weld)))).is_some(),
            place(&steps, |what| *what == What::MockUp).is_some()
        );
        let arc_of_tubes = |what: &What| {
            matches!(what, What::Kind(KindStep::Splined(splined::Step::TubesTacked | splined::Step::TubesWelded)))
        };
        let arc = |what: &What| arc_of_tubes(what) || matches!(what, What::Kind(KindStep::Bracket(bracket::Step::Tack(_))) | What::Kind(KindStep::Bracket(bracket::Step::Weld(_))) | What::Kind(KindStep::BuiltBar(built_bar::Step::Tack)) | What::Kind(KindStep::BuiltBar(built_bar::Step::Weld)));
        prop_assert_eq!(place(&steps, arc).is_some(), place(&steps, |what| *what == What::BatteryOff).is_some());
        prop_assert!(all_before(&steps, |what| *what == What::BatteryOff, arc));
        prop_assert!(all_before(&steps, arc, |what| *what == What::BatteryOn));
        // A built bar: cut between brackets that are there and cold, tacked where it hangs, on its weight, then welded
        // out of the vehicle, then hung.
        prop_assert!(all_before(&steps, |what| matches!(what, What::Kind(KindStep::Bracket(bracket::Step::Coat(_))) | What::Kind(KindStep::Bracket(bracket::Step::ByHand(_)))), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Cut))));
        // Where brackets are put on, the gap between them is measured once they are there.
        let builds = situation.bar.as_ref().is_some_and(|bar| bar.made_to_length) && !situation.ends.is_empty();
        prop_assert_eq!(place(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Gap))).is_some(), builds);
        prop_assert!(all_before(&steps, |what| matches!(what, What::Kind(KindStep::Bracket(bracket::Step::Coat(_))) | What::Kind(KindStep::Bracket(bracket::Step::ByHand(_)))), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Gap))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Gap)), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Cut))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Cut)), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Tack))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Tack)), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::BushingsOut))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::BushingsOut)), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Weld))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Weld)), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::BushingsIn))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::BushingsIn)), |what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::ByHand(_))))));
        // A ball stud is out of its taper before another goes in.
        prop_assert_eq!(place(&steps, |what| *what == What::Kind(KindStep::DragLink(drag_link::Step::Off))).is_some(), place(&steps, |what| *what == What::Kind(KindStep::DragLink(drag_link::Step::On))).is_some());
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::DragLink(drag_link::Step::Off)), |what| *what == What::Kind(KindStep::DragLink(drag_link::Step::On))));
        prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Weld)), |what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::ByHand(_))))));
        let tack = place(&steps, |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Tack)));
        prop_assert!(tack.is_none_or(|tack| steps[tack].stands == Some(Stands::OnItsWeight)));
        // The old bar hangs in the bracket that comes off.
        prop_assert!(all_before(&steps, |what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::Out)) | What::Kind(KindStep::Eyes(eyes::Step::Off(_)))), |what| matches!(what, What::Kind(KindStep::Bracket(bracket::Step::ComesOff(_))))));
        // The steering wheel is set straight once the axle is read centred.
        prop_assert!(all_before(&steps, |what| *what == What::ReadAgain, |what| *what == What::Kind(KindStep::DragLink(drag_link::Step::Turn))));
        for end in [BracketEnd::Frame, BracketEnd::Axle] {
            prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::Bracket(bracket::Step::TackCheck(end))), |what| *what == What::Kind(KindStep::Bracket(bracket::Step::Weld(end)))));
            prop_assert!(all_before(&steps, |what| *what == What::Kind(KindStep::Bracket(bracket::Step::Coat(end))), |what| *what == What::Kind(KindStep::Eyes(eyes::Step::ByHand(end)))));
        }
        // Everything about the bar is started by hand before anything of it is tight.
        prop_assert!(all_before(
            &steps,
            |what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::ByHand(_))) | What::Kind(KindStep::Bracket(bracket::Step::ByHand(_))) | What::Kind(KindStep::Length(length::Step::EndByHand))),
            |what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::Tight(_))) | What::Kind(KindStep::Bracket(bracket::Step::Tight(..))) | What::Kind(KindStep::Length(length::Step::EndTight)) | What::Kind(KindStep::Bracket(bracket::Step::Snug(_)))),
        ));
        // A bushing is tightened on its weight, and only then; an eye after its bracket.
        let weight = place(&steps, |what| *what == What::OnItsWeight);
        for end in [BracketEnd::Frame, BracketEnd::Axle] {
            if let (Some(tight), Some(bar)) = (place(&steps, |what| *what == What::Kind(KindStep::Eyes(eyes::Step::Tight(end)))), &situation.bar) {
                let joint = bar.joints[usize::from(end == BracketEnd::Axle)];
                prop_assert_eq!(steps[tight].stands == Some(Stands::OnItsWeight), is_bushing(joint));
                prop_assert!(!is_bushing(joint) || weight.is_some_and(|weight| weight < tight));
            }
            prop_assert!(all_before(
                &steps,
                |what| matches!(what, What::Kind(KindStep::Bracket(bracket::Step::Tight(of, _))) if *of == end),
                |what| *what == What::Kind(KindStep::Eyes(eyes::Step::Tight(end))),
            ));
        }
        // A bolt that goes through an arm's bushing, too, is tightened on the weight.
        for task in steps.iter().filter(|task| matches!(task.what, What::Kind(KindStep::Bracket(bracket::Step::Tight(..))))) {
            let through = situation.through_bushings.iter().any(|through| *through == task.key);
            prop_assert_eq!(task.stands == Some(Stands::OnItsWeight), through);
            let at = steps.iter().position(|other| other.key == task.key);
            prop_assert!(!through || weight < at);
        }
        // A castle nut is pinned, right after it is tight.
        for end in [BracketEnd::Frame, BracketEnd::Axle] {
            let key = if end == BracketEnd::Frame { "bar/frame-eye" } else { "bar/axle-eye" };
            let castle = situation.castle_nuts.contains(&key);
            let tight = place(&steps, |what| *what == What::Kind(KindStep::Eyes(eyes::Step::Tight(end))));
            let pinned = place(&steps, |what| *what == What::Kind(KindStep::Eyes(eyes::Step::Pin(end))));
            prop_assert_eq!(castle && tight.is_some(), pinned.is_some());
            prop_assert!(pinned.is_none() || tight < pinned);
        }
        // Jam nuts after the readings, readings after the bolts; marks and grease after everything tight.
        prop_assert!(all_before(&steps, |what| *what == What::ReadAgain, |what| matches!(what, What::Kind(KindStep::Length(length::Step::Jam)))));
        prop_assert!(all_before(&steps, |what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::Tight(_))) | What::Kind(KindStep::Length(length::Step::Turn))), |what| *what == What::ReadAgain));
        let tightened = steps.iter().rposition(|task| !task.tightens.is_empty());
        let marked = place(&steps, |what| *what == What::Witness);
        prop_assert_eq!(tightened.is_some(), marked.is_some());
        prop_assert!(tightened.zip(marked).is_none_or(|(tightened, marked)| tightened < marked));
    }

    /// The same of the kinds of work that are folders of their own, by the keys a person's ticks go by: pairs of which the
    /// first comes before the second wherever a plan has both.
    #[test]
    fn every_kind_of_work_keeps_the_order_of_the_trade(situation in situation()) {
        const PAIRS: [(&str, &str); 80] = [
            // Links off before the bar, the old bar off before the new one.
            ("sway/links-off", "sway/old-off"), ("sway/old-off", "sway/by-hand"), ("sway/old-off", "sway/mounts-on"),
            // Greased in the bore before anything clamps it.
            ("sway/bushings", "sway/by-hand"), ("sway/bushings", "sway/bar-through"), ("sway/bushings", "sway/mounts"),
            ("sway/by-hand", "sway/stick-out"), ("sway/stick-out", "sway/mounts"), ("sway/by-hand", "sway/links-by-hand"),
            // Splined: both mounts loose, bar through, even, mounts tight, arms on, alike, pinched, held.
            ("sway/mounts-on", "sway/bar-through"), ("sway/bar-through", "sway/stick-out"), ("sway/mounts", "sway/arms-on"),
            ("sway/arms-on", "sway/links-by-hand"), ("sway/arms-on", "sway/arms-alike"), ("sway/arms-alike", "sway/pinch"),
            ("sway/pinch", "sway/retaining"), ("on-its-weight", "sway/arms-alike"),
            // Its tubes: the old bar off, marked, sawn, tacked, welded, cold, and only then a bushing near them.
            ("sway/old-off", "sway/tubes-marked"), ("sway/tubes-marked", "sway/tubes-sawn"),
            ("sway/tubes-sawn", "sway/tubes-tacked"), ("sway/tubes-tacked", "sway/tubes-welded"),
            ("sway/tubes-welded", "sway/tubes-cold"), ("sway/tubes-cold", "sway/bushings"),
            ("battery/off", "sway/tubes-tacked"), ("sway/tubes-welded", "battery/on"), ("sway/stick-out", "sway/arms-on"),
            // Limit straps: tight, then the axle hangs from them while it is off its wheels, then slack on them.
            ("stands", "straps/by-hand"), ("straps/by-hand", "straps/tight"), ("straps/tight", "straps/droop"),
            ("straps/droop", "on-its-weight"), ("on-its-weight", "straps/slack"),
            // Two rates: the lock both ways with the blocks loose, and again with them tight.
            ("sway/rate-lock", "sway/mounts"), ("sway/mounts", "sway/rate-lock-again"),
            // Links: set, hung, on the weight tight, looked at, locked.
            ("sway/links-off", "sway/links-set"), ("sway/links-set", "sway/links-by-hand"), ("on-its-weight", "sway/links-tight"),
            ("sway/links-by-hand", "on-its-weight"), ("sway/links-tight", "sway/links-read"), ("sway/links-read", "sway/links-jam"),
            // A disconnect's studs hold before a link hangs on them; its pins are tried on the weight.
            ("sway/links-off", "disconnect/press"), ("disconnect/press", "disconnect/studs-in"),
            ("disconnect/studs-tight", "sway/links-by-hand"), ("sway/links-tight", "disconnect/pins"),
            ("disconnect/stow", "disconnect/stowed"), ("on-its-weight", "disconnect/pins"),
            // A shim is in before its clamps close.
            ("shim/loose", "shim/in"), ("shim/in", "shim/tight"), ("shim/in", "sway/mounts"),
            // A brace hangs with its bracket and is tight after it.
            ("frame/by-hand", "brace/by-hand"), ("frame/small", "brace/tight"),
            // A tie rod: off, its seats, in by hand with all that it has to clear, looked at, tight, pinned; toe on the
            // weight before the steering wheel is set by the drag link.
            ("stands", "tie-rod/off"), ("bar/bushings-in", "tie-rod/off"), ("tie-rod/off", "tie-rod/seats"), ("tie-rod/seats", "tie-rod/on"),
            ("tie-rod/off", "tie-rod/on"), ("tie-rod/on", "tie-rod/clear"), ("bar/axle-eye-by-hand", "tie-rod/clear"),
            ("axle/by-hand", "tie-rod/clear"), ("drag-link/on", "tie-rod/clear"), ("tie-rod/clear", "tie-rod/tight"),
            ("tie-rod/tight", "tie-rod/pin"), ("tie-rod/clear", "on-its-weight"), ("on-its-weight", "tie-rod/toe"),
            ("tie-rod/tight", "tie-rod/toe"), ("tie-rod/toe", "tie-rod/clamps"), ("tie-rod/clamps", "drag-link/turn"),
            ("tie-rod/clamps", "witness"),
            // A first bracket on the frame has its place before it is held, drilled, ground for or bolted there.
            ("stands", "frame/place"), ("bar/out", "frame/place"), ("off/frame", "frame/place"), ("frame/place", "mock-up"),
            ("frame/place", "frame/bare"), ("frame/place", "frame/by-hand"),
            // A Y-link: bar and arm out, brackets, hung, and only then what keeps the housing from turning, on stands.
            ("legs/pinion-before", "stands"), ("legs/bar-out", "legs/arm-out"), ("legs/arm-out", "legs/by-hand"), ("legs/by-hand", "legs/spacers"),
            ("legs/spacers", "on-its-weight"), ("legs/turn", "read-again"), ("read-again", "legs/jam"),
        ];
        let steps = plan(&situation);
        let at = |key: &str| steps.iter().position(|task| task.key == key);
        for (first, then) in PAIRS {
            prop_assert!(at(first).zip(at(then)).is_none_or(|(a, b)| a < b), "{first} before {then}");
        }
    }

    /// The whole of each kind is there, and each stands on the vehicle as it must.
    #[test]
    fn every_kind_of_work_is_whole(situation in situation()) {
        let steps = plan(&situation);
        let at = |key: &str| steps.iter().position(|task| task.key == key);
        // What comes off the sway bar comes off on stands under the frame, and nothing of it is greased at the end.
        for key in ["sway/links-off", "sway/old-off", "legs/bar-out"] {
            prop_assert!(at("stands").zip(at(key)).is_none_or(|(stands, off)| stands < off));
        }
        let greases = situation.bar.as_ref().is_some_and(|bar| bar.joints.iter().any(|joint| *joint != JointKind::Rubber));
        prop_assert_eq!(at("grease").is_some(), greases);
        // The housing is let down on its own spacers by nobody.
        let spacers = at("legs/spacers");
        prop_assert!(spacers.is_none_or(|spacers| steps[spacers].stands == Some(Stands::Supported)));
        // Links with no thread are neither set nor locked, and are still looked at.
        let links = situation.links();
        let changed = links.is_some_and(|links| links.length.is_some());
        let turned = changed && links.is_some_and(|links| !links.fixed);
        prop_assert_eq!([at("sway/links-set").is_some(), at("sway/links-jam").is_some()], [turned; 2]);
        prop_assert_eq!(at("sway/links-read").is_some(), changed);
        // The whole of each kind is there.
        let converts = situation.y_link().is_some_and(|link| link.converts);
        prop_assert_eq!(at("legs/bar-out").is_some() && at("legs/arm-out").is_some() && at("legs/bolts-tight").is_some(), converts);
        let installed = situation.installs_sway_bar();
        let held = at("sway/mounts").is_some() != at("sway/tubes-welded").is_some();
        prop_assert_eq!(at("sway/old-off").is_some() && at("sway/bushings").is_some() && held, installed);
        prop_assert_eq!(at("sway/tubes-welded").is_some(), situation.tubes().is_some());
    }

    /// What is unbolted is bolted again, and nothing else.
    #[test]
    fn what_comes_off_goes_on(situation in situation()) {
        let steps = plan(&situation);
        let count = |wanted: &dyn Fn(&What) -> bool| places(&steps, wanted).len();
        let by_hand = count(&|what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::ByHand(_)))));
        let tight = count(&|what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::Tight(_)))));
        // One that was only eased is tightened again, too: rubber, where the other eye moved.
        let eased = count(&|what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::Eased(_)))));
        if let Some(bar) = &situation.bar {
            prop_assert_eq!(by_hand + eased, tight);
            let stays = bar.joints[usize::from(situation.ends.first().is_some_and(|work| work.end == BracketEnd::Frame))];
            let wound = situation.ends.len() == 1 && bar.hangs.is_none() && stays == JointKind::Rubber;
            prop_assert_eq!(eased, usize::from(wound));
        }
        if count(&|what| *what == What::Kind(KindStep::Eyes(eyes::Step::Out))) > 0 {
            prop_assert_eq!(by_hand, 2);
        }
        prop_assert_eq!(count(&|what| *what == What::Kind(KindStep::Length(length::Step::EndOff))), count(&|what| *what == What::Kind(KindStep::Length(length::Step::EndByHand))));
        prop_assert_eq!(count(&|what| *what == What::BatteryOff), count(&|what| *what == What::BatteryOn));
    }

    /// Stock is on the list of cuts where a step has somebody cut it, and nowhere else; links and panels where the
    /// job has rods and panels and the sway bar is worked on.
    #[test]
    fn what_is_cut_is_what_the_steps_cut(situation in situation(), rods: bool, panels: bool) {
        let panel = json!({ "name": "inner fender", "faces": "outward", "at": { "text": "20", "unit": "in" } });
        let mut job: Job = serde_json::from_value(json!({ "format": "derecho-job", "version": 7, "title": "Cuts",
            "sway": { "room": { "panels": vec![panel; usize::from(panels)] } } })).unwrap();
        job.sway.rod.eye_to_tip = rods.then(|| serde_json::from_value(json!({ "text": "2", "unit": "in" })).unwrap());
        let cuts = cuts::lines(&job, &situation);
        let has = |what: CutKind| cuts.iter().any(|cut| cut.name == BoltUpMessage::CutName(what).into());
        let builds = !places(&plan(&situation), |what| *what == What::Kind(KindStep::BuiltBar(built_bar::Step::Weld))).is_empty();
        prop_assert_eq!(has(CutKind::BarStock), builds);
        prop_assert_eq!(has(CutKind::LinkRods), rods && situation.links().is_some_and(|links| links.length.is_some() && !links.fixed));
        prop_assert_eq!(has(CutKind::Panel), panels && situation.links().is_some());
    }

    /// Two steps that one rule joins, swapped in a person's order: that rule is named, with both of them.
    #[test]
    fn a_swapped_pair_is_named(situation in situation(), pick in 0..1000_usize) {
        let steps = plan(&situation);
        let pairs: Vec<(Key, Key, Rule)> = steps
            .iter()
            .flat_map(|task| task.after.iter().map(|(first, rule)| (first.clone(), task.key.clone(), *rule)))
            .collect();
        prop_assume!(!pairs.is_empty());
        let (first, then, rule) = pairs[pick % pairs.len()].clone();
        let mut order = keys_of(&steps);
        let at = |order: &[String], key: &str| order.iter().position(|known| known == key).unwrap();
        let (a, b) = (at(&order, &first), at(&order, &then));
        order.swap(a, b);
        let arranged = arranged(steps.clone(), &order);
        prop_assert_eq!(arranged.len(), steps.len());
        let named = broken(&arranged, false);
        prop_assert!(
            named.iter().any(|fault| fault.first == first && fault.then == then && fault.rule == rule),
            "{first} and {then}: {named:?}"
        );
        // The maker's own order rules over what is only usual, never over what is firm.
        let under_the_maker = broken(&arranged, true);
        prop_assert!(under_the_maker.iter().all(|fault| fault.rule.is_firm()));
        prop_assert_eq!(rule.is_firm(), under_the_maker.iter().any(|fault| fault.first == first && fault.then == then));
    }

    /// An order in which every step is named is the order; one that names none changes nothing.
    #[test]
    fn a_persons_order_is_kept(situation in situation(), seed: u64) {
        let steps = plan(&situation);
        let mut order = keys_of(&steps);
        let length = order.len();
        for index in 0..length {
            order.swap(index, ((seed >> (index % 60)) as usize + index) % length);
        }
        let keys = keys_of(&arranged(steps.clone(), &order));
        prop_assert_eq!(&keys, &order);
        prop_assert_eq!(arranged(steps.clone(), &[]), steps);
    }
}

#[test]
fn a_step_of_ones_own_stands_where_it_was_put() {
    let situation = Situation { drag_link: Some("raised arm".to_owned()), ..Situation::default() };
    let own = |after: &str| OwnStep {
        key: "own/1".to_owned(),
        does: "Photograph it".to_owned(),
        after: after.to_owned(),
    };
    let keys =
        |own: &OwnStep| -> Vec<String> { keys_of(&sorted(tasks(&situation, std::slice::from_ref(own)))) };
    let behind = keys(&own("stands"));
    let at = behind.iter().position(|key| key == "own/1").unwrap();
    assert_eq!(behind[at - 1], "stands");
    // Behind a step that is not there it comes last.
    assert_eq!(keys(&own("nowhere")).last().unwrap(), "own/1");
}

/// Keys as they were released: ticks, orders and kits of stored jobs go by them.
const RELEASED: [&str; 63] = [
    "corners",
    "stands",
    "bar/out",
    "bar/eye-off",
    "bar/frame-eye-eased",
    "bar/axle-eye-eased",
    "bar/adjuster-off",
    "off/frame",
    "off/axle",
    "mock-up",
    "battery/off",
    "battery/on",
    "frame/bare",
    "frame/tack",
    "frame/tack-check",
    "frame/weld",
    "frame/coat",
    "axle/bare",
    "axle/tack",
    "axle/tack-check",
    "axle/weld",
    "axle/coat",
    "frame/by-hand",
    "axle/by-hand",
    "frame/snug",
    "axle/snug",
    "frame/main",
    "frame/side",
    "frame/small",
    "axle/main",
    "axle/side",
    "axle/small",
    "bar/bench",
    "bar/cut",
    "bar/tack",
    "bar/build",
    "bar/frame-eye-by-hand",
    "bar/axle-eye-by-hand",
    "bar/adjuster-by-hand",
    "drag-link/on",
    "drag-link/tight",
    "drag-link/pin",
    "drag-link/turn",
    "drag-link/clamps",
    "on-its-weight",
    "bar/loosen",
    "bar/turn",
    "bar/frame-eye",
    "bar/axle-eye",
    "bar/adjuster",
    "bar/frame-eye-pin",
    "bar/axle-eye-pin",
    "bar/adjuster-pin",
    "legs/spacers",
    "legs/turn",
    "read-again",
    "bar/jam",
    "legs/jam",
    "sway/by-hand",
    "sway/stick-out",
    "sway/mounts",
    "sway/arms-alike",
    "sway/pinch",
];

/// And those of the links and of the end, and of the kinds of work since.
const RELEASED_LAST: [&str; 57] = [
    "sway/links-set",
    "sway/links-by-hand",
    "sway/links-tight",
    "sway/links-read",
    "sway/links-jam",
    "grease",
    "witness",
    "put-back",
    "sway/links-off",
    "sway/old-off",
    "sway/bushings",
    "sway/mounts-on",
    "sway/bar-through",
    "sway/arms-on",
    "sway/retaining",
    "sway/rate-lock",
    "sway/rate-lock-again",
    "disconnect/press",
    "disconnect/studs-in",
    "disconnect/studs-tight",
    "disconnect/stow",
    "disconnect/pins",
    "disconnect/stowed",
    "brace/by-hand",
    "brace/tight",
    "shim/loose",
    "shim/in",
    "shim/tight",
    "legs/bar-out",
    "legs/arm-out",
    "legs/brackets-on",
    "legs/by-hand",
    "legs/pinion",
    "legs/bolts-tight",
    "bar/bushings-out",
    "bar/bushings-in",
    "drag-link/off",
    "legs/pinion-before",
    "bar/gap",
    "sway/tubes-marked",
    "sway/tubes-sawn",
    "sway/tubes-tacked",
    "sway/tubes-welded",
    "sway/tubes-cold",
    "straps/by-hand",
    "straps/tight",
    "straps/droop",
    "straps/slack",
    "tie-rod/off",
    "tie-rod/seats",
    "tie-rod/on",
    "tie-rod/clear",
    "tie-rod/tight",
    "tie-rod/pin",
    "tie-rod/toe",
    "tie-rod/clamps",
    "frame/place",
];

proptest! {
    #[test]
    fn keys_are_those_that_were_released(situation in situation()) {
        for task in plan(&situation) {
            let known = RELEASED.contains(&&*task.key) || RELEASED_LAST.contains(&&*task.key);
            prop_assert!(known || task.key.strip_prefix("drill/").is_some(), "{}", task.key);
            // What it waits for is a step that there is: the compiler saw that, and it is in this plan.
            prop_assert!(task.after.iter().all(|(first, _)| RELEASED.contains(&&**first)
                || RELEASED_LAST.contains(&&**first) || first.starts_with("drill/")));
        }
    }
}
