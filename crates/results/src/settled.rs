//! Settling: the copy of the results a job is settled on, and whether it still agrees with what is found.

use derecho_core::measure::said::written_without_words;
use derecho_job::Job;
use derecho_job::document::Settled;
use derecho_job::results::Results;
use jiff::Timestamp;
use serde_json::Value;

/// Computes everything from a document. Never fails: what cannot be computed is absent, with what is missing in its
/// place.
#[must_use]
pub fn solve(job: &Job) -> Results {
    derecho_job::results::solve(job, stands)
}

/// Settles a job on the results it has now. `None` where the proof does not allow it.
#[must_use]
pub fn settle(job: &Job, at: Timestamp) -> Option<Job> {
    let open = Job { settled: None, ..job.clone() };
    let results = solve(&open);
    results.settling.may.then(|| Job {
        settled: Some(Settled {
            at,
            core_version: derecho_core::VERSION.to_owned(),
            results: frozen(&results),
        }),
        ..open
    })
}

/// Whether what a job was settled on is what is found of it now.
pub(crate) fn stands(settled: &Settled, results: &Results) -> bool {
    let now = frozen(results);
    // A copy of an older program holds the drawing, which is no figure anybody proved.
    let mut then = settled.results.clone();
    take_out(&mut then, &["elevation"]);
    // Until 0.4 a bracket that is recommended was written otherwise.
    if let Some(need) = then.pointer_mut("/bar/need/need").filter(|need| *need == "urged") {
        *need = Value::from("recommended");
    }
    take_sentences_out(&mut then);
    same(&then, &now) || (settled.core_version != derecho_core::VERSION && figures_agree(&then, &now))
}

/// The results as a settled job keeps them: the figures, without the sweep, which follows from the
/// rest and is long, and without what they are drawn from.
fn frozen(results: &Results) -> Value {
    // Results are plain data with string keys: they always have a JSON form.
    let mut value = written_without_words(|| serde_json::to_value(results)).unwrap_or_default();
    take_sentences_out(&mut value);
    if let Some(bar) = value.get_mut("bar").and_then(Value::as_object_mut) {
        bar.remove("sweep");
        // How its answer is worded; what it rests on is kept with the basis and the rise.
        bar.remove("angle_measured");
        if let Some(correction) = bar.get_mut("correction").and_then(Value::as_object_mut) {
            correction.remove("estimated");
        }
    }
    // Nothing that is proved rests on the vehicle's weights.
    take_out(
        &mut value,
        &[
            "stages",
            "first_answer",
            "headline",
            "cautions",
            "vehicle_assumed",
            "empty_fields",
            "settling",
            "findings",
            "status",
            "complaints",
            "diagnosis",
            "elevation",
        ],
    );
    value
}

fn take_out(value: &mut Value, parts: &[&str]) {
    if let Some(results) = value.as_object_mut() {
        results.retain(|name, _| !parts.contains(&name.as_str()));
    }
}

/// Fields that hold what something is called.
const NAMES: [&str; 8] = ["name", "meaning", "title", "plan_name", "bar", "goes_with", "rod", "thing"];

/// A sentence is no figure, and a name neither: what is said better or called otherwise proves nothing else. Texts have
/// blanks, codes have none.
fn take_sentences_out(value: &mut Value) {
    let is_sentence = |value: &Value| match value {
        Value::String(text) => text.is_empty() || text.contains(' '),
        Value::Object(both) => {
            both.len() == 2 && ["in", "mm"].iter().all(|unit| both.get(*unit).is_some_and(Value::is_string))
        }
        _ => false,
    };
    match value {
        Value::Object(fields) => {
            let is_name = |key: &str, value: &Value| value.is_string() && NAMES.contains(&key);
            fields.retain(|key, value| !is_sentence(value) && !is_name(key, value));
            fields.values_mut().for_each(take_sentences_out);
        }
        Value::Array(values) => {
            values.retain(|value| !is_sentence(value));
            values.iter_mut().for_each(take_sentences_out);
        }
        _ => {}
    }
}

/// Whether two frozen copies are the same. A program that wrote 1.0 may have read 1: numbers are compared by their
/// value.
fn same(then: &Value, now: &Value) -> bool {
    match (then, now) {
        (Value::Object(a), Value::Object(b)) => {
            a.len() == b.len()
                && a.iter().all(|(key, value)| b.get(key).is_some_and(|other| same(value, other)))
        }
        (Value::Array(a), Value::Array(b)) => a.len() == b.len() && a.iter().zip(b).all(|(a, b)| same(a, b)),
        (Value::Number(a), Value::Number(b)) => a.as_f64() == b.as_f64(),
        (a, b) => a == b,
    }
}

/// Whether the figures a proof rests on agree with those of another version of the rules: readings, bar,
/// proof. What only one of the two versions knows, and how it is said, is left out.
fn figures_agree(then: &Value, now: &Value) -> bool {
    // What a movement is good to, and so whether it agrees with its prediction, is reckoned otherwise since 0.4: what
    // was proved is where the axle stands.
    let [then, now] = [then, now].map(|value| {
        let mut value = value.clone();
        if let Some(movement) = value.pointer_mut("/prove/movement") {
            take_out(movement, &["uncertainty_mm", "agrees"]);
        }
        if let Some(proof) = value.get_mut("prove") {
            take_out(proof, &["cause"]);
        }
        value
    });
    ["sheets", "bar", "prove", "tolerance_mm"].iter().all(|part| {
        // A part that came or went is a change, whatever the version.
        then.get(part).is_some() == now.get(part).is_some() && agree(&then[part], &now[part])
    })
}

fn agree(then: &Value, now: &Value) -> bool {
    match (then, now) {
        (Value::Object(a), Value::Object(b)) => {
            // How a figure is worked out is no figure.
            let mut figures = a.iter().filter(|(key, _)| *key != "working");
            figures.all(|(key, value)| b.get(key).is_none_or(|other| agree(value, other)))
        }
        (Value::Array(a), Value::Array(b)) => a.len() == b.len() && a.iter().zip(b).all(|(a, b)| agree(a, b)),
        // A hundredth of a millimetre or of a degree is nothing anybody set.
        (Value::Number(a), Value::Number(b)) => {
            a.as_f64().zip(b.as_f64()).is_some_and(|(a, b)| (a - b).abs() <= 0.01)
        }
        (a, b) => a == b,
    }
}
