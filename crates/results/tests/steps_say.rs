//! A step of the work says what, why, and where there is more to it how and what to mind, in either unit.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
#![allow(clippy::disallowed_methods, reason = "a test reads the sample jobs")]

use std::path::Path;

use derecho_job::bolt_up::StepLine;
use derecho_job::document::migrate;
use derecho_results::work;
use derecho_words::Spoken as _;

fn steps_of_the_samples() -> Vec<StepLine> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let files = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path());
    let jobs = files.filter(|file| file.to_str().is_some_and(|name| name.ends_with(".derecho.json")));
    jobs.flat_map(|file| {
        let job = migrate::read(&std::fs::read_to_string(&file).unwrap()).unwrap();
        work(&job).steps
    })
    .collect()
}

#[test]
fn nothing_a_step_has_to_say_is_empty() {
    let steps = steps_of_the_samples();
    assert!(steps.len() > 100, "only {} steps were read", steps.len());
    for step in &steps {
        let key = &step.key;
        assert!(!step.does.inches().is_empty() && !step.does.millimetres().is_empty(), "{key} does nothing");
        assert!(!step.because.inches().is_empty(), "{key} has no reason");
        if let Some(how) = &step.how {
            assert!(!how.inches().is_empty() && !how.millimetres().is_empty(), "{key} does not say how");
        }
        if let Some(caution) = &step.caution {
            assert!(!caution.inches().is_empty(), "{key} warns of nothing");
        }
    }
    let kept = |of: fn(&StepLine) -> bool| steps.iter().filter(|step| of(step)).count();
    assert!(kept(|step| step.how.is_some()) > 50 && kept(|step| step.caution.is_some()) > 50);
}

/// What stands in results as one text has no figure in it, which one of both units would read wrong.
#[test]
fn a_text_is_the_same_in_both_units() {
    for step in steps_of_the_samples() {
        let texts = [Some(&step.because), step.caution.as_ref(), Some(&step.stands_says)];
        for text in texts.into_iter().flatten() {
            assert_eq!(text.inches(), text.millimetres(), "{}", step.key);
        }
    }
}
