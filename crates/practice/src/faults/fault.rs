//! Something wrong, and how large it is.

use derecho_job::document::diagnosis::Suspect;

use crate::ground_truth::Feature;

/// Something that is wrong with a practice vehicle.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Fault {
    pub(super) suspect: Suspect,
    /// How large: mm to the left, up, longer; degrees of a floor; one where it is there or not.
    pub(super) size: f64,
    /// Which feature, of one that is out of its place.
    pub(super) at: Option<Feature>,
}
