//! The eye's bolt reckoned: whether nut and hole are its own, how long it must be, whether it comes out again, and
//! how the torque that was given stands to what it carries.
//!
//! Not here: what the joint holds by friction (`compare`), and the formulas (core).

use super::fit::named;
use crate::bracket::message::{BracketCheck, BracketMessage};
use crate::defaults;
use crate::document::bracketing::EyeBolt;
use crate::document::{Job, length_of};
use crate::verdict::{FitCheck, FitVerdict, check};
use derecho_core::fastener::Thread;
use derecho_core::fastener::stack::{NutKind, Reckoned, Stack, StackFault, reckon};
use derecho_core::fastener::strength::{TorqueStands, reference_torque, torque_stands};
use derecho_core::measure::phrase::{Step, Value};
use derecho_core::measure::{Heading, Length, Meaning, TapeEntry, TorqueEntry, Working};
use derecho_core::parts::BracketEnd;

/// Threads that show past a nut; without them it is full still.
const SHOWN: f64 = 2.0;

/// One eye, or both where they are alike: its bolt, and the width between its ears.
#[derive(Clone, Copy)]
struct Eye<'a> {
    end: Option<BracketEnd>,
    bolt: &'a EyeBolt,
    between: Option<Length>,
}

impl<'a> Eye<'a> {
    fn of(job: &'a Job, end: Option<BracketEnd>) -> Self {
        let form = &job.bracket;
        let (bolt, between) = match end {
            Some(end) => (form.bolt_at(end), form.ear_width_at(end)),
            None => (&form.bolt, form.ear_width.as_ref()),
        };
        Self { end, bolt, between: between.map(TapeEntry::length) }
    }

    const fn named(&self, check: BracketCheck) -> BracketMessage {
        named(check, self.end)
    }
}

/// Everything that can be told of the bolt of one eye, or of either where both are alike, in the order in which it
/// matters; empty where no thread was named.
pub(crate) fn checks(job: &Job, end: Option<BracketEnd>) -> Vec<FitCheck> {
    let eye = Eye::of(job, end);
    let Some(thread) = eye.bolt.thread.as_ref() else { return Vec::new() };
    let stack = stack(eye, thread);
    let reported = stack.as_ref().map(reckon);
    [
        nut(eye, thread),
        hole(eye, thread),
        length(eye, stack.as_ref().zip(reported.as_ref())),
        torque(eye, thread),
    ]
    .into_iter()
    .flatten()
    .collect()
}

/// What keeps the bolt of one eye, or of either where both are alike, from holding at all: a nut of another thread, a hole
/// it does not go through, a nut that is not full of thread or runs out of it before it holds.
pub(crate) fn unusable(job: &Job, end: Option<BracketEnd>) -> Vec<FitCheck> {
    let eye = Eye::of(job, end);
    let Some(thread) = eye.bolt.thread.as_ref() else { return Vec::new() };
    let stack = stack(eye, thread);
    let reported = stack.as_ref().map(reckon);
    let holds_not = |fault: &StackFault| match fault {
        StackFault::TooShort(by) => *by > thread.pitch() * SHOWN,
        StackFault::NutOnShank(_) => true,
        _ => false,
    };
    let short = reported.as_ref().is_some_and(|reported| reported.faults.iter().any(holds_not));
    let narrow = length_of(&eye.bolt.hole).is_some_and(|hole| hole < thickness(eye.bolt, thread));
    [
        nut(eye, thread).filter(|check| check.verdict == FitVerdict::Bad),
        hole(eye, thread).filter(|_| narrow),
        length(eye, stack.as_ref().zip(reported.as_ref())).filter(|_| short),
    ]
    .into_iter()
    .flatten()
    .collect()
}

/// What is on the bolt; None until ear and the width between the ears are measured.
fn stack(eye: Eye<'_>, thread: &Thread) -> Option<Stack> {
    let form = eye.bolt;
    let (ear, between) = (length_of(&form.ear)?, eye.between?);
    Some(Stack {
        bolt: thread.clone(),
        clamped: vec![ear, between, ear],
        washers: length_of(&form.washer).map_or_else(Vec::new, |washer| vec![washer; 2]),
        nut: form.nut,
        nut_thread: form.nut_thread.clone(),
        nut_height: length_of(&form.nut_height),
        hole: length_of(&form.hole),
        length: length_of(&form.length),
        threaded: length_of(&form.threaded),
        room_at_head: length_of(&form.room_at_head),
        room_at_nut: length_of(&form.room_at_nut),
    })
}

fn nut(eye: Eye<'_>, thread: &Thread) -> Option<FitCheck> {
    let nut = eye.bolt.nut_thread.as_ref()?;
    let own = nut.takes(thread);
    let verdict = if own { FitVerdict::Good } else { FitVerdict::Bad };
    Some(check(
        eye.named(BracketCheck::Nut),
        verdict,
        BracketMessage::Nut { nut: nut.clone(), bolt: thread.clone(), own },
    ))
}

/// A bolt's diameter: as measured, else its thread's.
fn thickness(bolt: &EyeBolt, thread: &Thread) -> Length {
    length_of(&bolt.diameter).unwrap_or(thread.diameter())
}

fn hole(eye: Eye<'_>, thread: &Thread) -> Option<FitCheck> {
    let play = length_of(&eye.bolt.hole)? - thickness(eye.bolt, thread);
    let too_wide = play > defaults::EYE_PLAY;
    let verdict = if play < Length::ZERO || too_wide { FitVerdict::Bad } else { FitVerdict::Good };
    Some(check(eye.named(BracketCheck::Hole), verdict, BracketMessage::Hole { play, too_wide }))
}

fn length(eye: Eye<'_>, reckoned: Option<(&Stack, &Reckoned)>) -> Option<FitCheck> {
    let form = eye.bolt;
    let asked = form.ear.is_some() || form.length.is_some();
    let Some((stack, reported)) = reckoned else {
        return asked.then(|| {
            check(eye.named(BracketCheck::BoltLength), FitVerdict::Open, BracketMessage::BoltUnmeasured)
        });
    };
    Some(FitCheck { name: eye.named(BracketCheck::BoltLength).into(), ..length_of_stack(stack, reported) })
}

/// How long the bolt of a stack must be, and what is wrong with the one that is there.
pub(crate) fn length_of_stack(stack: &Stack, reported: &Reckoned) -> FitCheck {
    let says =
        BracketMessage::BoltLength { reported: Box::new(reported.clone()), stack: Box::new(stack.clone()) }
            .into();
    let faults: Vec<&StackFault> = reported.faults.iter().filter(|fault| is_of_length(fault)).collect();
    if !faults.is_empty() {
        let reported =
            faults.iter().map(|fault| BracketMessage::StackFault { fault: *(*fault) }.into()).chain([says]);
        return check(
            BracketMessage::CheckName(BracketCheck::BoltLength),
            FitVerdict::Bad,
            BracketMessage::InARow { parts: reported.collect() },
        );
    }
    let verdict = if stack.length.is_some() { FitVerdict::Good } else { FitVerdict::Open };
    check(BracketMessage::CheckName(BracketCheck::BoltLength), verdict, says)
}

/// Nut and hole have lines of their own.
const fn is_of_length(fault: &StackFault) -> bool {
    !matches!(fault, StackFault::WrongNut | StackFault::HoleTooSmall(_) | StackFault::HoleTooWide(_))
}

fn torque(eye: Eye<'_>, thread: &Thread) -> Option<FitCheck> {
    let form = eye.bolt;
    // A castle nut on a taper is drawn up until the taper seats: what a bolt would be clamped with says nothing of it.
    if form.nut == NutKind::Castle {
        return None;
    }
    let (grade, given) = (form.grade?, form.torque.as_ref().map(TorqueEntry::torque));
    let usual = reference_torque(thread, grade, form.treatment);
    let stands = given.map(|given| torque_stands(given, thread, grade, form.treatment));
    let verdict = match stands {
        None => FitVerdict::Open,
        Some(TorqueStands::Usual) => FitVerdict::Good,
        Some(_) => FitVerdict::Bad,
    };
    Some(check(
        eye.named(BracketCheck::Torque),
        verdict,
        BracketMessage::Torque {
            usual,
            thread: thread.clone(),
            grade,
            treatment: form.treatment,
            given: given.zip(stands),
        },
    ))
}

/// From the parts on the bolt of one eye, or of either, to its length.
pub(super) fn working(job: &Job, end: Option<BracketEnd>) -> Option<Working> {
    let eye = Eye::of(job, end);
    let stack = stack(eye, eye.bolt.thread.as_ref()?)?;
    let reported = reckon(&stack);
    let washers = stack.washers.iter().copied().sum::<Length>();
    let diameter = stack.bolt.diameter();
    let nut = stack.nut_height.unwrap_or(diameter * stack.nut.usual_height());
    let length = Value::Length;
    Some(Working {
        title: Heading::BoltLength,
        steps: vec![
            Step::new(
                Meaning::Grip,
                "grip = 2 · {ear} + {between}",
                &[("ear", length(stack.clamped[0])), ("between", length(stack.clamped[1]))],
                length(reported.grip),
            ),
            Step::new(
                Meaning::ShortestBolt,
                "L = {grip} + {washers} + {nut} + 2 · {p}",
                &[
                    ("grip", length(reported.grip)),
                    ("washers", length(washers)),
                    ("nut", length(nut)),
                    ("p", length(stack.bolt.pitch())),
                ],
                length(reported.needed),
            ),
        ],
    })
}
