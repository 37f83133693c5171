//! The steps that follow from what is to be done, each with the steps it comes after and why. Not here: their order
//! (`order`), their sentences (`words`).

use std::borrow::Cow;

use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::parts::BracketEnd;
use derecho_core::pose::joint::JointKind;

use super::situation::{ADJUSTER_BOLT, EndWork, Situation, eye_bolt_key, is_bushing};
use crate::document::DrillId;
use crate::document::work::{OwnStep, Stands};
use crate::work::kinds::{Change, KindStep};
use crate::work::rules::Rule;
use crate::work::step::{Condition, First, KindTask, Phase};

/// The key of a step or a fastener: fixed but for holes to drill and a person's own steps.
pub type Key = Cow<'static, str>;

/// What a step does; where its words come from.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum What {
    /// Corner heights.
    Corners,
    /// Stands and chocks.
    Stands,
    /// Something comes off before a bracket goes on.
    ComesOff(BracketEnd),
    /// The old bar comes out.
    BarOut,
    /// One eye is unbolted.
    EyeOff(BracketEnd),
    /// The bolt of an eye that stays is eased.
    EyeEased(BracketEnd),
    /// The adjusting end is unbolted.
    AdjusterOff,
    /// Everything held where it will be, and cycled.
    MockUp,
    /// A hole of the drill schedule.
    Drill(DrillId),
    /// Battery's negative off.
    BatteryOff,
    /// Bare metal for a weld.
    Bare(BracketEnd),
    /// Tacked.
    Tack(BracketEnd),
    /// Looked at again after the tack.
    TackCheck(BracketEnd),
    /// Welded out.
    Weld(BracketEnd),
    /// Cold, coated.
    Coat(BracketEnd),
    /// Battery on again.
    BatteryOn,
    /// A bracket's bolts by hand.
    BracketByHand(BracketEnd),
    /// Snug, and back a turn.
    Snug(BracketEnd),
    /// A group of a bracket's bolts.
    BracketTight(BracketEnd, BracketBolts),
    /// The bar set on the bench.
    Bench,
    /// The gap of a built bar measured between the brackets it will hang in.
    Gap,
    /// The stock of a built bar cut and coped.
    BarCut,
    /// The built bar tacked where it hangs.
    BarTack,
    /// The tacked bar out of the vehicle, and its bushings out of it.
    BushingsOut,
    /// The built bar welded out of the vehicle.
    Build,
    /// Its bushings in again, once it is cold.
    BushingsIn,
    /// An eye in its hole, by hand.
    EyeByHand(BracketEnd),
    /// The adjusting end turned and back in, by hand.
    AdjusterByHand,
    /// The old end of the drag link off its taper.
    DragLinkOff,
    /// The drag-link part.
    DragLink,
    /// It tight.
    DragLinkTight,
    /// It pinned.
    DragLinkPin,
    /// Its sleeve turned until the steering wheel is straight.
    DragLinkTurn,
    /// The clamps of its sleeve.
    DragLinkClamps,
    /// Down on the weight.
    OnItsWeight,
    /// The jam nuts or clamps of a sleeve loosened.
    Loosen,
    /// The sleeve turned.
    Turn,
    /// An eye's bolt.
    EyeTight(BracketEnd),
    /// The adjusting end's bolt.
    AdjusterTight,
    /// A cotter pin through an eye's castle nut.
    EyePin(BracketEnd),
    /// One through that of the adjusting end.
    AdjusterPin,
    /// Both sides read again.
    ReadAgain,
    /// Jam nuts or clamps of the bar.
    Jam,
    /// A step of a kind of work of its own.
    Kind(KindStep),
    /// Grease.
    Grease,
    /// Paint marks.
    Witness,
    /// Everything back.
    PutBack,
    /// A person's own step.
    Own {
        /// Its key.
        key: String,
        /// What to do.
        does: String,
    },
}

impl What {
    /// The key that ticks, orders and kits go by: spelled here and nowhere else, and never given to another step.
    #[must_use]
    pub fn key(&self) -> Key {
        let at = |end: &BracketEnd, frame: &'static str, axle: &'static str| match end {
            BracketEnd::Frame => frame,
            BracketEnd::Axle => axle,
        };
        let fixed = match self {
            Self::Drill(id) => return format!("{DRILL}{}", id.as_str()).into(),
            Self::Own { key, .. } => return key.clone().into(),
            Self::ComesOff(end) => at(end, "off/frame", "off/axle"),
            Self::EyeEased(end) => at(end, "bar/frame-eye-eased", "bar/axle-eye-eased"),
            Self::Bare(end) => at(end, "frame/bare", "axle/bare"),
            Self::Tack(end) => at(end, "frame/tack", "axle/tack"),
            Self::TackCheck(end) => at(end, "frame/tack-check", "axle/tack-check"),
            Self::Weld(end) => at(end, "frame/weld", "axle/weld"),
            Self::Coat(end) => at(end, "frame/coat", "axle/coat"),
            Self::BracketByHand(end) => at(end, "frame/by-hand", "axle/by-hand"),
            Self::Snug(end) => at(end, "frame/snug", "axle/snug"),
            Self::BracketTight(end, bolts) => bolts.key(*end),
            Self::EyeByHand(end) => at(end, "bar/frame-eye-by-hand", "bar/axle-eye-by-hand"),
            Self::EyeTight(end) => at(end, "bar/frame-eye", "bar/axle-eye"),
            Self::EyePin(end) => at(end, "bar/frame-eye-pin", "bar/axle-eye-pin"),
            Self::Corners => "corners",
            Self::Stands => "stands",
            Self::BarOut => "bar/out",
            Self::EyeOff(_) => "bar/eye-off",
            Self::AdjusterOff => "bar/adjuster-off",
            Self::MockUp => "mock-up",
            Self::BatteryOff => "battery/off",
            Self::BatteryOn => "battery/on",
            Self::Bench => "bar/bench",
            Self::Gap => "bar/gap",
            Self::BarCut => "bar/cut",
            Self::BarTack => "bar/tack",
            Self::BushingsOut => "bar/bushings-out",
            Self::Build => "bar/build",
            Self::BushingsIn => "bar/bushings-in",
            Self::AdjusterByHand => "bar/adjuster-by-hand",
            Self::DragLinkOff => "drag-link/off",
            Self::DragLink => "drag-link/on",
            Self::DragLinkTight => "drag-link/tight",
            Self::DragLinkPin => "drag-link/pin",
            Self::DragLinkTurn => "drag-link/turn",
            Self::DragLinkClamps => "drag-link/clamps",
            Self::OnItsWeight => "on-its-weight",
            Self::Loosen => "bar/loosen",
            Self::Turn => "bar/turn",
            Self::AdjusterTight => "bar/adjuster",
            Self::AdjusterPin => "bar/adjuster-pin",
            Self::ReadAgain => "read-again",
            Self::Jam => "bar/jam",
            Self::Kind(step) => step.key(),
            Self::Grease => "grease",
            Self::Witness => "witness",
            Self::PutBack => "put-back",
        };
        Cow::Borrowed(fixed)
    }
}

/// What the keys of holes to drill begin with.
pub const DRILL: &str = "drill/";

/// Which of a bracket's bolts.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BracketBolts {
    /// The long one, or the one through the old eye hole.
    Main,
    /// Those at its side.
    Side,
    /// The small ones.
    Small,
}

impl BracketBolts {
    /// Every group in the usual order.
    pub const ALL: [Self; 3] = [Self::Main, Self::Side, Self::Small];

    /// As it is in the keys of gates.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Main => "main",
            Self::Side => "side",
            Self::Small => "small",
        }
    }

    /// The key of a group at an end, of the step that draws it up and of the fastener.
    #[must_use]
    pub const fn key(self, end: BracketEnd) -> &'static str {
        match (end, self) {
            (BracketEnd::Frame, Self::Main) => "frame/main",
            (BracketEnd::Frame, Self::Side) => "frame/side",
            (BracketEnd::Frame, Self::Small) => "frame/small",
            (BracketEnd::Axle, Self::Main) => "axle/main",
            (BracketEnd::Axle, Self::Side) => "axle/side",
            (BracketEnd::Axle, Self::Small) => "axle/small",
        }
    }
}

/// A step.
#[derive(Clone, Debug, PartialEq)]
pub struct Task {
    /// Its key; the same for the same step of any plan of this job.
    pub key: Key,
    /// What it does.
    pub what: What,
    /// How the vehicle must stand for it; either way where None.
    pub stands: Option<Stands>,
    /// The steps it comes after, and why.
    pub after: Vec<(Key, Rule)>,
    /// Keys of the fasteners it makes tight.
    pub tightens: Vec<&'static str>,
    /// Keys of the fasteners it starts by hand: a wrong nut shows there, before anything is tight.
    pub starts: Vec<&'static str>,
    /// What is so once it is done.
    pub gives: Vec<Condition>,
    /// What has to be so before it, whoever makes it so.
    once: Vec<(Condition, Rule)>,
}

/// An end in keys and words.
#[must_use]
pub const fn end_word(end: BracketEnd) -> &'static str {
    match end {
        BracketEnd::Frame => "frame",
        BracketEnd::Axle => "axle",
    }
}

/// One of the bar's eyes unbolted, for steps that come after it whichever it is: both go by one key.
const EYE_OFF: What = What::EyeOff(BracketEnd::Frame);

/// Gathers steps; a step that is to come after one that this plan has no need of simply does not wait. That such a step
/// exists at all, and how its key is spelled, is the compiler's to see: it is named as what it does.
struct Plan(Vec<Task>);

impl Plan {
    fn add(&mut self, what: What, after: &[(What, Rule)]) -> &mut Task {
        let known = after.iter().map(|(first, rule)| (first.key(), *rule));
        let after = known.filter(|(key, _)| self.0.iter().any(|task| task.key == *key)).collect();
        self.0.push(Task {
            key: what.key(),
            starts: starts(&what),
            gives: gives(&what),
            what,
            stands: None,
            after,
            tightens: Vec::new(),
            once: Vec::new(),
        });
        let last = self.0.len() - 1;
        &mut self.0[last]
    }

    /// Makes a step wait for another one.
    fn wait(&mut self, then: &What, first: &What, rule: Rule) {
        let key = then.key();
        if let Some(task) = self.0.iter_mut().find(|task| task.key == key) {
            task.waits_for(&[first.key()], rule);
        }
    }

    /// The steps of the kinds of work that usually come here.
    fn add_kinds(&mut self, situation: &Situation, phase: Phase) {
        let tasks = situation.changes.iter().flat_map(Change::tasks);
        for task in tasks.filter(|task| task.phase == phase) {
            let KindTask { step, stands, after, gives, tightens, starts, .. } = task;
            let mut waits = Vec::new();
            let mut once = Vec::new();
            for (first, rule) in after {
                match first {
                    First::Step(step) => waits.push((What::Kind(step), rule)),
                    First::That(that) => once.push((that, rule)),
                }
            }
            let task = self.add(What::Kind(step), &waits);
            task.stands = stands;
            task.gives = gives;
            task.once = once;
            task.tightens(&tightens);
            task.starts.extend(starts);
        }
    }

    /// Makes every step wait for those that make so what it needs.
    fn join(&mut self) {
        let given: Vec<(Condition, Key)> =
            self.0.iter().flat_map(|task| task.gives.iter().map(|that| (*that, task.key.clone()))).collect();
        for task in &mut self.0 {
            for (that, rule) in std::mem::take(&mut task.once) {
                let keys: Vec<Key> =
                    given.iter().filter(|(other, _)| *other == that).map(|(_, key)| key.clone()).collect();
                task.waits_for(&keys, rule);
            }
        }
    }

    /// Keys of the steps that do such a thing.
    fn keys(&self, does: impl Fn(&What) -> bool) -> Vec<Key> {
        self.0.iter().filter(|task| does(&task.what)).map(|task| task.key.clone()).collect()
    }
}

impl Task {
    fn on_its_weight(&mut self) -> &mut Self {
        self.stands = Some(Stands::OnItsWeight);
        self
    }

    fn tightens(&mut self, keys: &[&'static str]) -> &mut Self {
        self.tightens.extend(keys);
        self
    }

    fn waits_for(&mut self, keys: &[Key], rule: Rule) -> &mut Self {
        for key in keys {
            if *key != self.key && !self.after.iter().any(|(known, _)| known == key) {
                self.after.push((key.clone(), rule));
            }
        }
        self
    }
}

const ENDS: [BracketEnd; 2] = [BracketEnd::Frame, BracketEnd::Axle];

/// Every step, in the usual order.
#[must_use]
pub(super) fn tasks(situation: &Situation, own: &[OwnStep]) -> Vec<Task> {
    let mut plan = Plan(Vec::new());
    if !situation.is_nothing() {
        before(situation, &mut plan);
        make(situation, &mut plan);
        hang(situation, &mut plan);
        plan.add_kinds(situation, Phase::Hang);
        tighten(situation, &mut plan);
        finish(&mut plan, situation);
        plan.join();
    }
    with_own(plan.0, own)
}

/// Before anything is undone, and what comes off.
fn before(situation: &Situation, plan: &mut Plan) {
    if !situation.undoes() {
        return;
    }
    plan.add(What::Corners, &[]).on_its_weight();
    plan.add(What::Stands, &[(What::Corners, Rule::ReadFirst)]).once =
        vec![(Condition::ReadBefore, Rule::ReadFirst)];
    let stands = [(What::Stands, Rule::StandsFirst), (What::Corners, Rule::ReadFirst)];
    if situation.bar_comes_out() {
        // A bar built to its gap hangs where there was none.
        if situation.bar.as_ref().is_none_or(|bar| bar.hangs.as_deref() != Some("")) {
            plan.add(What::BarOut, &stands);
        }
    } else if let Some(work) = situation.ends.first() {
        plan.add(What::EyeOff(work.end), &stands);
        for end in ENDS.into_iter().filter(|end| situation.is_eased(*end)) {
            plan.add(What::EyeEased(end), &stands);
        }
    } else if situation.turns_an_end() {
        plan.add(What::AdjusterOff, &stands);
    }
    // The old bar hangs in the bracket that comes off.
    let hangs_in_it = [(What::BarOut, Rule::OutOfTheWay), (EYE_OFF, Rule::OutOfTheWay)];
    for work in situation.ends.iter().filter(|work| work.comes_off().is_some()) {
        let after = [stands.clone(), hangs_in_it.clone()].concat();
        plan.add(What::ComesOff(work.end), &after);
    }
    plan.add_kinds(situation, Phase::Undo);
}

/// Mock-up, drilling, welding.
fn make(situation: &Situation, plan: &mut Plan) {
    let made = situation.bar.as_ref().is_some_and(|bar| bar.made_to_length);
    let welds = situation.ends.iter().any(EndWork::welds_on);
    if !(made || welds || !situation.drills.is_empty()) {
        return;
    }
    let out = [
        (What::Stands, Rule::StandsFirst),
        (What::BarOut, Rule::OutOfTheWay),
        (EYE_OFF, Rule::OutOfTheWay),
        (What::ComesOff(BracketEnd::Frame), Rule::OutOfTheWay),
        (What::ComesOff(BracketEnd::Axle), Rule::OutOfTheWay),
    ];
    plan.add(What::MockUp, &out);
    for drill in &situation.drills {
        plan.add(What::Drill(drill.id.clone()), &[(What::MockUp, Rule::MockUpFirst)]);
    }
    if !(welds || made) {
        return;
    }
    plan.add(What::BatteryOff, &[(What::Stands, Rule::StandsFirst)]);
    for work in situation.ends.iter().filter(|work| work.welds_on()) {
        let end = work.end;
        plan.add(What::Bare(work.end), &out);
        let gate = [
            (What::Bare(end), Rule::OutOfTheWay),
            (What::MockUp, Rule::MockUpFirst),
            (What::BatteryOff, Rule::BatteryOff),
        ];
        let drilled = plan.keys(|what| matches!(what, What::Drill(_)));
        plan.add(What::Tack(work.end), &gate).waits_for(&drilled, Rule::DrilledFirst);
        plan.add(What::TackCheck(work.end), &[(What::Tack(end), Rule::TackFirst)]);
        plan.add(
            What::Weld(work.end),
            &[(What::TackCheck(end), Rule::TackFirst), (What::BatteryOff, Rule::BatteryOff)],
        );
        plan.add(What::Coat(work.end), &[(What::Weld(end), Rule::ColdFirst)]);
    }
    if !made {
        battery_on(plan);
    }
}

/// The battery is on again once the last arc is struck.
fn battery_on(plan: &mut Plan) {
    let welded = plan.keys(|what| matches!(what, What::Weld(_) | What::Build));
    plan.add(What::BatteryOn, &[]).waits_for(&welded, Rule::BatteryOff);
}

/// A bar cut to its gap: coped, tacked where it hangs, welded out of the vehicle.
fn build(situation: &Situation, plan: &mut Plan) {
    // A weld pulls its bracket: the gap is the one between brackets that are cold.
    let stands_there = plan.keys(|what| matches!(what, What::Coat(_) | What::BracketByHand(_)));
    if situation.tapes_the_gap() {
        let gap = plan.add(What::Gap, &[(What::MockUp, Rule::MockUpFirst)]);
        gap.waits_for(&stands_there, Rule::HungFirst).on_its_weight();
    }
    plan.add(What::BarCut, &[(What::MockUp, Rule::MockUpFirst), (What::Gap, Rule::SetFirst)])
        .waits_for(&stands_there, Rule::HungFirst);
    plan.add(
        What::BarTack,
        &[
            (What::BarCut, Rule::SetFirst),
            (What::MockUp, Rule::MockUpFirst),
            (What::BatteryOff, Rule::BatteryOff),
        ],
    )
    .on_its_weight();
    // Off its bolts again, and no rubber near the arc.
    plan.add(What::BushingsOut, &[(What::BarTack, Rule::TackFirst)]).stands = Some(Stands::Supported);
    plan.add(
        What::Build,
        &[
            (What::BushingsOut, Rule::OutOfTheWay),
            (What::BarTack, Rule::TackFirst),
            (What::MockUp, Rule::MockUpFirst),
            (What::BatteryOff, Rule::BatteryOff),
        ],
    );
    plan.add(What::BushingsIn, &[(What::Build, Rule::ColdFirst)]);
    battery_on(plan);
}

/// Everything that is started by hand.
fn hang(situation: &Situation, plan: &mut Plan) {
    let stands = (What::Stands, Rule::StandsFirst);
    for work in situation.ends.iter().filter(|work| work.bolts_on()) {
        let drilled = plan.keys(|what| matches!(what, What::Drill(_)));
        plan.add(
            What::BracketByHand(work.end),
            &[
                stands.clone(),
                (What::BarOut, Rule::OutOfTheWay),
                (EYE_OFF, Rule::OutOfTheWay),
                (What::ComesOff(BracketEnd::Frame), Rule::OutOfTheWay),
                (What::ComesOff(BracketEnd::Axle), Rule::OutOfTheWay),
            ],
        )
        .waits_for(&drilled, Rule::DrilledFirst);
    }
    if let Some(bar) = &situation.bar {
        let out = situation.bar_comes_out();
        if bar.made_to_length {
            build(situation, plan);
        } else if bar.length.is_some()
            && (bar.hangs.is_some() || (out && bar.kind != Some(AdjusterKind::Turnbuckle)))
        {
            plan.add(What::Bench, &[(What::BarOut, Rule::OutOfTheWay)]);
        }
        if !out
            && !situation.ends.is_empty()
            && bar.kind == Some(AdjusterKind::OneEnd)
            && bar.length.is_some()
        {
            plan.add(What::Bench, &[(EYE_OFF, Rule::OutOfTheWay)]);
        }
    }
    for end in ENDS.into_iter().filter(|end| situation.is_undone(*end)) {
        plan.add(
            What::EyeByHand(end),
            &[
                stands.clone(),
                (What::BarOut, Rule::OutOfTheWay),
                (EYE_OFF, Rule::OutOfTheWay),
                (What::Bench, Rule::SetFirst),
                (What::BushingsIn, Rule::HungFirst),
                (What::EyeByHand(BracketEnd::Frame), Rule::HungFirst),
                (What::Coat(end), Rule::ColdFirst),
                (What::BracketByHand(end), Rule::HungFirst),
            ],
        );
    }
    if situation.turns_an_end() {
        plan.add(What::AdjusterByHand, &[(What::AdjusterOff, Rule::LooseFirst)]);
    }
    if situation.drag_link.is_some() {
        let before = [stands, (What::Corners, Rule::ReadFirst)];
        plan.add(What::DragLinkOff, &before);
        let after = [before.to_vec(), vec![(What::DragLinkOff, Rule::OutOfTheWay)]].concat();
        plan.add(What::DragLink, &after);
    }
}

/// What is so of the vehicle once a step is done.
fn gives(what: &What) -> Vec<Condition> {
    match what {
        What::Corners => vec![Condition::CornersRead],
        What::Stands => vec![Condition::OnStands],
        What::BracketByHand(BracketEnd::Frame) | What::Coat(BracketEnd::Frame) => {
            vec![Condition::FrameBracketOn]
        }
        What::BracketTight(BracketEnd::Frame, _) => vec![Condition::FrameBracketTight],
        What::OnItsWeight => vec![Condition::OnItsWeight],
        What::ReadAgain => vec![Condition::AxleRead],
        _ => Vec::new(),
    }
}

/// Whether a step starts something by hand that must be started before anything is tight.
const fn by_hand(what: &What) -> bool {
    matches!(what, What::BracketByHand(_) | What::EyeByHand(_) | What::AdjusterByHand | What::DragLink)
}

/// Keys of the fasteners that a step starts by hand, those of the kinds of work aside.
fn starts(what: &What) -> Vec<&'static str> {
    match what {
        What::BracketByHand(end) => BracketBolts::ALL.map(|bolts| bolts.key(*end)).to_vec(),
        What::EyeByHand(end) => vec![eye_bolt_key(*end)],
        What::AdjusterByHand => vec![ADJUSTER_BOLT],
        What::DragLink => vec!["drag-link/studs"],
        _ => Vec::new(),
    }
}

/// What is drawn up, and read between.
fn tighten(situation: &Situation, plan: &mut Plan) {
    let mut started = plan.keys(by_hand);
    let of_kinds = plan.0.iter().filter(|task| matches!(task.what, What::Kind(_)) && !task.starts.is_empty());
    started.extend(of_kinds.map(|task| task.key.clone()));
    // Of the bracket and the bar that meet at it; the sway bar hangs elsewhere.
    let of_the_bar =
        plan.keys(|what| matches!(what, What::BracketByHand(_) | What::EyeByHand(_) | What::AdjusterByHand));
    for work in situation.ends.iter().filter(|work| work.bolts_on()) {
        plan.add(What::Snug(work.end), &[]).waits_for(&of_the_bar, Rule::HandFirst);
        let mut last = (What::Snug(work.end), Rule::SnugFirst);
        for bolts in BracketBolts::ALL {
            let what = What::BracketTight(work.end, bolts);
            let key = bolts.key(work.end);
            let task = plan.add(what.clone(), &[last]);
            task.waits_for(&of_the_bar, Rule::HandFirst).tightens(&[key]);
            if situation.through_bushings.iter().any(|through| through == key) {
                task.waits_for(&[What::OnItsWeight.key()], Rule::OnItsWeight).on_its_weight();
            }
            last = (what, if bolts == BracketBolts::Main { Rule::MainFirst } else { Rule::SideFirst });
        }
    }
    if situation.drag_link.is_some() {
        plan.add(What::DragLinkTight, &[(What::DragLink, Rule::HandFirst)]).tightens(&["drag-link/studs"]);
        plan.add(What::DragLinkPin, &[(What::DragLinkTight, Rule::TorqueBeforePin)]);
    }
    plan.add_kinds(situation, Phase::Tighten);
    let down = plan.add(What::OnItsWeight, &[(What::Stands, Rule::StandsFirst)]);
    down.waits_for(&started, Rule::HandFirst).on_its_weight();
    // What keeps the housing from turning as it is let down comes out on stands.
    down.once = vec![(Condition::HousingFree, Rule::OutOfTheWay), (Condition::StudsIn, Rule::HandFirst)];
    let weight = (What::OnItsWeight, Rule::OnItsWeight);
    tighten_bar(situation, plan, &of_the_bar, &weight);
    plan.add_kinds(situation, Phase::Set);
    if situation.bar.is_some() || situation.y_link().is_some() || situation.drag_link.is_some() {
        let tight = plan.keys(|what| {
            matches!(
                what,
                What::EyeTight(_) | What::AdjusterTight | What::DragLinkTight | What::BracketTight(..)
            )
        });
        // Turned with its jam nuts loose, and read so: they are last.
        let set = plan.keys(|what| matches!(what, What::Turn));
        let read = plan.add(What::ReadAgain, std::slice::from_ref(&weight));
        read.waits_for(&tight, Rule::TightFirst).waits_for(&set, Rule::SetBeforeRead).on_its_weight();
        read.once = vec![(Condition::AxleSet, Rule::SetBeforeRead)];
    }
    last_of_the_axle(situation, plan, &weight);
    plan.add_kinds(situation, Phase::OnItsWeight);
}

/// What comes once both sides are read: the steering wheel, then jam nuts and clamps.
fn last_of_the_axle(situation: &Situation, plan: &mut Plan, weight: &(What, Rule)) {
    if situation.turns_drag_link {
        plan.add(What::DragLinkTurn, &[(What::ReadAgain, Rule::CentredFirst), weight.clone()])
            .on_its_weight();
        plan.add(What::DragLinkClamps, &[(What::DragLinkTurn, Rule::SetFirst)])
            .tightens(&["drag-link/clamps"])
            .on_its_weight();
    }
    if situation.bar.as_ref().is_some_and(|bar| bar.length.is_some() && !bar.made_to_length) {
        plan.add(What::Jam, &[(What::ReadAgain, Rule::ReadBeforeJam)]).tightens(&["bar/jam"]).on_its_weight();
    }
}

fn tighten_bar(situation: &Situation, plan: &mut Plan, of_the_bar: &[Key], weight: &(What, Rule)) {
    let Some(bar) = &situation.bar else { return };
    if situation.turns_the_sleeve() {
        plan.add(What::Loosen, std::slice::from_ref(weight)).on_its_weight();
        plan.add(What::Turn, &[weight.clone(), (What::Loosen, Rule::LooseFirst)]).on_its_weight();
    }
    let tight =
        |plan: &mut Plan, (what, key): (What, &'static str), joint: JointKind, small: Option<What>| {
            let bushing = is_bushing(joint);
            let small: Vec<(What, Rule)> =
                small.map(|small| (small, Rule::BarBoltLast)).into_iter().collect();
            let task = plan.add(what, &small);
            task.waits_for(of_the_bar, Rule::HandFirst).tightens(&[key]);
            if bushing {
                task.waits_for(&[weight.0.key()], weight.1).on_its_weight();
            }
        };
    for end in ENDS.into_iter().filter(|end| situation.is_undone(*end) || situation.is_eased(*end)) {
        let joint = bar.joints[usize::from(end == BracketEnd::Axle)];
        let key = eye_bolt_key(end);
        tight(plan, (What::EyeTight(end), key), joint, Some(What::BracketTight(end, BracketBolts::Small)));
        if situation.castle_nuts.contains(&key) {
            plan.add(What::EyePin(end), &[(What::EyeTight(end), Rule::TorqueBeforePin)]);
        }
        if situation.is_eased(end) {
            plan.wait(&What::EyeTight(end), &What::EyeEased(end), Rule::LooseFirst);
        }
    }
    if situation.turns_an_end() {
        // Which end turns nobody said: the one that asks for more.
        let joint = bar.joints.into_iter().find(|joint| is_bushing(*joint)).unwrap_or(bar.joints[0]);
        tight(plan, (What::AdjusterTight, ADJUSTER_BOLT), joint, None);
        if situation.castle_nuts.contains(&ADJUSTER_BOLT) {
            plan.add(What::AdjusterPin, &[(What::AdjusterTight, Rule::TorqueBeforePin)]);
        }
    }
}

/// What is done once everything is tight.
fn finish(plan: &mut Plan, situation: &Situation) {
    let tight: Vec<Key> =
        plan.0.iter().filter(|task| !task.tightens.is_empty()).map(|task| task.key.clone()).collect();
    let turns = |joint: &JointKind| *joint != JointKind::Rubber;
    if situation.bar.as_ref().is_some_and(|bar| bar.joints.iter().any(turns)) {
        plan.add(What::Grease, &[]).waits_for(&tight, Rule::TightFirst);
    }
    if !tight.is_empty() {
        plan.add(What::Witness, &[]).waits_for(&tight, Rule::TightFirst);
    }
    if situation.undoes() {
        plan.add(What::PutBack, &[(What::BatteryOn, Rule::PutBackLast)]).waits_for(&tight, Rule::PutBackLast);
    }
}

/// A person's steps in their places; each waits for the one it was put after.
fn with_own(mut tasks: Vec<Task>, own: &[OwnStep]) -> Vec<Task> {
    for step in own {
        let place = tasks.iter().position(|task| task.key == step.after);
        let after = place.map(|_| (step.after.clone().into(), Rule::AsWritten)).into_iter().collect();
        let task = Task {
            key: step.key.clone().into(),
            what: What::Own { key: step.key.clone(), does: step.does.clone() },
            stands: None,
            after,
            tightens: Vec::new(),
            starts: Vec::new(),
            gives: Vec::new(),
            once: Vec::new(),
        };
        let at = place.map_or(tasks.len(), |place| place + 1);
        tasks.insert(at, task);
    }
    tasks
}
