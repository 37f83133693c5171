//! A check of something that fits or does not, as one line: what it is of, and what it comes to.

use crate::marked as say;
use derecho_core::measure::Phrase;
use derecho_job::verdict::FitCheck;

pub(crate) fn does_not_fit(check: &FitCheck) -> Phrase {
    let says = say(&check.says);
    Phrase::of(|w| {
        let says = says.in_unit(w.unit());
        let mut name = say(&check.name.0).inches;
        if let Some(first) = name.get_mut(..1) {
            first.make_ascii_uppercase();
        }
        format!("{name}: {says}")
    })
}
