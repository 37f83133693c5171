//! The form of stage Bracket: what is aimed at, the parts tried.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ids::HeightId;
use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::fastener::Thread;
pub use derecho_core::fastener::stack::NutKind;
pub use derecho_core::fastener::strength::{Grade, ThreadTreatment};
use derecho_core::measure::{AngleEntry, TapeEntry, TorqueEntry};
use derecho_core::parts::{BarPart, BracePart, BracketEnd, BracketPart, DragLinkPart, JointPart};

/// What the bar's angle is aimed at.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Target {
    /// Level at the driven height.
    #[default]
    LevelDriven,
    /// Level in the middle of the travel.
    LevelMidTravel,
    /// Parallel to the drag link at the driven height.
    ParallelToDragLink,
    /// The angle it had from the maker, at the driven height.
    AsTheMakerHadIt,
}

/// A bar cut and welded to length.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct BuilderForm {
    /// Between the two eye shells, at ride height on its weight, strapped to centre.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub gap: Option<TapeEntry>,
    /// The same with the eyes in the holes that the plan puts them in, where those are other ones than `gap` was taped
    /// between: the bar is cut to this one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub gap_in_new_holes: Option<TapeEntry>,
    /// Outside diameter of the frame eye's shell.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_shell: Option<TapeEntry>,
    /// Outside diameter of the axle eye's shell.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_shell: Option<TapeEntry>,
    /// Outside diameter of the stock.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stock: Option<TapeEntry>,
}

/// The bolt through an eye.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct EyeBolt {
    /// Its thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Torque from the part's own sheet.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub torque: Option<TorqueEntry>,
    /// How its thread is treated.
    pub treatment: ThreadTreatment,
    /// Strength marked on its head.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub grade: Option<Grade>,
    /// Its nut.
    pub nut: NutKind,
    /// The nut's own thread; the bolt's where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_thread: Option<Thread>,
    /// The nut's height.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_height: Option<TapeEntry>,
    /// Its diameter as measured; its thread's where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// The hole in the ears.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hole: Option<TapeEntry>,
    /// Thickness of one ear.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub ear: Option<TapeEntry>,
    /// Thickness of one washer; one lies under the head and one under the nut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub washer: Option<TapeEntry>,
    /// Length of the bolt that is there, under its head.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Length of its thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub threaded: Option<TapeEntry>,
    /// Room behind its head, straight out.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub room_at_head: Option<TapeEntry>,
    /// Room beyond the ear on the nut's side.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub room_at_nut: Option<TapeEntry>,
    /// Play of the bolts in their holes, both eyes together.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub play: Option<TapeEntry>,
}

/// What one eye's ears take and what is bolted through it, where the two eyes are not alike.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct EyeFit {
    /// Inside width between its ears; the one of both eyes where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub ear_width: Option<TapeEntry>,
    /// Its bolt; the one of both eyes where nothing is said of it.
    #[serde(skip_serializing_if = "is_default")]
    pub bolt: EyeBolt,
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

/// The pinion at one height, by a finder; nose down is positive.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct PinionReading {
    /// The height it stood at; empty is the driven one.
    #[serde(skip_serializing_if = "HeightId::is_empty")]
    pub height: HeightId,
    /// Before the conversion.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub before: Option<AngleEntry>,
    /// With the Y-link in.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub after: Option<AngleEntry>,
}

/// A conversion to a Y-shaped upper link.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Conversion {
    /// How a leg's length is turned: at one end, or by a sleeve with both hands.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leg_kind: Option<AdjusterKind>,
    /// Thread of the legs.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leg_thread: Option<Thread>,
    /// Whether the spacers behind the old upper mount are out.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub spacers_out: Option<bool>,
    /// The pinion before and after, height by height.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub pinion: Vec<PinionReading>,
}

impl Conversion {
    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}

/// Everything of stage Bracket.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Bracketing {
    /// What the angle is aimed at.
    pub target: Target,
    /// The bar's angle as the maker had it, + with the frame end higher.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stock_angle: Option<AngleEntry>,
    /// Its length as the maker had it, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stock_length: Option<TapeEntry>,
    /// From this angle on a bracket is urged, not only offered; 5° where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub steep_from: Option<AngleEntry>,
    /// More sideways swing over the travel than this is not comfortable; 3/4 in where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub swing_limit: Option<TapeEntry>,
    /// Bars tried, as they were when they were taken in.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bars: Vec<BarPart>,
    /// Brackets tried.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub brackets: Vec<BracketPart>,
    /// Drag-link parts tried.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub drag_links: Vec<DragLinkPart>,
    /// A brace from the bracket on the frame to the far rail.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub brace: Option<BracePart>,
    /// Joints and spacers for the ears.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub joints: Vec<JointPart>,
    /// Inside width between the ears of a bracket, at both ends alike but for what `frame_eye` and `axle_eye` say.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub ear_width: Option<TapeEntry>,
    /// Angle finder on the frame bracket.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_bracket_angle: Option<AngleEntry>,
    /// Angle finder on the axle bracket, zeroed as on the other.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_bracket_angle: Option<AngleEntry>,
    /// The bolt through an eye, at both ends alike but for what `frame_eye` and `axle_eye` say.
    pub bolt: EyeBolt,
    /// What is otherwise at the frame eye.
    #[serde(skip_serializing_if = "is_default")]
    pub frame_eye: EyeFit,
    /// What is otherwise at the axle eye.
    #[serde(skip_serializing_if = "is_default")]
    pub axle_eye: EyeFit,
    /// Whether there is no bracket on the frame yet, and this job places the first one.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub first_frame_bracket: bool,
    /// Room the first bracket is given to everything on the axle at full bump, fore and aft; 1 in where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub first_bracket_room: Option<TapeEntry>,
    /// A bar cut and welded to length.
    pub builder: BuilderForm,
    /// A Y-shaped upper link in place of the bar.
    #[serde(skip_serializing_if = "Conversion::is_empty")]
    pub conversion: Conversion,
}

impl Bracketing {
    /// What is said of one eye alone.
    #[must_use]
    pub const fn eye(&self, end: BracketEnd) -> &EyeFit {
        match end {
            BracketEnd::Frame => &self.frame_eye,
            BracketEnd::Axle => &self.axle_eye,
        }
    }

    /// The bolt of one eye: its own, or the one of both.
    #[must_use]
    pub fn bolt_at(&self, end: BracketEnd) -> &EyeBolt {
        let own = &self.eye(end).bolt;
        if is_default(own) { &self.bolt } else { own }
    }

    /// Inside width between the ears of one eye: its own, or the one of both.
    #[must_use]
    pub fn ear_width_at(&self, end: BracketEnd) -> Option<&TapeEntry> {
        self.eye(end).ear_width.as_ref().or(self.ear_width.as_ref())
    }

    /// Whether the two eyes are told apart: by their ears, their bolts or what goes between their ears.
    #[must_use]
    pub fn eyes_differ(&self) -> bool {
        !is_default(&self.frame_eye)
            || !is_default(&self.axle_eye)
            || self.joints.iter().any(|joint| joint.end.is_some())
    }

    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
