//! Stage Bolt-up: the plan of work from the setup that was chosen, what of it was done, and what was done otherwise.
//!
//! `situation` is what is to be done, `tasks` the steps that follow, `rules` why one comes after another, `order` their
//! order; `fasteners`, `parts` and `tools` what they need. Pure functions of the document: a
//! changed plan keeps what was ticked, by the keys of its steps, and marks what it changed.
//!
//! Not here: what is set (the stages before), and whether it came out (Prove).

mod cuts;
mod fasteners;
pub mod message;
pub mod named;
pub mod order;
mod parts;
pub mod situation;
pub mod tasks;
#[cfg(test)]
mod tests;
pub mod time;
mod tools;

use self::message::{BoltUpMessage, FastenerName, FirstBracket, MockUpOpen, StepContext, StepFacts};
use self::named::Named;
use crate::bracket::fit::{ears, eyes, parallel};
use crate::bracket::message::BracketMessage;
use crate::document::heights::height_of;
use crate::document::sway::SwayKind;
use crate::document::{Job, gate_keys, length_of};
use crate::setups::{PlannedGap, Resolved, Setups, moves};
use derecho_core::measure::{Length, Side, TapeEntry};
use derecho_core::parts::BracketEnd;
use derecho_core::sway::splined::stick_out;
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

pub use self::cuts::CutLine;
pub use self::fasteners::{FastenerLine, Tightness};
use self::order::{arranged, sorted};
pub use self::parts::PartLine;
pub(crate) use self::parts::temporary;
use self::situation::{Situation, drill_size};
use self::tasks::{Task, What, tasks};
pub use self::tools::ToolLine;
use crate::bar::{BarResult, can_be_followed};
use crate::cycle::axle_way::axle_way;
use crate::defaults;
use crate::document::work::{Mark, Stands, StepRecord};
use crate::message::{Label, Message};
use crate::verdict::{FitCheck, FitVerdict};
use crate::work::kinds::straps::Straps;
use crate::work::kinds::{KindStep, built_bar};
pub use crate::work::rules::Rule;

/// How far a step is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepState {
    /// Others come first.
    Waits,
    /// It can be done now.
    Ready,
    /// A part or a nut is wrong: it stops.
    Stopped,
    /// Ticked.
    Done,
    /// Ticked, and the plan has changed since.
    Changed,
    /// Struck out with a reason.
    Struck,
}

/// A step that comes first and is not done.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Waits {
    /// Its key.
    pub key: String,
    /// Why it comes first.
    pub rule: Rule,
    /// The same in words.
    pub says: Message,
}

/// A step of the plan.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StepLine {
    /// Its key.
    pub key: String,
    /// What to do.
    pub does: Message,
    /// The same with ids in place of names, to be kept with a tick: a row called otherwise changes no step. Absent
    /// where it reads the same.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub by_ids: Option<Message>,
    /// How, with this job's figures.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub how: Option<Message>,
    /// Why.
    #[schema(value_type = String)]
    pub because: Label,
    /// What to mind.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String)]
    pub caution: Option<Label>,
    /// How the vehicle must stand; either way where absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stands: Option<Stands>,
    /// The same in words.
    #[schema(value_type = String)]
    pub stands_says: Label,
    /// Keys of the fasteners it makes tight.
    pub tightens: Vec<String>,
    /// Keys of the fasteners it starts by hand.
    pub starts: Vec<String>,
    /// How far it is.
    pub state: StepState,
    /// Steps that come first and are not done.
    pub waits: Vec<Waits>,
    /// Why it stops, or why it should not be done as it stands now.
    pub minds: Vec<Message>,
    /// What was done otherwise, and what has changed since.
    pub reported: Vec<Message>,
    /// Whether a person added it.
    pub own: bool,
}

/// A pair of steps that stands against a rule in a person's order.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BrokenRule {
    /// The rule.
    pub rule: Rule,
    /// The step that comes first by it.
    pub first: String,
    /// The one that stands before it.
    pub then: String,
    /// In words.
    pub says: Message,
}

/// A hole of the drill schedule.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DrillLine {
    /// What for, and where.
    pub name: String,
    /// Marking, punching, pilot and steps.
    pub says: Message,
}

/// Everything stage Bolt-up answers.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WorkResult {
    /// The next step, or that all are done.
    pub says: Message,
    /// Why there is nothing to do, or why nothing may be undone yet.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub minds: Option<Message>,
    /// The key of the next step.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub next: Option<String>,
    /// How many steps are done or struck out.
    pub done: usize,
    /// The steps in the order they are done.
    pub steps: Vec<StepLine>,
    /// Done, and no longer in the plan.
    pub gone: Vec<Message>,
    /// What in a person's order stands against a rule.
    pub broken: Vec<BrokenRule>,
    /// Parts.
    pub parts: Vec<PartLine>,
    /// Joint and spacers between the ears, the eye's bolt: reckoned.
    pub fit: Vec<FitCheck>,
    /// Fasteners.
    pub fasteners: Vec<FastenerLine>,
    /// Tools.
    pub tools: Vec<ToolLine>,
    /// Holes to drill.
    pub drills: Vec<DrillLine>,
    /// What is cut.
    pub cuts: Vec<CutLine>,
    /// Whether what is drilled or welded may be, in words; absent where nothing is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub mock_up: Option<Message>,
    /// What that mock-up asks for.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub mock_up_asks: Vec<MockUpOpen>,
    /// How it stands against before, where the corners were read twice.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub corners: Option<Message>,
}

/// The plan of a job: what is to be done, and its steps in the person's order.
struct Plan {
    situation: Situation,
    tasks: Vec<Task>,
}

impl Plan {
    fn of(job: &Job, resolved: &Resolved) -> Self {
        let situation = Situation::of(job, resolved);
        let tasks = arranged(sorted(tasks(&situation, &job.bolt_up.own)), &job.bolt_up.order);
        Self { situation, tasks }
    }
}

fn is_closed(record: Option<&StepRecord>) -> bool {
    record.is_some_and(|record| record.done.is_some() || !record.struck.trim().is_empty())
}

/// How far the work is, as stage strip and settling need it.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Progressed {
    /// How many steps there are.
    pub steps: usize,
    /// How many of them are done or struck out.
    pub done: usize,
    /// Fasteners nobody wrote a torque or a reason for, by name.
    pub untorqued: Vec<Named>,
    /// Fasteners tightened by feel or otherwise than wanted, by name.
    pub recheck: Vec<Named>,
    /// What is still off the vehicle.
    pub still_off: Vec<String>,
    /// Fasteners tightened otherwise than wanted, by name.
    pub other_than_wanted: Vec<Named>,
    /// Fasteners whose torque is from memory, by name.
    pub from_memory: Vec<Named>,
    /// Parts that are missing or wrong, by name.
    pub wrong_parts: Vec<Named>,
    /// What does not fit: joint in its ears, bolt, nut, hole.
    pub unfit: Vec<Unfit>,
}

/// Something that does not fit.
#[derive(Clone, Debug, PartialEq)]
pub struct Unfit {
    /// Its place in the key of an acceptance.
    pub key: String,
    /// What it is.
    pub check: FitCheck,
    /// Whether it can't hold at all, so that nobody may drive on it.
    pub unusable: bool,
}

/// How far the work is.
#[must_use]
pub fn progressed(job: &Job, resolved: &Resolved) -> Progressed {
    let Plan { situation, tasks } = Plan::of(job, resolved);
    let keys = fasteners::keys(job, &tasks);
    let tightness: Vec<Tightness> = keys.iter().map(|key| fasteners::tightness(job, key)).collect();
    let named = |key: &&str| Named::from(self::named(job, &situation, key));
    let of = |wanted: &[Tightness]| -> Vec<Named> {
        let made = keys.iter().zip(&tightness).filter(|(_, tightness)| wanted.contains(tightness));
        made.map(|(key, _)| named(key)).collect()
    };
    let off = job
        .bolt_up
        .taken_off
        .iter()
        .filter(|taken| taken.back.is_none() && taken.stays_off.trim().is_empty());
    Progressed {
        steps: tasks.len(),
        done: tasks.iter().filter(|task| is_closed(job.bolt_up.step(&task.key))).count(),
        untorqued: of(&[Tightness::Open]),
        recheck: of(&[Tightness::ByFeel, Tightness::OtherThanWanted]),
        still_off: off.map(|taken| taken.name.clone()).collect(),
        other_than_wanted: of(&[Tightness::OtherThanWanted]),
        from_memory: keys.iter().filter(|key| fasteners::is_from_memory(job, key)).map(named).collect(),
        wrong_parts: parts::lines(job, &situation)
            .into_iter()
            .filter(|part| part.stops)
            .map(parts::PartLine::named)
            .collect(),
        unfit: unfit(job, &situation, &keys),
    }
}

/// What of the fit-up and of the fasteners is judged bad, each with its key. The eye's bolt is a fastener of both eyes
/// where they are in the plan, and is told there.
fn unfit(job: &Job, situation: &Situation, keys: &[&str]) -> Vec<Unfit> {
    let bad = |check: &FitCheck| check.verdict == FitVerdict::Bad;
    let unusable: Vec<FitCheck> =
        eyes(job).into_iter().flat_map(|end| crate::bracket::stack::unusable(job, end)).collect();
    let of_fasteners: Vec<Unfit> = keys
        .iter()
        .flat_map(|key| {
            let fastener = self::named(job, situation, key);
            let wrong_nut = fasteners::KnownFastener::of(job, key).nut_is_wrong();
            let named = |check: FitCheck| {
                let of = gate_keys::of_fastener(&fastener.in_gate_keys(), &check_in_gate_keys(&check));
                let fastener = BoltUpMessage::Fastener(fastener.clone()).into();
                let name = BoltUpMessage::OfFastener { fastener, check: check.name }.into();
                let unusable = wrong_nut || unusable.iter().any(|one| one.says == check.says);
                Unfit { key: format!("{key}/{of}"), check: FitCheck { name, ..check }, unusable }
            };
            let checks = fasteners::fits(job, key).into_iter().filter(bad);
            checks.map(named).collect::<Vec<_>>()
        })
        .collect();
    let reported = |check: &FitCheck| of_fasteners.iter().any(|other| other.check.says == check.says);
    let of_the_eye = fit(job, situation).into_iter().filter(|check| bad(check) && !reported(check));
    let of_the_eye = of_the_eye.map(|check| Unfit {
        key: format!("eye/{}", check_in_gate_keys(&check)),
        unusable: unusable.contains(&check),
        check,
    });
    of_the_eye.chain(of_fasteners.clone()).collect()
}

/// What a check of a fastener or of the eye's bolt is called in the keys of gates.
fn check_in_gate_keys(check: &FitCheck) -> String {
    match check.name.0.facts() {
        Some(BracketMessage::CheckName(check)) => check.in_gate_keys(),
        Some(BracketMessage::CheckNameAt { check, end }) => format!("{end:?}/{}", check.in_gate_keys()),
        _ => String::new(),
    }
}

/// Keys and names of the fasteners of a plan.
pub(crate) fn fastener_names(job: &Job, resolved: &Resolved) -> Vec<(String, FastenerName)> {
    let Plan { situation, tasks } = Plan::of(job, resolved);
    let keys = fasteners::keys(job, &tasks);
    keys.into_iter().map(|key| (key.to_owned(), named(job, &situation, key))).collect()
}

/// What a fastener is called: as a person named it, else as the plan does.
fn named(job: &Job, situation: &Situation, key: &str) -> FastenerName {
    match job.bolt_up.fastener(key).map(|form| form.name.trim()) {
        Some(name) if !name.is_empty() => FastenerName::Typed(name.to_owned()),
        _ => fasteners::named(situation, key).0,
    }
}

/// Whether the bar can be set as it is planned, or is set already.
fn can_be_set(bar: Option<&BarResult>) -> bool {
    let open = bar.and_then(|bar| bar.correction.as_ref()).filter(|correction| correction.set.is_none());
    open.is_none_or(|correction| {
        correction.covered != Some(false)
            && correction.setting.as_ref().is_none_or(|setting| can_be_followed(setting.facts.verdict))
    })
}

/// What in a person's order stands against a rule.
fn broken_rules(job: &Job, tasks: &[Task], does: &dyn Fn(&str) -> Message) -> Vec<BrokenRule> {
    order::broken(tasks, is_makers_order(job))
        .into_iter()
        .map(|fault| BrokenRule {
            says: BoltUpMessage::Broken {
                first: does(&fault.first),
                then: does(&fault.then),
                why: fault.rule,
            }
            .into(),
            rule: fault.rule,
            first: fault.first,
            then: fault.then,
        })
        .collect()
}

/// Nothing is undone for a length that leads into something: every open step stops until that is chosen.
fn stop_for(choice: &Message, steps: &mut [StepLine]) {
    for step in steps.iter_mut().filter(|step| matches!(step.state, StepState::Ready | StepState::Waits)) {
        step.state = StepState::Stopped;
        step.minds.insert(0, choice.clone());
    }
}

/// Works the plan of work out. Never fails: where nothing is chosen it says so.
#[must_use]
pub fn work(
    job: &Job,
    resolved: &Resolved,
    bar: Option<&BarResult>,
    (legs, link): (Vec<Message>, Option<Message>),
) -> WorkResult {
    let Plan { situation, tasks } = Plan::of(job, resolved);
    let reported = Arc::new(context(job, resolved, &situation, bar, (legs, link)));
    let facts: Vec<StepFacts> =
        tasks.iter().map(|task| StepFacts { what: task.what.clone(), of: reported.clone() }).collect();
    let does = |key: &str| {
        let found = tasks.iter().position(|task| task.key == key);
        found.map_or(Message::NOTHING, |index| BoltUpMessage::Does(facts[index].clone()).into())
    };
    let mut steps: Vec<StepLine> = tasks
        .iter()
        .zip(&facts)
        .map(|(task, facts)| step_line(job, (&situation, &tasks), task, facts, &does))
        .collect();
    call_by_ids(job, &mut steps, (bar, &reported));
    let choice = bar
        .and_then(|bar| bar.correction.as_ref())
        .filter(|correction| correction.decide_first)
        .map(|correction| correction.says.clone());
    if let Some(choice) = &choice {
        stop_for(choice, &mut steps);
    }
    let open = steps.iter().find(|step| matches!(step.state, StepState::Ready | StepState::Stopped));
    let open = open.or_else(|| steps.iter().find(|step| step.state == StepState::Waits));
    let done = tasks.iter().filter(|task| is_closed(job.bolt_up.step(&task.key))).count();
    let minds = if tasks.is_empty() {
        Some(BoltUpMessage::NothingYet.into())
    } else {
        choice.clone().or_else(|| (!can_be_set(bar)).then(|| BoltUpMessage::Refused.into()))
    };
    let gates = tasks.iter().any(|task| matches!(task.what, What::MockUp));
    WorkResult {
        says: choice.as_ref().map_or_else(
            || BoltUpMessage::Says { of: steps.len(), next: open.map(|step| step.does.clone()) }.into(),
            |_| BoltUpMessage::ChooseFirst.into(),
        ),
        minds,
        next: open.filter(|_| choice.is_none()).map(|step| step.key.clone()),
        done,
        gone: gone(job, &tasks),
        broken: broken_rules(job, &tasks, &does),
        parts: parts::lines(job, &situation),
        fit: fit(job, &situation),
        fasteners: fasteners::lines(job, &situation, &tasks),
        tools: tools::lines(job, &situation, &tasks),
        drills: drills(job),
        cuts: cuts::lines(job, &situation),
        mock_up: gates.then(|| mock_up(job, &situation)),
        mock_up_asks: if gates { asks_of_mock_up(&situation) } else { Vec::new() },
        corners: corners(job).map(|(says, _)| says),
        steps,
    }
}

/// Gives each step its sentence with ids in place of names, where a job calls a row otherwise than its id.
fn call_by_ids(job: &Job, steps: &mut [StepLine], (bar, reported): (Option<&BarResult>, &StepContext)) {
    let Some(job) = job.called_by_ids() else { return };
    let resolved = Resolved::of(&job);
    let Plan { situation, tasks } = Plan::of(&job, &resolved);
    let reported =
        Arc::new(context(&job, &resolved, &situation, bar, (reported.legs.clone(), reported.link.clone())));
    for task in tasks {
        if let Some(step) = steps.iter_mut().find(|step| step.key == task.key) {
            step.by_ids =
                Some(BoltUpMessage::Does(StepFacts { what: task.what, of: reported.clone() }).into());
        }
    }
}

/// What the sentences need of the other stages, as those say it.
fn context(
    job: &Job,
    resolved: &Resolved,
    situation: &Situation,
    bar: Option<&BarResult>,
    (legs, link): (Vec<Message>, Option<Message>),
) -> StepContext {
    let correction = bar.and_then(|bar| bar.correction.as_ref());
    let setting = correction.filter(|correction| correction.set.is_none()).and_then(|c| c.setting.as_ref());
    let setting = setting.map_or_else(Vec::new, |setting| match &setting.bench {
        Some(bench) => bench.says.clone(),
        None => setting.turns_say.iter().chain([&setting.says]).cloned().collect(),
    });
    let side_of = |end| job.rig.frame_eye_side.map(|side| moves::side_of(end, side));
    StepContext {
        situation: situation.clone(),
        sides: side_of(BracketEnd::Frame).zip(side_of(BracketEnd::Axle)).map(<[Side; 2]>::from),
        steered: job.rig.is_steered(),
        driver: job.rig.steering_side,
        cut: resolved.setups().and_then(|setups| crate::bracket::cut_of_stock(job, setups)),
        stick_out: splined_stick_out(job, resolved),
        driven: height_of(&job.rig, &job.rig.driven_height).map(|height| height.name.clone()),
        setting,
        eye: bar.and_then(|bar| eye_off(job, resolved.setups()?, situation.turns_the_sleeve(), bar)),
        readings: correction.and_then(|correction| correction.readings_say.clone()),
        legs,
        link,
        first_bracket: (situation.first_frame_bracket && situation.at(BracketEnd::Frame).is_some()).then(
            || {
                let room = length_of(&job.bracket.first_bracket_room).unwrap_or(defaults::FIRST_BRACKET_ROOM);
                FirstBracket { room, way: axle_way(job, resolved.measured_setups()) }
            },
        ),
    }
}

/// How far a splined sway bar sticks out of the frame, each side.
fn splined_stick_out(job: &Job, resolved: &Resolved) -> Option<Length> {
    let sway = Some(&resolved.sway.plan).filter(|sway| sway.kind == Some(SwayKind::Splined))?;
    let out = stick_out(length_of(&sway.active_length)?, length_of(&job.rig.frame_width)?);
    Some(out).filter(|out| *out > Length::ZERO)
}

/// How far the axle is from where its eye meets the hole: on its weight, and at full droop, where the bar comes so far.
/// A bar whose sleeve is turned once it hangs goes in as long as it is. At full droop the old bar holds nothing any
/// more: the axle hangs somewhere between where the old bar had it there and where it stood on its wheels.
fn eye_off(job: &Job, setups: &Setups, as_it_is: bool, bar: &BarResult) -> Option<Message> {
    bar.correction.as_ref()?;
    let set = &setups.plan.view;
    let hung = if as_it_is { set.with_length(setups.base.view.length()).ok()? } else { *set };
    let driven = -crate::document::heights::driven_offset(&job.rig);
    let near =
        |sample: &&derecho_core::bar::sweep::Sample| ((sample.travel_mm - driven).to_mm().abs() * 1e3) as i64;
    let stands = bar.sweep.iter().min_by_key(near)?;
    let (droop, _) = crate::document::heights::travel(&job.rig);
    let hangs = bar.sweep.first().filter(|sample| (sample.travel_mm + droop).abs() < defaults::AS_WANTED);
    // Where the new bar has the axle in a pose, less where the axle is, + to the left.
    let off = |sample: &derecho_core::bar::sweep::Sample, axle: Length| {
        let travel = sample.travel_mm - driven;
        let longer = hung.reach_at(travel) - set.reach_at(travel);
        sample.planned_mm - axle - longer * set.frame_eye_side().sign()
    };
    let droop = hangs.map(|hangs| [off(hangs, hangs.found_mm), off(hangs, stands.found_mm)]);
    Some(
        BoltUpMessage::EyeOff {
            stands: off(stands, stands.found_mm),
            droop,
            steered: job.rig.is_steered(),
            driver: job.rig.steering_side,
        }
        .into(),
    )
}

/// Whether another open step that comes first itself waits for this one: then only that is told.
fn implied(job: &Job, tasks: &[Task], task: &Task, key: &str) -> bool {
    let open = |key: &str| !is_closed(job.bolt_up.step(key));
    let others = task.after.iter().map(|(other, _)| &**other);
    let mut waiting: Vec<&str> = others.filter(|other| *other != key && open(other)).collect();
    let mut seen: Vec<&str> = Vec::new();
    while let Some(other) = waiting.pop() {
        if seen.contains(&other) {
            continue;
        }
        seen.push(other);
        let before = tasks.iter().find(|task| task.key == other);
        for (first, _) in before.into_iter().flat_map(|before| &before.after) {
            if first == key {
                return true;
            }
            if open(first) {
                waiting.push(first);
            }
        }
    }
    false
}

/// Why an open step should not be done as the vehicle stands now; `ready` where no other one comes first.
fn stands_in_the_way(job: &Job, situation: &Situation, task: &Task, ready: bool) -> Vec<Message> {
    let mut minds = Vec::new();
    let wrong = task.stands.zip(job.bolt_up.stands).filter(|(wanted, now)| wanted != now && ready);
    // Letting it down is how it comes to stand so.
    minds.extend(
        wrong
            .filter(|_| task.what != What::OnItsWeight)
            .map(|(wanted, _)| BoltUpMessage::StandOtherwise { wanted }.into()),
    );
    if task.what == What::MockUp && !open_of_mock_up(job, situation).is_empty() {
        minds.push(mock_up(job, situation));
    }
    if task.what == What::PutBack {
        minds.extend(still_off(job));
    }
    minds
}

/// Why an open step stops: a part that isn't there or is wrong, a nut that doesn't fit its stud.
fn stops(job: &Job, situation: &Situation, task: &Task) -> Vec<Message> {
    let wrong = task.tightens.iter().chain(&task.starts);
    let wrong = wrong.filter(|key| fasteners::KnownFastener::of(job, key).nut_is_wrong());
    let nuts = wrong.map(|key| BoltUpMessage::WrongNut { name: fasteners::named(situation, key).0 }.into());
    let differ = job.bracket.eyes_differ();
    let ends = task.tightens.iter().chain(&task.starts).filter_map(|key| situation::end_of(key));
    let eyes: Vec<Option<BracketEnd>> =
        if differ { ends.map(Some).collect() } else { ends.take(1).map(|_| None).collect() };
    let bolts = eyes.into_iter().flat_map(|end| crate::bracket::stack::unusable(job, end));
    let bolts = bolts.map(|check| BoltUpMessage::BoltDoesNotFit { check: Box::new(check) }.into());
    let gap = match (&task.what, situation.gap) {
        (What::Kind(KindStep::BuiltBar(built_bar::Step::Cut)), PlannedGap::TapeAgain) => {
            Some(BracketMessage::TapeTheGap.into())
        }
        (What::Kind(KindStep::BuiltBar(built_bar::Step::Cut)), PlannedGap::Disagrees { off, wanted, .. }) => {
            Some(BracketMessage::GapIsOff { off, wanted }.into())
        }
        _ => None,
    };
    let straps = match task.what {
        What::Kind(KindStep::Straps(_)) => situation.straps().and_then(straps_wrong),
        _ => None,
    };
    parts::stopped(job, situation, &task.what)
        .into_iter()
        .chain(gap)
        .chain(straps)
        .chain(nuts)
        .chain(bolts)
        .collect()
}

/// Straps that catch nothing, or take the travel away, are not hung.
fn straps_wrong(straps: Straps) -> Option<Message> {
    let (before, slack) = (straps.before_droop(), straps.slack());
    let too_long = before.filter(|before| *before <= Length::ZERO);
    let too_short = slack.filter(|slack| *slack <= Length::ZERO);
    too_long
        .map(|by| BoltUpMessage::StrapsTooLong { by: -by }.into())
        .or_else(|| too_short.map(|by| BoltUpMessage::StrapsTooShort { by: -by }.into()))
}

fn step_line(
    job: &Job,
    (situation, tasks): (&Situation, &[Task]),
    task: &Task,
    facts: &StepFacts,
    does: &dyn Fn(&str) -> Message,
) -> StepLine {
    let record = job.bolt_up.step(&task.key);
    let waits: Vec<Waits> = task
        .after
        .iter()
        .filter(|(key, _)| !implied(job, tasks, task, key))
        .filter(|(key, rule)| rules_here(job, *rule) && !is_closed(job.bolt_up.step(key)))
        .map(|(key, rule)| Waits {
            key: key.to_string(),
            rule: *rule,
            says: BoltUpMessage::Waits { first: does(key), why: *rule }.into(),
        })
        .collect();
    let done = record.and_then(|record| record.done.as_ref());
    let struck = record.is_some_and(|record| !record.struck.trim().is_empty());
    let open = done.is_none() && !struck;
    let mut minds = if open { stops(job, situation, task) } else { Vec::new() };
    let stopped = !minds.is_empty();
    if open {
        minds.extend(stands_in_the_way(job, situation, task, waits.is_empty()));
    }
    StepLine {
        key: task.key.to_string(),
        how: facts.has_how().then(|| BoltUpMessage::How(facts.clone()).into()),
        because: BoltUpMessage::Because(facts.clone()).into(),
        caution: facts.has_caution().then(|| BoltUpMessage::Caution(facts.clone()).into()),
        stands: task.stands,
        stands_says: BoltUpMessage::HowItStands(task.stands).into(),
        tightens: task.tightens.iter().map(ToString::to_string).collect(),
        starts: task.starts.iter().map(ToString::to_string).collect(),
        state: match done {
            _ if struck => StepState::Struck,
            Some(_) => StepState::Done,
            None if stopped => StepState::Stopped,
            None if waits.is_empty() => StepState::Ready,
            None => StepState::Waits,
        },
        reported: record
            .zip(done)
            .map_or_else(Vec::new, |(record, done)| otherwise(job, situation, task, (record, done), does)),
        waits: if open { waits } else { Vec::new() },
        minds,
        does: BoltUpMessage::Does(facts.clone()).into(),
        by_ids: None,
        own: matches!(task.what, What::Own { .. }),
    }
}

/// Whether the order in the job is the maker's.
fn is_makers_order(job: &Job) -> bool {
    job.bolt_up.makers_order == Some(true) && !job.bolt_up.order.is_empty()
}

/// Whether a rule holds in a job: what is only usual yields to the maker's order.
fn rules_here(job: &Job, rule: Rule) -> bool {
    rule.is_firm() || !is_makers_order(job)
}

/// What was done otherwise than the plan has it.
fn otherwise(
    job: &Job,
    situation: &Situation,
    task: &Task,
    (record, done): (&StepRecord, &Mark),
    does: &dyn Fn(&str) -> Message,
) -> Vec<Message> {
    let mut reported = Vec::new();
    for (key, rule) in task.after.iter().filter(|(_, rule)| rules_here(job, *rule)) {
        let first = job.bolt_up.step(key);
        let later = match first.and_then(|first| first.done.as_ref()) {
            Some(first) => first.at > done.at,
            None => !is_closed(first),
        };
        if later {
            reported.push(BoltUpMessage::DoneBefore { first: does(key), why: *rule }.into());
        }
    }
    if let (Some(stood), Some(wanted)) = (record.stood, task.stands)
        && stood != wanted
        && task.what != What::OnItsWeight
    {
        reported.push(BoltUpMessage::StoodOtherwise { stood, wanted }.into());
    }
    if !record.against.trim().is_empty() {
        reported.push(BoltUpMessage::Reason { text: record.against.clone() }.into());
    }
    for key in &task.tightens {
        if fasteners::tightness(job, key) == Tightness::Open {
            reported.push(BoltUpMessage::NoTorque { name: fasteners::named(situation, key).0 }.into());
        }
    }
    reported
}

/// Ticked steps that the plan has no more.
fn gone(job: &Job, tasks: &[Task]) -> Vec<Message> {
    let known = |key: &str| tasks.iter().any(|task| task.key == key);
    let gone = job.bolt_up.steps.iter().filter(|record| record.done.is_some() && !known(&record.key));
    gone.map(|record| BoltUpMessage::Gone { read: record.read.clone() }.into()).collect()
}

/// Joint and spacers, and the eye's bolt, where an eye is bolted anew.
fn fit(job: &Job, situation: &Situation) -> Vec<FitCheck> {
    if ![BracketEnd::Frame, BracketEnd::Axle].into_iter().any(|end| situation.is_undone(end)) {
        return Vec::new();
    }
    let undone = eyes(job).into_iter().filter(|end| end.is_none_or(|end| situation.is_undone(end)));
    undone
        .flat_map(|end| ears(job, end).into_iter().chain(crate::bracket::stack::checks(job, end)))
        .chain(parallel(job))
        .collect()
}

fn drills(job: &Job) -> Vec<DrillLine> {
    let forms = job.bolt_up.drills.iter();
    forms
        .map(|drill| DrillLine {
            name: drill.name.clone(),
            says: BoltUpMessage::Drill { size: drill_size(drill) }.into(),
        })
        .collect()
}

/// What a mock-up of this plan asks for.
fn asks_of_mock_up(situation: &Situation) -> Vec<MockUpOpen> {
    if situation.mocks_up_the_axle() {
        vec![MockUpOpen::CornersEqual, MockUpOpen::Strapped, MockUpOpen::RepeatsAgree, MockUpOpen::Cycled]
    } else {
        vec![MockUpOpen::Cycled]
    }
}

fn open_of_mock_up(job: &Job, situation: &Situation) -> Vec<MockUpOpen> {
    let reported = job.bolt_up.mock_up.unwrap_or_default();
    let stands = |ask: &MockUpOpen| match ask {
        MockUpOpen::CornersEqual => reported.corners_equal,
        MockUpOpen::Strapped => reported.strapped,
        MockUpOpen::RepeatsAgree => reported.repeats_agree,
        MockUpOpen::Cycled => reported.cycled,
    };
    asks_of_mock_up(situation).into_iter().filter(|ask| !stands(ask)).collect()
}

fn mock_up(job: &Job, situation: &Situation) -> Message {
    let reported = BoltUpMessage::MockUp { open: open_of_mock_up(job, situation) }.into();
    // A tick that the tape contradicts is no tick.
    let corners = &job.bolt_up.corners_before;
    let apart = |name: &str, left: &Option<TapeEntry>, right: &Option<TapeEntry>| {
        let apart = (length_of(left)? - length_of(right)?).abs();
        (apart > defaults::HEIGHT_CHANGED)
            .then(|| BoltUpMessage::CornersApart { name: name.to_owned(), apart }.into())
    };
    let apart = [
        apart("front", &corners.left_front, &corners.right_front),
        apart("rear", &corners.left_rear, &corners.right_rear),
    ];
    BoltUpMessage::InARow { phrases: [reported].into_iter().chain(apart.into_iter().flatten()).collect() }
        .into()
}

fn still_off(job: &Job) -> Option<Message> {
    let off = job
        .bolt_up
        .taken_off
        .iter()
        .filter(|taken| taken.back.is_none() && taken.stays_off.trim().is_empty());
    let names: Vec<String> = off.map(|taken| taken.name.clone()).collect();
    (!names.is_empty()).then(|| BoltUpMessage::StillOff { names }.into())
}

/// How it stands against before, and whether that is otherwise; None where it was not read twice.
#[must_use]
pub fn corners(job: &Job) -> Option<(Message, bool)> {
    let (before, after) = (job.bolt_up.corners_before.each(), job.bolt_up.corners_after.each());
    let read: Vec<(&str, Length)> = before
        .iter()
        .zip(after)
        .filter_map(|((_, name, before), (_, _, after))| {
            Some((*name, after?.length() - before.as_ref()?.length()))
        })
        .collect();
    if read.is_empty() {
        return None;
    }
    let moved: Vec<Message> = read
        .into_iter()
        .filter(|(_, change)| change.abs() > defaults::HEIGHT_CHANGED)
        .map(|(name, change)| BoltUpMessage::CornerMoved { name: name.to_owned(), change }.into())
        .collect();
    let otherwise = !moved.is_empty();
    Some((
        if otherwise {
            BoltUpMessage::CornersMoved { moved }.into()
        } else {
            BoltUpMessage::CornersAlike.into()
        },
        otherwise,
    ))
}
