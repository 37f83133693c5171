//! What else a shop keeps: braces, shims, sway bars, links, disconnects, fasteners, and kits: parts with their
//! hardware, order and torques as the maker gives them, typed once and used in every job.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fastener::Thread;
use crate::fastener::stack::NutKind;
use crate::fastener::strength::{Grade, ThreadTreatment};
use crate::measure::{TapeEntry, TorqueEntry};

/// A brace from a bracket on the frame to the far rail.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BracePart {
    /// What it is called.
    pub name: String,
    /// How far below the rail it holds the bracket.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub below_rail: Option<TapeEntry>,
    /// Between its bolts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A shim or plate under a clamp.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShimPart {
    /// What it is called.
    pub name: String,
    /// Its thickness.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thickness: Option<TapeEntry>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A sway bar.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SwayBarPart {
    /// What it is called.
    pub name: String,
    /// Outside diameter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub outside: Option<TapeEntry>,
    /// Bore; solid where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bore: Option<TapeEntry>,
    /// Length that twists.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub active_length: Option<TapeEntry>,
    /// Its arm, from the bar's axis to the link's eye.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm: Option<TapeEntry>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A sway link.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SwayLinkPart {
    /// What it is called.
    pub name: String,
    /// Shortest, eye to eye.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_min: Option<TapeEntry>,
    /// Longest.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_max: Option<TapeEntry>,
    /// Its thread, one end right hand and the other left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A disconnect.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DisconnectPart {
    /// What it is called.
    pub name: String,
    /// Thread of its stud.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Thread of its nut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_thread: Option<Thread>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A bolt or stud with its nut.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FastenerPart {
    /// What it is called.
    pub name: String,
    /// Thread.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Strength marked on its head.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub grade: Option<Grade>,
    /// Length under its head.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Its nut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut: Option<NutKind>,
    /// The nut's own thread; the bolt's where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_thread: Option<Thread>,
    /// How its thread is treated.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub treatment: Option<ThreadTreatment>,
    /// Torque as its maker gives it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub torque: Option<TorqueEntry>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A part of a kit.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitLine {
    /// What it is.
    pub name: String,
    /// How many.
    pub count: u32,
}

/// A fastener of a kit, in its place.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitFastener {
    /// Its place in the work: the key of a fastener, such as `frame/main` or `bar/axle-eye`.
    pub place: String,
    /// Thread.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Strength marked on its head.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub grade: Option<Grade>,
    /// Its nut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut: Option<NutKind>,
    /// How its thread is treated.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub treatment: Option<ThreadTreatment>,
    /// Torque as the maker gives it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub torque: Option<TorqueEntry>,
}

/// Parts with their hardware, order and torques, as the maker gives them.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitPart {
    /// What it is called.
    pub name: String,
    /// What is in it.
    #[serde(default)]
    pub holds: Vec<KitLine>,
    /// Its fasteners, each in its place.
    #[serde(default)]
    pub fasteners: Vec<KitFastener>,
    /// The maker's order of work: keys of steps, such as `frame/by-hand`.
    #[serde(default)]
    pub order: Vec<String>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}
