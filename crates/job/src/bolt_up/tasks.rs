//! The steps that follow from what is to be done, each with the steps it comes after and why. Not here: their order
//! (`order`), their sentences (`words`).

use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::parts::BracketEnd;
use derecho_core::pose::joint::JointKind;

use super::rules::Rule;
use super::situation::{EndWork, Situation, is_bushing};
use crate::document::work::{OwnStep, Stands};

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
    Drill(usize),
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
    /// The stock of a built bar cut and coped.
    BarCut,
    /// The built bar tacked where it hangs.
    BarTack,
    /// The built bar welded out of the vehicle.
    Build,
    /// An eye in its hole, by hand.
    EyeByHand(BracketEnd),
    /// The adjusting end turned and back in, by hand.
    AdjusterByHand,
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
    /// The spacers behind the old upper mount out.
    Spacers,
    /// A Y-link's legs turned.
    Legs,
    /// Both sides read again.
    ReadAgain,
    /// Jam nuts or clamps of the bar.
    Jam,
    /// Jam nuts of the legs.
    LegsJam,
    /// Sway bar in its clamps by hand.
    SwayByHand,
    /// First splined arm on.
    FirstArm,
    /// Through, second arm loose.
    SecondArm,
    /// Equal stick-out.
    StickOut,
    /// Clamps or mounts.
    SwayMounts,
    /// Both arms at the same angle.
    ArmsAlike,
    /// Pinch bolts.
    Pinch,
    /// Links set alike.
    LinksSet,
    /// Links hung by hand.
    LinksByHand,
    /// Links' bolts.
    LinksTight,
    /// Both arms looked at.
    LinksRead,
    /// Links' jam nuts.
    LinksJam,
    /// Grease.
    Grease,
    /// Paint marks.
    Witness,
    /// Everything back.
    PutBack,
    /// A person's own step.
    Own(String),
}

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

    /// As it is in keys and words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Main => "main",
            Self::Side => "side",
            Self::Small => "small",
        }
    }
}

/// A step.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Task {
    /// Its key; the same for the same step of any plan of this job.
    pub key: String,
    /// What it does.
    pub what: What,
    /// How the vehicle must stand for it; either way where None.
    pub stands: Option<Stands>,
    /// The steps it comes after, and why.
    pub after: Vec<(String, Rule)>,
    /// Keys of the fasteners it makes tight.
    pub tightens: Vec<String>,
}

/// An end in keys and words.
#[must_use]
pub const fn end_word(end: BracketEnd) -> &'static str {
    match end {
        BracketEnd::Frame => "frame",
        BracketEnd::Axle => "axle",
    }
}

/// Gathers steps; a step that is to come after one that the plan does not have simply does not wait.
struct Plan(Vec<Task>);

impl Plan {
    fn add(&mut self, key: &str, what: What, after: &[(&str, Rule)]) -> &mut Task {
        let known = after.iter().filter(|(key, _)| self.0.iter().any(|task| task.key == *key));
        let after = known.map(|(key, rule)| ((*key).to_owned(), *rule)).collect();
        self.0.push(Task { key: key.to_owned(), what, stands: None, after, tightens: Vec::new() });
        let last = self.0.len() - 1;
        &mut self.0[last]
    }

    /// Makes a step wait for another one.
    fn wait(&mut self, key: &str, first: &str, rule: Rule) {
        if let Some(task) = self.0.iter_mut().find(|task| task.key == key) {
            task.waits_for(&[first.to_owned()], rule);
        }
    }

    /// Keys of the steps that do such a thing.
    fn keys(&self, does: impl Fn(&What) -> bool) -> Vec<String> {
        self.0.iter().filter(|task| does(&task.what)).map(|task| task.key.clone()).collect()
    }
}

impl Task {
    fn on_its_weight(&mut self) -> &mut Self {
        self.stands = Some(Stands::OnItsWeight);
        self
    }

    fn tightens(&mut self, keys: &[&str]) -> &mut Self {
        self.tightens.extend(keys.iter().map(|key| (*key).to_owned()));
        self
    }

    fn waits_for(&mut self, keys: &[String], rule: Rule) -> &mut Self {
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
        hang_sway(situation, &mut plan);
        tighten(situation, &mut plan);
        finish(&mut plan, situation);
    }
    with_own(plan.0, own)
}

/// Before anything is undone, and what comes off.
fn before(situation: &Situation, plan: &mut Plan) {
    if !situation.undoes() {
        return;
    }
    plan.add("corners", What::Corners, &[]).on_its_weight();
    plan.add("stands", What::Stands, &[("corners", Rule::ReadFirst)]);
    let stands = [("stands", Rule::StandsFirst), ("corners", Rule::ReadFirst)];
    if situation.bar_comes_out() {
        // A bar built to its gap hangs where there was none.
        if situation.bar.as_ref().is_none_or(|bar| bar.hangs.as_deref() != Some("")) {
            plan.add("bar/out", What::BarOut, &stands);
        }
    } else if let Some(work) = situation.ends.first() {
        plan.add("bar/eye-off", What::EyeOff(work.end), &stands);
        for end in ENDS.into_iter().filter(|end| situation.is_eased(*end)) {
            plan.add(&format!("bar/{}-eye-eased", end_word(end)), What::EyeEased(end), &stands);
        }
    } else if situation.turns_an_end() {
        plan.add("bar/adjuster-off", What::AdjusterOff, &stands);
    }
    // The old bar hangs in the bracket that comes off.
    let hangs_in_it = [("bar/out", Rule::OutOfTheWay), ("bar/eye-off", Rule::OutOfTheWay)];
    for work in situation.ends.iter().filter(|work| work.comes_off().is_some()) {
        let after = [stands[0], stands[1], hangs_in_it[0], hangs_in_it[1]];
        plan.add(&format!("off/{}", end_word(work.end)), What::ComesOff(work.end), &after);
    }
}

/// Mock-up, drilling, welding.
fn make(situation: &Situation, plan: &mut Plan) {
    let made = situation.bar.as_ref().is_some_and(|bar| bar.made_to_length);
    let welds = situation.ends.iter().any(EndWork::welds_on);
    if !(made || welds || !situation.drills.is_empty()) {
        return;
    }
    let out = [
        ("stands", Rule::StandsFirst),
        ("bar/out", Rule::OutOfTheWay),
        ("bar/eye-off", Rule::OutOfTheWay),
        ("off/frame", Rule::OutOfTheWay),
        ("off/axle", Rule::OutOfTheWay),
    ];
    plan.add("mock-up", What::MockUp, &out);
    for index in 0..situation.drills.len() {
        plan.add(&format!("drill/{index}"), What::Drill(index), &[("mock-up", Rule::MockUpFirst)]);
    }
    if !(welds || made) {
        return;
    }
    plan.add("battery/off", What::BatteryOff, &[("stands", Rule::StandsFirst)]);
    for work in situation.ends.iter().filter(|work| work.welds_on()) {
        let end = end_word(work.end);
        let [bare, tack, check, weld] =
            ["bare", "tack", "tack-check", "weld"].map(|step| format!("{end}/{step}"));
        plan.add(&bare, What::Bare(work.end), &out);
        let gate = [
            (bare.as_str(), Rule::OutOfTheWay),
            ("mock-up", Rule::MockUpFirst),
            ("battery/off", Rule::BatteryOff),
        ];
        let drilled = plan.keys(|what| matches!(what, What::Drill(_)));
        plan.add(&tack, What::Tack(work.end), &gate).waits_for(&drilled, Rule::DrilledFirst);
        plan.add(&check, What::TackCheck(work.end), &[(&tack, Rule::TackFirst)]);
        plan.add(
            &weld,
            What::Weld(work.end),
            &[(&check, Rule::TackFirst), ("battery/off", Rule::BatteryOff)],
        );
        plan.add(&format!("{end}/coat"), What::Coat(work.end), &[(&weld, Rule::ColdFirst)]);
    }
    if !made {
        battery_on(plan);
    }
}

/// The battery is on again once the last arc is struck.
fn battery_on(plan: &mut Plan) {
    let welded = plan.keys(|what| matches!(what, What::Weld(_) | What::Build));
    plan.add("battery/on", What::BatteryOn, &[]).waits_for(&welded, Rule::BatteryOff);
}

/// A bar cut to its gap: coped, tacked where it hangs, welded out of the vehicle.
fn build(plan: &mut Plan) {
    // A weld pulls its bracket: the gap is the one between brackets that are cold.
    let stands_there = plan.keys(|what| matches!(what, What::Coat(_) | What::BracketByHand(_)));
    plan.add("bar/cut", What::BarCut, &[("mock-up", Rule::MockUpFirst)])
        .waits_for(&stands_there, Rule::HungFirst);
    plan.add(
        "bar/tack",
        What::BarTack,
        &[("bar/cut", Rule::SetFirst), ("mock-up", Rule::MockUpFirst), ("battery/off", Rule::BatteryOff)],
    )
    .on_its_weight();
    plan.add(
        "bar/build",
        What::Build,
        &[("bar/tack", Rule::TackFirst), ("mock-up", Rule::MockUpFirst), ("battery/off", Rule::BatteryOff)],
    );
    battery_on(plan);
}

/// Everything that is started by hand.
fn hang(situation: &Situation, plan: &mut Plan) {
    let stands = ("stands", Rule::StandsFirst);
    for work in situation.ends.iter().filter(|work| work.bolts_on()) {
        let end = end_word(work.end);
        let drilled = plan.keys(|what| matches!(what, What::Drill(_)));
        plan.add(
            &format!("{end}/by-hand"),
            What::BracketByHand(work.end),
            &[
                stands,
                ("bar/out", Rule::OutOfTheWay),
                ("bar/eye-off", Rule::OutOfTheWay),
                ("off/frame", Rule::OutOfTheWay),
                ("off/axle", Rule::OutOfTheWay),
            ],
        )
        .waits_for(&drilled, Rule::DrilledFirst);
    }
    if let Some(bar) = &situation.bar {
        let out = situation.bar_comes_out();
        if bar.made_to_length {
            build(plan);
        } else if bar.length.is_some()
            && (bar.hangs.is_some() || (out && bar.kind != Some(AdjusterKind::Turnbuckle)))
        {
            plan.add("bar/bench", What::Bench, &[("bar/out", Rule::OutOfTheWay)]);
        }
        if !out
            && !situation.ends.is_empty()
            && bar.kind == Some(AdjusterKind::OneEnd)
            && bar.length.is_some()
        {
            plan.add("bar/bench", What::Bench, &[("bar/eye-off", Rule::OutOfTheWay)]);
        }
    }
    for end in ENDS.into_iter().filter(|end| situation.is_undone(*end)) {
        let word = end_word(end);
        let coat = format!("{word}/coat");
        let bracket = format!("{word}/by-hand");
        plan.add(
            &format!("bar/{word}-eye-by-hand"),
            What::EyeByHand(end),
            &[
                stands,
                ("bar/out", Rule::OutOfTheWay),
                ("bar/eye-off", Rule::OutOfTheWay),
                ("bar/bench", Rule::SetFirst),
                ("bar/build", Rule::SetFirst),
                ("bar/frame-eye-by-hand", Rule::HungFirst),
                (&coat, Rule::ColdFirst),
                (&bracket, Rule::HungFirst),
            ],
        );
    }
    if situation.turns_an_end() {
        plan.add("bar/adjuster-by-hand", What::AdjusterByHand, &[("bar/adjuster-off", Rule::LooseFirst)]);
    }
    if situation.drag_link.is_some() {
        plan.add("drag-link/on", What::DragLink, &[stands, ("corners", Rule::ReadFirst)]);
    }
}

/// The sway bar as far as it is hung by hand.
fn hang_sway(situation: &Situation, plan: &mut Plan) {
    let Some(sway) = &situation.sway else { return };
    let stands = [("stands", Rule::StandsFirst), ("corners", Rule::ReadFirst)];
    if sway.fits_bar && sway.splined {
        plan.add("sway/first-arm", What::FirstArm, &stands).tightens(&["sway/first-mount"]);
        plan.add("sway/second-arm", What::SecondArm, &[("sway/first-arm", Rule::FirstArmTight)]);
        plan.add("sway/stick-out", What::StickOut, &[("sway/second-arm", Rule::HungFirst)]);
    } else if sway.fits_bar {
        plan.add("sway/by-hand", What::SwayByHand, &stands);
        plan.add("sway/stick-out", What::StickOut, &[("sway/by-hand", Rule::HungFirst)]);
    }
    if sway.link.is_some() {
        plan.add("sway/links-set", What::LinksSet, &stands);
    }
    plan.add(
        "sway/links-by-hand",
        What::LinksByHand,
        &[
            stands[0],
            stands[1],
            ("sway/links-set", Rule::SetFirst),
            ("sway/by-hand", Rule::HungFirst),
            ("sway/second-arm", Rule::HungFirst),
        ],
    );
}

/// Whether a step starts something by hand that must be started before anything is tight.
const fn by_hand(what: &What) -> bool {
    matches!(
        what,
        What::BracketByHand(_)
            | What::EyeByHand(_)
            | What::AdjusterByHand
            | What::SwayByHand
            | What::LinksByHand
            | What::DragLink
    )
}

/// Keys of the fasteners that a step starts by hand: a wrong nut shows there, before anything is tight.
#[must_use]
pub(super) fn starts(what: &What) -> Vec<String> {
    match what {
        What::BracketByHand(end) => {
            BracketBolts::ALL.map(|bolts| format!("{}/{}", end_word(*end), bolts.word())).to_vec()
        }
        What::EyeByHand(end) => vec![format!("bar/{}-eye", end_word(*end))],
        What::AdjusterByHand => vec!["bar/adjuster".to_owned()],
        What::DragLink => vec!["drag-link/studs".to_owned()],
        What::SwayByHand => vec!["sway/clamps".to_owned()],
        What::LinksByHand => vec!["sway/arm-eyes".to_owned(), "sway/far-ends".to_owned()],
        _ => Vec::new(),
    }
}

/// What is drawn up, and read between.
fn tighten(situation: &Situation, plan: &mut Plan) {
    let started = plan.keys(by_hand);
    // Of the bracket and the bar that meet at it; the sway bar hangs elsewhere.
    let of_the_bar =
        plan.keys(|what| matches!(what, What::BracketByHand(_) | What::EyeByHand(_) | What::AdjusterByHand));
    for work in situation.ends.iter().filter(|work| work.bolts_on()) {
        let end = end_word(work.end);
        let snug = format!("{end}/snug");
        plan.add(&snug, What::Snug(work.end), &[]).waits_for(&of_the_bar, Rule::HandFirst);
        let mut last = (snug, Rule::SnugFirst);
        for bolts in BracketBolts::ALL {
            let key = format!("{end}/{}", bolts.word());
            let task = plan.add(&key, What::BracketTight(work.end, bolts), &[(&last.0, last.1)]);
            task.waits_for(&of_the_bar, Rule::HandFirst).tightens(&[&key]);
            if situation.through_bushings.contains(&key) {
                task.waits_for(&["on-its-weight".to_owned()], Rule::OnItsWeight).on_its_weight();
            }
            last = (key, if bolts == BracketBolts::Main { Rule::MainFirst } else { Rule::SideFirst });
        }
    }
    if situation.drag_link.is_some() {
        plan.add("drag-link/tight", What::DragLinkTight, &[("drag-link/on", Rule::HandFirst)])
            .tightens(&["drag-link/studs"]);
        plan.add("drag-link/pin", What::DragLinkPin, &[("drag-link/tight", Rule::TorqueBeforePin)]);
    }
    if situation.y_link {
        // They keep the housing from turning as it is let down.
        plan.add("legs/spacers", What::Spacers, &[("stands", Rule::StandsFirst)]).stands =
            Some(Stands::Supported);
    }
    plan.add(
        "on-its-weight",
        What::OnItsWeight,
        &[("stands", Rule::StandsFirst), ("legs/spacers", Rule::OutOfTheWay)],
    )
    .waits_for(&started, Rule::HandFirst)
    .on_its_weight();
    let weight = ("on-its-weight", Rule::OnItsWeight);
    tighten_bar(situation, plan, &of_the_bar, weight);
    if situation.y_link {
        plan.add("legs/turn", What::Legs, &[weight, ("legs/spacers", Rule::OutOfTheWay)]).on_its_weight();
    }
    if situation.bar.is_some() || situation.y_link || situation.drag_link.is_some() {
        let tight = plan.keys(|what| {
            matches!(
                what,
                What::EyeTight(_) | What::AdjusterTight | What::DragLinkTight | What::BracketTight(..)
            )
        });
        // Turned with its jam nuts loose, and read so: they are last.
        let set = plan.keys(|what| matches!(what, What::Turn | What::Legs));
        plan.add("read-again", What::ReadAgain, &[weight])
            .waits_for(&tight, Rule::TightFirst)
            .waits_for(&set, Rule::SetBeforeRead)
            .on_its_weight();
    }
    if situation.turns_drag_link {
        plan.add("drag-link/turn", What::DragLinkTurn, &[("read-again", Rule::CentredFirst), weight])
            .on_its_weight();
        plan.add("drag-link/clamps", What::DragLinkClamps, &[("drag-link/turn", Rule::SetFirst)])
            .tightens(&["drag-link/clamps"])
            .on_its_weight();
    }
    if situation.bar.as_ref().is_some_and(|bar| bar.length.is_some() && !bar.made_to_length) {
        plan.add("bar/jam", What::Jam, &[("read-again", Rule::ReadBeforeJam)])
            .tightens(&["bar/jam"])
            .on_its_weight();
    }
    if situation.y_link {
        plan.add("legs/jam", What::LegsJam, &[("read-again", Rule::ReadBeforeJam)])
            .tightens(&["legs/jam"])
            .on_its_weight();
    }
    tighten_sway(situation, plan, weight);
}

fn tighten_bar(situation: &Situation, plan: &mut Plan, of_the_bar: &[String], weight: (&str, Rule)) {
    let Some(bar) = &situation.bar else { return };
    if situation.turns_the_sleeve() {
        plan.add("bar/loosen", What::Loosen, &[weight]).on_its_weight();
        plan.add("bar/turn", What::Turn, &[weight, ("bar/loosen", Rule::LooseFirst)]).on_its_weight();
    }
    let tight = |plan: &mut Plan, key: &str, what: What, joint: JointKind, small: &str| {
        let bushing = is_bushing(joint);
        let task = plan.add(key, what, &[(small, Rule::BarBoltLast)]);
        task.waits_for(of_the_bar, Rule::HandFirst).tightens(&[key]);
        if bushing {
            task.waits_for(&[weight.0.to_owned()], weight.1).on_its_weight();
        }
    };
    for end in ENDS.into_iter().filter(|end| situation.is_undone(*end) || situation.is_eased(*end)) {
        let word = end_word(end);
        let joint = bar.joints[usize::from(end == BracketEnd::Axle)];
        tight(plan, &format!("bar/{word}-eye"), What::EyeTight(end), joint, &format!("{word}/small"));
        let key = format!("bar/{word}-eye");
        if situation.castle_nuts.contains(&key) {
            plan.add(&format!("{key}-pin"), What::EyePin(end), &[(&key, Rule::TorqueBeforePin)]);
        }
        if situation.is_eased(end) {
            plan.wait(&format!("bar/{word}-eye"), &format!("bar/{word}-eye-eased"), Rule::LooseFirst);
        }
    }
    if situation.turns_an_end() {
        // Which end turns nobody said: the one that asks for more.
        let joint = bar.joints.into_iter().find(|joint| is_bushing(*joint)).unwrap_or(bar.joints[0]);
        tight(plan, "bar/adjuster", What::AdjusterTight, joint, "");
        if situation.castle_nuts.iter().any(|key| key == "bar/adjuster") {
            plan.add("bar/adjuster-pin", What::AdjusterPin, &[("bar/adjuster", Rule::TorqueBeforePin)]);
        }
    }
}

fn tighten_sway(situation: &Situation, plan: &mut Plan, weight: (&str, Rule)) {
    let Some(sway) = &situation.sway else { return };
    let stick_out = ("sway/stick-out", Rule::StickOutFirst);
    let links = ("sway/links-by-hand", Rule::HandFirst);
    if sway.fits_bar {
        plan.add("sway/mounts", What::SwayMounts, &[stick_out, links, weight])
            .tightens(&[if sway.splined { "sway/second-mount" } else { "sway/clamps" }])
            .on_its_weight();
    }
    if sway.fits_bar && sway.splined {
        plan.add("sway/arms-alike", What::ArmsAlike, &[stick_out, weight]).on_its_weight();
        plan.add("sway/pinch", What::Pinch, &[("sway/arms-alike", Rule::AnglesFirst), stick_out])
            .tightens(&["sway/pinch"]);
    }
    plan.add("sway/links-tight", What::LinksTight, &[links, weight])
        .tightens(&["sway/arm-eyes", "sway/far-ends"])
        .on_its_weight();
    if sway.link.is_some() {
        plan.add(
            "sway/links-read",
            What::LinksRead,
            &[("sway/links-tight", Rule::TightFirst), ("sway/pinch", Rule::TightFirst)],
        )
        .on_its_weight();
        plan.add("sway/links-jam", What::LinksJam, &[("sway/links-read", Rule::ReadBeforeJam)])
            .tightens(&["sway/links-jam"]);
    }
}

/// What is done once everything is tight.
fn finish(plan: &mut Plan, situation: &Situation) {
    let tight: Vec<String> =
        plan.0.iter().filter(|task| !task.tightens.is_empty()).map(|task| task.key.clone()).collect();
    let turns = |joint: &JointKind| *joint != JointKind::Rubber;
    if situation.bar.as_ref().is_some_and(|bar| bar.joints.iter().any(turns)) || situation.sway.is_some() {
        plan.add("grease", What::Grease, &[]).waits_for(&tight, Rule::TightFirst);
    }
    if !tight.is_empty() {
        plan.add("witness", What::Witness, &[]).waits_for(&tight, Rule::TightFirst);
    }
    if situation.undoes() {
        plan.add("put-back", What::PutBack, &[("battery/on", Rule::PutBackLast)])
            .waits_for(&tight, Rule::PutBackLast);
    }
}

/// A person's steps in their places; each waits for the one it was put after.
fn with_own(mut tasks: Vec<Task>, own: &[OwnStep]) -> Vec<Task> {
    for step in own {
        let place = tasks.iter().position(|task| task.key == step.after);
        let after = place.map(|_| (step.after.clone(), Rule::AsWritten)).into_iter().collect();
        let task = Task {
            key: step.key.clone(),
            what: What::Own(step.does.clone()),
            stands: None,
            after,
            tightens: Vec::new(),
        };
        let at = place.map_or(tasks.len(), |place| place + 1);
        tasks.insert(at, task);
    }
    tasks
}
