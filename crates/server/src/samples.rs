//! The made-up jobs the program carries: the service trucks of a mountain
//! fire-lookout district.

use derecho_core::parts::Part;
use derecho_job::Job;
use derecho_store::{Store, StoreError};
use jiff::{Span, Timestamp};
use rust_embed::RustEmbed;

use crate::{cards, parse};

#[derive(RustEmbed)]
#[folder = "../../demo"]
struct Files;

const SUFFIX: &str = ".derecho.json";

/// A sample by its name, such as `lookout-truck-7`.
#[must_use]
pub fn sample(name: &str) -> Option<Job> {
    let file = Files::get(&format!("{name}{SUFFIX}"))?;
    parse::read_job(&file.data).ok()
}

/// The made-up sample parts.
#[must_use]
pub fn parts() -> Vec<Part> {
    Files::get("parts.json").and_then(|file| serde_json::from_slice(&file.data).ok()).unwrap_or_default()
}

/// The names of all samples, sorted.
#[must_use]
pub fn names() -> Vec<String> {
    let mut names: Vec<String> =
        Files::iter().filter_map(|file| file.strip_suffix(SUFFIX).map(str::to_owned)).collect();
    names.sort();
    names
}

/// Puts every sample into an empty store, under its own name.
///
/// # Errors
/// Where the store refuses.
pub fn fill(store: &Store, now: Timestamp) -> Result<(), StoreError> {
    if store.list("", 1, 0)?.1 > 0 {
        return Ok(());
    }
    if store.parts()?.is_empty() {
        for (index, part) in parts().iter().enumerate() {
            store.add_part(&format!("sample-{}", index + 1), part, now)?;
        }
    }
    // A second apart, so that the bay lists them in the order of their names.
    for (index, name) in names().iter().rev().enumerate() {
        let at = now + Span::new().seconds(index as i64 - 60);
        if let Some(job) = sample(name) {
            match store.create_ready(name, cards::ready(job)?, at) {
                // A sample that was taken out of the bay stays out.
                Ok(_) | Err(StoreError::AlreadyThere) => {}
                Err(error) => return Err(error),
            }
        }
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_sample_is_a_sound_job() {
        assert!(names().len() >= 5);
        for name in names() {
            assert!(sample(&name).is_some(), "{name}");
        }
        assert!(sample("no-such").is_none());
        assert!(parts().len() >= 10);
    }
}
