//! The plan of work with its ticks held against what was read when they were made.

use derecho_core::measure::Phrase;
use derecho_job::Job;
use derecho_job::bolt_up::message::BoltUpMessage;
use derecho_job::bolt_up::{StepLine, StepState, WorkResult};
use derecho_job::results::Everything;
use derecho_words::{marked, say};

use crate::settled::stands;
use crate::ticked::asks_the_same;

/// Stage Bolt-up of a job by itself.
#[must_use]
pub fn work(job: &Job) -> WorkResult {
    let mut work = derecho_job::results::work(job);
    hold_against_ticks(job, &mut work);
    work
}

/// Computes everything, the whole envelope included.
#[must_use]
pub fn everything(job: &Job) -> Everything {
    let mut everything = derecho_job::results::everything(job, stands);
    hold_against_ticks(job, &mut everything.work);
    everything
}

/// A tick keeps the sentence it was made by. Sentences are worded better from time to time, and in each country's own
/// words: what is compared is what somebody did by them.
fn hold_against_ticks(job: &Job, work: &mut WorkResult) {
    for step in &mut work.steps {
        let does = marked(&step.does);
        step.by_ids = step.by_ids.take().filter(|by_ids| say(by_ids) != say(&step.does));
        was_changed(job, step, &does);
    }
}

/// A ticked step that asks for something else now than when it was ticked, names apart.
fn was_changed(job: &Job, step: &mut StepLine, does: &Phrase) {
    let Some(record) = job.bolt_up.step(&step.key).filter(|_| step.state == StepState::Done) else { return };
    let by_ids = step.by_ids.as_ref().map_or_else(|| does.clone(), marked);
    let changed = if record.by_ids.is_empty() {
        // Rows of older files have their names of then for ids.
        asks_otherwise(does, &record.read) && asks_otherwise(&by_ids, &record.read)
    } else {
        asks_otherwise(&by_ids, &record.by_ids)
    };
    if changed {
        step.state = StepState::Changed;
        step.reported.insert(0, BoltUpMessage::Changed { read: record.read.clone() }.into());
    }
}

/// Whether a step asks for something else than it did when it was ticked, in either unit.
fn asks_otherwise(does: &Phrase, read: &str) -> bool {
    !read.is_empty() && !asks_the_same(&does.inches, read) && !asks_the_same(&does.millimetres, read)
}
