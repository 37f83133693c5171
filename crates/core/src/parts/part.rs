//! The parts library: bars, brackets, joints, drag-link parts. What a person buys, makes or
//! has on the shelf; a job keeps the part as it was when it was taken in.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::bar::adjuster::{AdjusterKind, EndStyle, ThreadSeat};
use crate::bar::strength::{Material, Section};
use crate::fastener::{Hand, Thread};
use serde_json::Value;

use crate::measure::phrase::Words;
use crate::measure::{Length, Phrase, TapeEntry};
use crate::pose::joint::JointKind;

use super::id::{BarId, BracketId, DragLinkId, HoleId};
use super::kit::{BracePart, DisconnectPart, FastenerPart, KitPart, ShimPart, SwayBarPart, SwayLinkPart};

/// A hole of a bracket, as a move of the eye from where it is without the bracket.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Hole {
    /// By which plans point at it; unique on its bracket. None in the library.
    #[serde(default, skip_serializing_if = "HoleId::is_empty")]
    pub id: HoleId,
    /// Such as hole 2.
    pub name: String,
    /// Up; down is negative.
    pub up: TapeEntry,
    /// Out to the eye's own side; in is negative.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub outward: Option<TapeEntry>,
    /// Forward; back is negative.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub forward: Option<TapeEntry>,
}

/// Which end a bracket is for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BracketEnd {
    /// On the frame: a drop.
    Frame,
    /// On the axle: a riser.
    #[default]
    Axle,
}

/// How a bracket is held.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Attachment {
    /// Bolted.
    #[default]
    BoltOn,
    /// Welded.
    WeldOn,
}

impl Attachment {
    /// How it is held, in words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::BoltOn => "bolted",
            Self::WeldOn => "welded",
        }
    }

    /// Whether it is drawn up with bolts; else an arc is struck for it.
    ///
    /// ```
    /// use derecho_core::parts::Attachment;
    ///
    /// assert!(Attachment::BoltOn.is_bolted() && !Attachment::WeldOn.is_bolted());
    /// ```
    #[must_use]
    pub const fn is_bolted(self) -> bool {
        match self {
            Self::BoltOn => true,
            Self::WeldOn => false,
        }
    }
}

/// A bracket.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BracketPart {
    /// By which a job's plans point at it; none in the library.
    #[serde(default, skip_serializing_if = "BracketId::is_empty")]
    pub id: BracketId,
    /// What it is called.
    pub name: String,
    /// Which end it is for.
    #[serde(default)]
    pub end: BracketEnd,
    /// Its holes.
    #[serde(default)]
    pub holes: Vec<Hole>,
    /// How it is held.
    #[serde(default)]
    pub attachment: Attachment,
    /// Between its two attachments.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub attachment_spacing: Option<TapeEntry>,
    /// What must come off first.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub comes_off_first: String,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A track bar.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BarPart {
    /// By which a job's plans point at it; none in the library.
    #[serde(default, skip_serializing_if = "BarId::is_empty")]
    pub id: BarId,
    /// What it is called.
    pub name: String,
    /// Fixed, one end, turnbuckle; none is cut and welded to length.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub adjuster: Option<AdjusterKind>,
    /// Shortest it can be set, eye to eye.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_min: Option<TapeEntry>,
    /// Longest.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_max: Option<TapeEntry>,
    /// Thread of its adjusting ends, the frame-side one where they differ.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Thread of the axle-side end of a turnbuckle; as the other where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub second_thread: Option<Thread>,
    /// Which way the frame-side thread is cut, or the only one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hand: Option<Hand>,
    /// Which way the axle-side thread is cut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub second_hand: Option<Hand>,
    /// Length of thread on each shank.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shank: Option<TapeEntry>,
    /// Depth of thread in the body at each end.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tapped_depth: Option<TapeEntry>,
    /// What the thread is cut into.
    #[serde(default)]
    pub seat: ThreadSeat,
    /// Least thread that must stay in, by the maker; it rules.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub least_engagement: Option<TapeEntry>,
    /// What passes through the eye of a one-end bar.
    #[serde(default)]
    pub end_style: EndStyle,
    /// Joint on the frame.
    #[serde(default)]
    pub frame_joint: JointKind,
    /// Joint on the axle.
    #[serde(default)]
    pub axle_joint: JointKind,
    /// Outside diameter of its body.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub outside: Option<TapeEntry>,
    /// Wall of a tube; solid where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wall: Option<TapeEntry>,
    /// What it is made of.
    #[serde(default)]
    pub material: Material,
    /// How far it is bent out of the line through its eyes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bend: Option<TapeEntry>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// Diameter of a bar nobody described.
pub const USUAL_OUTSIDE: Length = Length::from_mm(32.0);
/// Wall of a tube nobody described.
pub const USUAL_WALL: Length = Length::from_mm(5.0);

impl BarPart {
    /// Its section; a usual tube where nobody described it.
    #[must_use]
    pub fn section(&self) -> Section {
        match &self.outside {
            Some(outside) => {
                Section { outside: outside.length(), wall: self.wall.as_ref().map(TapeEntry::length) }
            }
            None => Section { outside: USUAL_OUTSIDE, wall: Some(USUAL_WALL) },
        }
    }

    /// Whether it can be made or set so long; None where its range is not known.
    ///
    /// ```
    /// use derecho_core::measure::{Length, TapeEntry};
    /// use derecho_core::parts::BarPart;
    ///
    /// let of = |mm| TapeEntry::of(Length::from_mm(mm));
    /// let bar = BarPart { made_min: of(800.0), made_max: of(900.0), ..BarPart::default() };
    /// assert_eq!((bar.covers(Length::from_mm(850.0)), bar.covers(Length::from_mm(950.0))), (Some(true), Some(false)));
    /// assert_eq!(BarPart::default().covers(Length::from_mm(850.0)), None);
    /// ```
    #[must_use]
    pub fn covers(&self, length: Length) -> Option<bool> {
        let (least, most) = (self.made_min.as_ref()?.length(), self.made_max.as_ref()?.length());
        Some(least <= length && length <= most)
    }
}

/// A joint or spacer that sits between a bracket's ears.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JointPart {
    /// What it is called.
    pub name: String,
    /// What it is.
    #[serde(default)]
    pub joint: JointKind,
    /// Which eye it goes in; either where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub end: Option<BracketEnd>,
    /// Its width between the ears, spacers included.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub width: Option<TapeEntry>,
    /// Diameter of its bolt.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bolt: Option<TapeEntry>,
    /// Thread of its shank.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A part that raises the drag link at the knuckle or drops it at the pitman arm.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DragLinkPart {
    /// By which a job's plans point at it; none in the library.
    #[serde(default, skip_serializing_if = "DragLinkId::is_empty")]
    pub id: DragLinkId,
    /// What it is called.
    pub name: String,
    /// How much higher the link's axle end sits.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub raises_axle_end: Option<TapeEntry>,
    /// How much lower its pitman end sits.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub drops_pitman_end: Option<TapeEntry>,
    /// Free note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A part of the library.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
#[expect(
    clippy::large_enum_variant,
    reason = "a library has hundreds of parts at most; a box would hide the fields"
)]
pub enum Part {
    /// A track bar.
    Bar(BarPart),
    /// A bracket.
    Bracket(BracketPart),
    /// A joint or spacer.
    Joint(JointPart),
    /// A drag-link part.
    DragLink(DragLinkPart),
    /// A brace.
    Brace(BracePart),
    /// A shim.
    Shim(ShimPart),
    /// A sway bar.
    SwayBar(SwayBarPart),
    /// A sway link.
    SwayLink(SwayLinkPart),
    /// A disconnect.
    Disconnect(DisconnectPart),
    /// A fastener.
    Fastener(FastenerPart),
    /// A kit.
    Kit(KitPart),
}

impl Part {
    /// What it is called.
    #[must_use]
    pub fn name(&self) -> &str {
        match self {
            Self::Bar(part) => &part.name,
            Self::Bracket(part) => &part.name,
            Self::Joint(part) => &part.name,
            Self::DragLink(part) => &part.name,
            Self::Brace(part) => &part.name,
            Self::Shim(part) => &part.name,
            Self::SwayBar(part) => &part.name,
            Self::SwayLink(part) => &part.name,
            Self::Disconnect(part) => &part.name,
            Self::Fastener(part) => &part.name,
            Self::Kit(part) => &part.name,
        }
    }

    /// What it is, in one line, in both units; a torque or a thread as it was typed.
    #[must_use]
    pub fn says(&self) -> Phrase {
        Phrase::of(|w| self.line(|entry| reported(w, entry.length())))
    }

    fn line(&self, typed: impl Fn(&TapeEntry) -> String) -> String {
        let text = |entry: &Option<TapeEntry>| entry.as_ref().map(&typed);
        match self {
            Self::Bar(bar) => {
                let range = text(&bar.made_min).zip(text(&bar.made_max));
                let range = range.map_or_else(String::new, |(least, most)| format!("{least} to {most}, "));
                format!("{range}{}", bar.material.word())
            }
            Self::Bracket(bracket) => {
                let end = if bracket.end == BracketEnd::Axle { "axle" } else { "frame" };
                let held = bracket.attachment.word();
                let holes: Vec<String> = bracket.holes.iter().map(|hole| typed(&hole.up)).collect();
                format!("{end}, {held}, holes {}", holes.join(", "))
            }
            Self::Joint(joint) => {
                let width = text(&joint.width).map_or_else(String::new, |width| format!(", {width} wide"));
                format!("{}{width}", joint.joint.word())
            }
            Self::DragLink(part) => {
                let raises = text(&part.raises_axle_end).map(|by| format!("raises the axle end {by}"));
                let drops = text(&part.drops_pitman_end).map(|by| format!("drops the pitman end {by}"));
                [raises, drops].into_iter().flatten().collect::<Vec<_>>().join(", ")
            }
            Self::Brace(part) => {
                let below = text(&part.below_rail).map(|by| format!("holds {by} below the rail"));
                below.unwrap_or_default()
            }
            Self::Shim(part) => text(&part.thickness).map_or_else(String::new, |by| format!("{by} thick")),
            Self::SwayBar(part) => {
                let outside = text(&part.outside).map(|outside| format!("{outside} thick"));
                let bore = text(&part.bore).map(|bore| format!("bore {bore}"));
                let arm = text(&part.arm).map(|arm| format!("arm {arm}"));
                [outside, bore, arm].into_iter().flatten().collect::<Vec<_>>().join(", ")
            }
            Self::SwayLink(part) => {
                let range = text(&part.made_min).zip(text(&part.made_max));
                range.map_or_else(String::new, |(least, most)| format!("{least} to {most}"))
            }
            Self::Disconnect(part) => {
                part.thread.as_ref().map_or_else(String::new, |thread| format!("stud {}", thread.text()))
            }
            Self::Fastener(part) => {
                let thread = part.thread.as_ref().map(|thread| thread.text().to_owned());
                let grade = part.grade.map(|grade| grade.word().to_owned());
                let torque = part.torque.as_ref().map(|torque| torque.text().to_owned());
                [thread, grade, text(&part.length), torque]
                    .into_iter()
                    .flatten()
                    .collect::<Vec<_>>()
                    .join(", ")
            }
            Self::Kit(kit) => format!("{} parts, {} fasteners", kit.holds.len(), kit.fasteners.len()),
        }
    }

    /// As it stands in files: `bar`, `bracket`, `drag_link` and so on.
    #[must_use]
    pub const fn kind(&self) -> &'static str {
        match self {
            Self::Bar(_) => "bar",
            Self::Bracket(_) => "bracket",
            Self::Joint(_) => "joint",
            Self::DragLink(_) => "drag_link",
            Self::Brace(_) => "brace",
            Self::Shim(_) => "shim",
            Self::SwayBar(_) => "sway_bar",
            Self::SwayLink(_) => "sway_link",
            Self::Disconnect(_) => "disconnect",
            Self::Fastener(_) => "fastener",
            Self::Kit(_) => "kit",
        }
    }
}

/// A length with its sign: what goes down, inward or back has a minus.
fn reported(w: Words, length: Length) -> String {
    let sign = if length < Length::ZERO { "−" } else { "" };
    format!("{sign}{}", w.fine(length))
}

/// A length as typed, with its unit where the text has none.
pub(super) fn length_text(entry: &Value) -> String {
    let text = entry["text"].as_str().unwrap_or_default();
    let unit = entry["unit"].as_str().unwrap_or_default();
    if text.contains(|c: char| c.is_alphabetic() || matches!(c, '"' | '″' | '\'' | '′')) {
        text.to_owned()
    } else {
        format!("{text} {unit}")
    }
}
