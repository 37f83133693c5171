//! The steps that any work shares, and among them those of the kinds of work, each with the steps it comes after and why.
//! Not here: what a kind of work consists of (`work::kinds`), their order (`order`), their sentences (`words`).

use std::borrow::Cow;

use derecho_core::pose::joint::JointKind;

use super::situation::Situation;
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
    /// Everything held where it will be, and cycled.
    MockUp,
    /// A hole of the drill schedule.
    Drill(DrillId),
    /// Battery's negative off.
    BatteryOff,
    /// Battery on again.
    BatteryOn,
    /// Down on the weight.
    OnItsWeight,
    /// Both sides read again.
    ReadAgain,
    /// A step of a kind of work.
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
    /// The key that ticks, orders and kits go by: never given to another step.
    #[must_use]
    pub fn key(&self) -> Key {
        Cow::Borrowed(match self {
            Self::Drill(id) => return format!("{DRILL}{}", id.as_str()).into(),
            Self::Own { key, .. } => return key.clone().into(),
            Self::Corners => "corners",
            Self::Stands => "stands",
            Self::MockUp => "mock-up",
            Self::BatteryOff => "battery/off",
            Self::BatteryOn => "battery/on",
            Self::OnItsWeight => "on-its-weight",
            Self::ReadAgain => "read-again",
            Self::Kind(step) => step.key(),
            Self::Grease => "grease",
            Self::Witness => "witness",
            Self::PutBack => "put-back",
        })
    }
}

/// What the keys of holes to drill begin with.
pub const DRILL: &str = "drill/";

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

impl Task {
    fn new(what: What) -> Self {
        Self {
            key: what.key(),
            what,
            stands: None,
            after: Vec::new(),
            tightens: Vec::new(),
            starts: Vec::new(),
            gives: Vec::new(),
            once: Vec::new(),
        }
    }

    fn on_its_weight(mut self) -> Self {
        self.stands = Some(Stands::OnItsWeight);
        self
    }

    fn once(mut self, that: Condition, rule: Rule) -> Self {
        self.once.push((that, rule));
        self
    }

    fn gives(mut self, that: Condition) -> Self {
        self.gives.push(that);
        self
    }

    fn waits_for(&mut self, keys: &[Key], rule: Rule) {
        for key in keys {
            if *key != self.key && !self.after.iter().any(|(known, _)| known == key) {
                self.after.push((key.clone(), rule));
            }
        }
    }
}

impl From<KindTask<KindStep>> for Task {
    fn from(of: KindTask<KindStep>) -> Self {
        let mut task = Self::new(What::Kind(of.step));
        for (first, rule) in of.after {
            match first {
                First::Step(step) => task.after.push((Cow::Borrowed(step.key()), rule)),
                First::That(that) => task.once.push((that, rule)),
            }
        }
        Self { stands: of.stands, tightens: of.tightens, starts: of.starts, gives: of.gives, ..task }
    }
}

/// Gathers steps in their usual order.
struct Plan {
    tasks: Vec<Task>,
    /// Steps of the kinds of work that are not yet in it, each where it usually comes.
    open: Vec<(Phase, Task)>,
}

impl Plan {
    /// The steps of the kinds of work that usually come here.
    fn add_kinds(&mut self, phase: Phase) {
        let here = self.open.extract_if(.., |(at, _)| *at == phase);
        self.tasks.extend(here.map(|(_, task)| task));
    }

    /// Whether some step of a kind of work asks for this.
    fn asks_for(&self, that: Condition) -> bool {
        let all = self.tasks.iter().chain(self.open.iter().map(|(_, task)| task));
        all.flat_map(|task| &task.once).any(|(other, _)| *other == that)
    }

    /// Joins every step to those it comes after: to those that make so what it needs, and not to one that this plan has
    /// no need of.
    fn joined(mut self) -> Vec<Task> {
        let given: Vec<(Condition, Key)> = self
            .tasks
            .iter()
            .flat_map(|task| task.gives.iter().map(|that| (*that, task.key.clone())))
            .collect();
        let known: Vec<Key> = self.tasks.iter().map(|task| task.key.clone()).collect();
        for task in &mut self.tasks {
            task.after.retain(|(key, _)| known.contains(key));
            for (that, rule) in std::mem::take(&mut task.once) {
                let keys: Vec<Key> =
                    given.iter().filter(|(other, _)| *other == that).map(|(_, key)| key.clone()).collect();
                task.waits_for(&keys, rule);
            }
        }
        self.tasks
    }
}

/// Every step, in the usual order.
#[must_use]
pub(super) fn tasks(situation: &Situation, own: &[OwnStep]) -> Vec<Task> {
    if situation.is_nothing() {
        return with_own(Vec::new(), own);
    }
    let kinds = situation.kinds();
    let open = kinds.iter().flat_map(Change::tasks).map(|task| (task.phase, Task::from(task))).collect();
    let mut plan = Plan { tasks: Vec::new(), open };
    before(situation, &mut plan);
    make(situation, &mut plan);
    plan.add_kinds(Phase::Hang);
    tighten(situation, &mut plan);
    finish(&mut plan, situation);
    with_own(plan.joined(), own)
}

/// Before anything is undone, and what comes off.
fn before(situation: &Situation, plan: &mut Plan) {
    if situation.undoes() {
        plan.tasks.push(Task::new(What::Corners).gives(Condition::CornersRead).on_its_weight());
        plan.tasks.push(
            Task::new(What::Stands)
                .once(Condition::CornersRead, Rule::ReadFirst)
                .once(Condition::ReadBefore, Rule::ReadFirst)
                .gives(Condition::OnStands),
        );
    }
    plan.add_kinds(Phase::Undo);
}

/// Mock-up, drilling, welding, and what is set on the bench.
fn make(situation: &Situation, plan: &mut Plan) {
    if plan.asks_for(Condition::MockedUp) || !situation.drills.is_empty() {
        plan.tasks.push(
            Task::new(What::MockUp)
                .once(Condition::OnStands, Rule::StandsFirst)
                .once(Condition::EyesFree, Rule::OutOfTheWay)
                .once(Condition::OldBracketOff, Rule::OutOfTheWay)
                .once(Condition::BracketPlaced, Rule::HungFirst)
                .gives(Condition::MockedUp),
        );
    }
    plan.tasks.extend(situation.drills.iter().map(|drill| {
        Task::new(What::Drill(drill.id.clone()))
            .once(Condition::MockedUp, Rule::MockUpFirst)
            .gives(Condition::Drilled)
    }));
    if plan.asks_for(Condition::BatteryOff) {
        plan.tasks.push(
            Task::new(What::BatteryOff)
                .once(Condition::OnStands, Rule::StandsFirst)
                .gives(Condition::BatteryOff),
        );
    }
    for phase in [Phase::Make, Phase::Brackets, Phase::Build] {
        let arcs = |phase: Phase| {
            move |(at, task): &(Phase, Task)| *at == phase && task.gives.contains(&Condition::Welded)
        };
        let last = plan.open.iter().any(arcs(phase));
        plan.add_kinds(phase);
        // On again once the last arc is struck.
        if last && !plan.open.iter().any(|(_, task)| task.gives.contains(&Condition::Welded)) {
            plan.tasks.push(
                Task::new(What::BatteryOn)
                    .once(Condition::Welded, Rule::BatteryOff)
                    .gives(Condition::BatteryOn),
            );
        }
    }
}

/// What is drawn up, and read between.
fn tighten(situation: &Situation, plan: &mut Plan) {
    let started = plan.tasks.iter().filter(|task| !task.starts.is_empty());
    let started: Vec<Key> = started.map(|task| task.key.clone()).collect();
    plan.add_kinds(Phase::Tighten);
    // What keeps the housing from turning as it is let down comes out on stands.
    let mut down = Task::new(What::OnItsWeight)
        .once(Condition::OnStands, Rule::StandsFirst)
        .once(Condition::HousingFree, Rule::OutOfTheWay)
        .once(Condition::StudsIn, Rule::HandFirst)
        .gives(Condition::OnItsWeight)
        .on_its_weight();
    down.waits_for(&started, Rule::HandFirst);
    plan.tasks.push(down);
    plan.add_kinds(Phase::Set);
    if situation.bar.is_some() || situation.y_link().is_some() || situation.drag_link.is_some() {
        plan.tasks.push(
            Task::new(What::ReadAgain)
                .once(Condition::OnItsWeight, Rule::OnItsWeight)
                .once(Condition::AxleTight, Rule::TightFirst)
                .once(Condition::AxleSet, Rule::SetBeforeRead)
                .gives(Condition::AxleRead)
                .on_its_weight(),
        );
    }
    plan.add_kinds(Phase::Steering);
    plan.add_kinds(Phase::OnItsWeight);
}

/// What is done once everything is tight.
fn finish(plan: &mut Plan, situation: &Situation) {
    let tight = plan.tasks.iter().filter(|task| !task.tightens.is_empty());
    let tight: Vec<Key> = tight.map(|task| task.key.clone()).collect();
    let mut add = |mut task: Task, rule: Rule| {
        task.waits_for(&tight, rule);
        plan.tasks.push(task);
    };
    let turns = |joint: &JointKind| *joint != JointKind::Rubber;
    if situation.bar.as_ref().is_some_and(|bar| bar.joints.iter().any(turns)) {
        add(Task::new(What::Grease), Rule::TightFirst);
    }
    if !tight.is_empty() {
        add(Task::new(What::Witness), Rule::TightFirst);
    }
    if situation.undoes() {
        add(Task::new(What::PutBack).once(Condition::BatteryOn, Rule::PutBackLast), Rule::PutBackLast);
    }
}

/// A person's steps in their places; each waits for the one it was put after.
fn with_own(mut tasks: Vec<Task>, own: &[OwnStep]) -> Vec<Task> {
    for step in own {
        let place = tasks.iter().position(|task| task.key == step.after);
        let mut task = Task::new(What::Own { key: step.key.clone(), does: step.does.clone() });
        task.after = place.map(|_| (step.after.clone().into(), Rule::AsWritten)).into_iter().collect();
        let at = place.map_or(tasks.len(), |place| place + 1);
        tasks.insert(at, task);
    }
    tasks
}
