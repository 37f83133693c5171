//! What the bar's geometry needs, gathered from the document once: the bar as found at the
//! driven height, or what keeps it from being known.

use crate::defaults;
use crate::document::check::{FieldError, asks};
use crate::document::{AxleLocation, Bar, BarRead, FittedPart, Job, Purpose, heights, length_of};
use derecho_core::bar::builder::built;
use derecho_core::bar::evidence::{FinderReading, Rise, RiseSource, level_assumed, rise};
use derecho_core::measure::{Angle, AngleEntry, Length, Side};

/// The field the bar's faults point at.
pub const BAR: &str = "/setups/found/bar";

/// Why there is no bar to set.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum NoBar {
    /// A Y-shaped link centres the axle.
    YLink,
    /// Something is not measured yet.
    NotMeasured,
    /// The bar cannot be as measured.
    Impossible,
}

/// The bar as found.
#[derive(Clone, Debug, PartialEq)]
pub struct Known {
    /// L, eye to eye.
    pub length: Length,
    /// Whether there was no bar, and this is one built to a gap.
    pub built: bool,
    /// The side of the frame eye.
    pub side: Side,
    /// d, the frame eye further forward.
    pub fore_aft: Length,
    /// The rise as it was read.
    pub rise: Rise,
    /// v at the driven height.
    pub driven_rise: Length,
}

impl Known {
    /// Whether anybody measured how far the bar rises; else it is taken to be level, and nothing is said of its angle.
    #[must_use]
    pub fn rise_is_measured(&self) -> bool {
        self.rise.source != RiseSource::Assumed
    }
}

/// What keeps the bar from being known.
#[derive(Clone, Debug, PartialEq)]
pub struct Unknown {
    /// Why.
    pub why: NoBar,
    /// Each with its field.
    pub missing: Vec<FieldError>,
}

/// The length of a bar built to the gap that was measured, where it was.
#[must_use]
pub fn built_length(job: &Job) -> Option<Length> {
    built_to(job, length_of(&job.bracket.builder.gap)?)
}

/// The length of the bar that a plan has somebody build, where its gap was measured. Where no bar was found the first
/// gap is of the eyes as found; one that moves them is built to the gap measured in their new holes.
#[must_use]
pub fn planned_built_length(job: &Job, moves_an_eye: bool) -> Option<Length> {
    let had_no_bar = length_of(&job.setups.found.bar.length).is_none();
    if had_no_bar && moves_an_eye {
        built_to(job, length_of(&job.bracket.builder.gap_in_new_holes)?)
    } else {
        built_length(job)
    }
}

fn built_to(job: &Job, gap: Length) -> Option<Length> {
    let form = &job.bracket.builder;
    let bar =
        built(gap, length_of(&form.frame_shell)?, length_of(&form.axle_shell)?, length_of(&form.stock)?);
    bar.ok().map(|bar| bar.length_mm)
}

/// Gathers it.
///
/// # Errors
/// With what is missing, each with its field.
pub fn known(job: &Job) -> Result<Known, Unknown> {
    let there = job.rig.axle_location == Some(AxleLocation::YLink);
    if there || job.installs(FittedPart::YLink) {
        let message = if there { asks::NO_TRACK_BAR } else { asks::BAR_COMES_OUT };
        let missing = vec![FieldError::new("/rig/axle_location", "no_bar", message)];
        return Err(Unknown { why: NoBar::YLink, missing });
    }
    let bar = &job.setups.found.bar;
    let mut missing = Vec::new();
    let mut ask = |pointer: &str, message: &str| missing.push(FieldError::new(pointer, "missing", message));
    if job.rig.frame_eye_side.is_none() {
        ask("/rig/frame_eye_side", asks::SIDE);
    }
    let typed = length_of(&bar.length);
    let length = typed.or_else(|| built_length(job));
    if length.is_none() {
        ask(&format!("{BAR}/length"), asks::BAR_LENGTH);
    }
    let heights = eye_heights(job);
    let finder = finder_reading(bar);
    let assumed = heights.is_none() && finder.is_none() && swaps_the_bar_alone(job);
    let typed_heights = bar.frame_eye_height.is_some() && bar.axle_eye_height.is_some();
    if typed_heights && heights::rail_is_open(job) {
        ask("/sway/room/rail_underside", asks::RAIL_UNDERSIDE);
    } else if heights.is_none() && finder.is_none() && !assumed {
        ask(&format!("{BAR}/frame_eye_height"), asks::BAR_HEIGHTS);
    }
    let unknown = |missing| Unknown { why: NoBar::NotMeasured, missing };
    let (Some(side), Some(length)) = (job.rig.frame_eye_side, length) else {
        return Err(unknown(missing));
    };
    let slope = job.rig.floor_slope.as_ref().map_or(Angle::ZERO, AngleEntry::angle);
    let good_to = length_of(&bar.heights_good_to).unwrap_or(defaults::BOLT_HEIGHT_GOOD_TO);
    let measured = rise(length, side, heights, good_to, finder, slope);
    let Some(rise) = measured.or_else(|| assumed.then(|| level_assumed(length))) else {
        return Err(unknown(missing));
    };
    let lift = length_of(&job.rig.lift).unwrap_or(Length::ZERO);
    let read_at = bar_read_at(job);
    let lifted = match bar.read {
        BarRead::AsItStands => Length::ZERO,
        BarRead::BeforeTheLift => lift,
    };
    let raised = lifted + heights::driven_offset(&job.rig) - read_at;
    let driven_rise = if assumed { Length::ZERO } else { rise.rise_mm + raised };
    let fore_aft = length_of(&bar.fore_aft).unwrap_or(Length::ZERO);
    Ok(Known { length, built: typed.is_none(), side, fore_aft, rise, driven_rise })
}

/// How much higher than at ride height the body stood when the bar was measured.
fn bar_read_at(job: &Job) -> Length {
    let bar = &job.setups.found.bar;
    if bar.height.is_empty() {
        heights::driven_offset(&job.rig)
    } else {
        heights::offset_of(&job.rig, &bar.height)
    }
}

/// Both eyes above the floor as it stood when the bar was measured, frame eye first; None where one of them was not measured.
#[must_use]
pub fn eye_heights(job: &Job) -> Option<(Length, Length)> {
    let (bar, read_at) = (&job.setups.found.bar, bar_read_at(job));
    let frame = heights::of_body(job, bar.frame_eye_height.as_ref()?, read_at)? + read_at;
    Some((frame, heights::of_axle(job, bar.axle_eye_height.as_ref()?)))
}

/// What a hole is chosen by.
pub(crate) fn heights_missing() -> FieldError {
    FieldError::new(format!("{BAR}/frame_eye_height"), "missing", asks::BAR_HEIGHTS)
}

/// Whether a bar goes in where the old one was and nothing is asked of its angle: the old bar's length is enough.
fn swaps_the_bar_alone(job: &Job) -> bool {
    let moves_an_eye = job.setups.plans.chosen.iter().any(|plan| plan.axle.is_some() || plan.frame.is_some());
    job.to_do.contains(&Purpose::SwapBar)
        && job.to_do.iter().all(|purpose| *purpose == Purpose::SwapBar || purpose.is_sway())
        && !moves_an_eye
        && length_of(&job.setups.found.bar.length).is_some()
}

fn finder_reading(bar: &Bar) -> Option<FinderReading> {
    if bar.bent {
        return None;
    }
    let finder = &bar.finder;
    Some(FinderReading {
        reading: finder.reading.as_ref()?.angle(),
        higher_end: finder.higher_end?,
        zero: finder.zero,
        good_to: finder
            .good_to
            .as_ref()
            .map_or(Angle::from_degrees(defaults::FINDER_GOOD_TO_DEGREES), |good_to| good_to.angle().abs()),
    })
}
