//! The order of the steps: a topological sort over the rules, and a person's or a maker's order held against them.

use super::tasks::Task;
use crate::work::rules::Rule;

/// A pair of steps that stand the wrong way round.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Broken {
    /// Why it is wrong.
    pub rule: Rule,
    /// The step that comes first by that rule.
    pub first: String,
    /// The one that stands before it.
    pub then: String,
}

/// Steps in an order that keeps every rule: of those that may come next, always the one the plan names first. Steps
/// that wait for one another in a ring stand at the end as they came; the rules have none.
#[must_use]
pub fn sorted(tasks: Vec<Task>) -> Vec<Task> {
    let index = |key: &str| tasks.iter().position(|task| task.key == key);
    let mut before: Vec<Vec<usize>> =
        tasks.iter().map(|task| task.after.iter().filter_map(|(key, _)| index(key)).collect()).collect();
    let mut waiting: Vec<Option<Task>> = tasks.into_iter().map(Some).collect();
    let mut done: Vec<Task> = Vec::with_capacity(waiting.len());
    while done.len() < waiting.len() {
        let free = |&next: &usize| waiting[next].is_some() && before[next].is_empty();
        let next = (0..waiting.len()).find(free).or_else(|| waiting.iter().position(Option::is_some));
        let Some((next, task)) = next.and_then(|next| Some((next, waiting[next].take()?))) else { break };
        done.push(task);
        before.iter_mut().for_each(|before| before.retain(|first| *first != next));
    }
    done
}

/// The steps in a person's order: those that are named as they are named, the others where the plan has them, behind
/// the step that stands before them there.
#[must_use]
pub fn arranged(tasks: Vec<Task>, order: &[String]) -> Vec<Task> {
    if order.is_empty() {
        return tasks;
    }
    let place = |key: &str| order.iter().position(|named| named == key);
    let mut last = None;
    let mut keyed: Vec<(Option<usize>, usize, Task)> = Vec::with_capacity(tasks.len());
    for (index, task) in tasks.into_iter().enumerate() {
        let own = place(&task.key);
        last = own.or(last);
        keyed.push((last, index, task));
    }
    // A step that is named stands before those that only follow it.
    keyed.sort_by_key(|(at, index, task)| (*at, place(&task.key).is_none(), *index));
    keyed.into_iter().map(|(_, _, task)| task).collect()
}

/// Every pair of steps that stands against a rule; what is only usual yields to a maker's order.
#[must_use]
pub fn broken(tasks: &[Task], makers: bool) -> Vec<Broken> {
    let mut faults = Vec::new();
    for (index, task) in tasks.iter().enumerate() {
        for (first, rule) in &task.after {
            let later = tasks[index + 1..].iter().any(|other| other.key == *first);
            if later && (rule.is_firm() || !makers) {
                faults.push(Broken { rule: *rule, first: first.to_string(), then: task.key.to_string() });
            }
        }
    }
    faults
}
