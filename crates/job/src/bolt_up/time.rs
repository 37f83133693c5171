//! How long steps took, by the times at which they were ticked.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::tasks::DRILL;
use crate::document::Job;

/// Every hole that is drilled, as one kind of step.
const DRILLED: &str = "drill";

/// Two ticks further apart than this have a night or another job between them, minutes.
const BREAK: f64 = 180.0;

/// How long a step takes by what is on record.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepTime {
    /// The step's key; holes are all of one kind.
    pub key: String,
    /// The middle one of all times on record, minutes.
    pub minutes: f64,
    /// Of how many it is the middle.
    pub of: usize,
}

/// Minutes that each step of a job took: from the tick before it to its own. The first one has none before it.
#[must_use]
pub fn took(job: &Job) -> Vec<(String, f64)> {
    let done =
        |record: &crate::document::work::StepRecord| Some((record.done.as_ref()?.at, record.key.clone()));
    let mut ticks: Vec<_> = job.bolt_up.steps.iter().filter_map(done).collect();
    ticks.sort();
    let pairs = ticks.windows(2);
    pairs
        .filter_map(|pair| {
            let minutes = pair[1].0.duration_since(pair[0].0).as_secs_f64() / 60.0;
            (minutes <= BREAK).then(|| (pair[1].1.clone(), minutes))
        })
        .collect()
}

/// The middle of all times of each step, of what every job of a shop [`took`].
#[must_use]
pub fn usual<'a>(times: impl Iterator<Item = &'a (String, f64)>) -> Vec<StepTime> {
    let mut all: BTreeMap<String, Vec<f64>> = BTreeMap::new();
    for (key, minutes) in times {
        let kind = if key.starts_with(DRILL) { DRILLED } else { key };
        all.entry(kind.to_owned()).or_default().push(*minutes);
    }
    all.into_iter()
        .map(|(key, mut times)| {
            times.sort_by(f64::total_cmp);
            let (low, high) = (times[(times.len() - 1) / 2], times[times.len() / 2]);
            StepTime { key, minutes: low.midpoint(high), of: times.len() }
        })
        .collect()
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;
    use serde_json::json;

    fn job(ticks: &[(&str, &str)]) -> Job {
        let steps: Vec<_> = ticks
            .iter()
            .map(|(key, at)| json!({ "key": key, "done": { "at": format!("2026-11-25T{at}:00Z") } }))
            .collect();
        serde_json::from_value(
            json!({ "format": "derecho-job", "version": 7, "title": "one", "bolt_up": { "steps": steps } }),
        )
        .unwrap()
    }

    /// Ticked at 8:00, 8:12, 8:40 and, after a long break, at 13:00.
    #[test]
    fn a_step_takes_from_the_tick_before_it() {
        let job =
            job(&[("bar/out", "08:12"), ("stands", "08:00"), ("bar/bench", "08:40"), ("witness", "13:00")]);
        assert_eq!(took(&job), [("bar/out".to_owned(), 12.0), ("bar/bench".to_owned(), 28.0)]);
    }

    /// Of 10, 12 and 40 minutes the middle is 12; of 10 and 12 it is 11. Holes count together.
    #[test]
    fn the_middle_of_all_times() {
        let of = |minutes: &str, key: &str| job(&[("stands", "08:00"), (key, minutes)]);
        let jobs = [of("08:12", "bar/out"), of("08:40", "bar/out"), of("08:10", "bar/out")];
        let usual_of = |jobs: &[Job]| {
            let times: Vec<_> = jobs.iter().flat_map(took).collect();
            usual(times.iter()).into_iter().map(|time| (time.key, time.minutes, time.of))
        };
        assert_eq!(usual_of(&jobs).collect::<Vec<_>>(), [("bar/out".to_owned(), 12.0, 3)]);
        let two = [jobs[0].clone(), jobs[2].clone()];
        assert_eq!(usual_of(&two).next().unwrap().1, 11.0);
        let holes = [of("08:06", "drill/0"), of("08:08", "drill/1")];
        assert_eq!(usual_of(&holes).collect::<Vec<_>>(), [("drill".to_owned(), 7.0, 2)]);
    }
}
