//! What ids point at.

use derecho_core::parts::{BarPart, BracketEnd, BracketPart, DragLinkPart, Hole};

use crate::{BarId, BracketId, DragLinkId, HoleChoice, Job};

impl Job {
    /// A bracket of the job's parts for an end; None for the one that is there, which is no part.
    #[must_use]
    pub fn bracket_part(&self, end: BracketEnd, id: &BracketId) -> Option<&BracketPart> {
        self.bracket.brackets.iter().find(|part| !id.is_empty() && part.end == end && part.id == *id)
    }

    /// The holes of a bracket at an end, those of the one that is there where none is pointed at. None where there is
    /// no such bracket.
    #[must_use]
    pub fn holes_of(&self, end: BracketEnd, bracket: &BracketId) -> Option<&[Hole]> {
        let found = &self.setups.found;
        match (bracket.is_empty(), end) {
            (true, BracketEnd::Frame) => Some(&found.frame_holes),
            (true, BracketEnd::Axle) => Some(&found.axle_holes),
            (false, _) => self.bracket_part(end, bracket).map(|part| part.holes.as_slice()),
        }
    }

    /// A chosen hole; None for where the eye was found, and where there is no such hole.
    #[must_use]
    pub fn hole(&self, end: BracketEnd, choice: &HoleChoice) -> Option<&Hole> {
        self.holes_of(end, &choice.bracket)?
            .iter()
            .find(|hole| !choice.hole.is_empty() && hole.id == choice.hole)
    }

    /// What people call a chosen hole; empty for where the eye was found.
    #[must_use]
    pub fn hole_name(&self, end: BracketEnd, choice: &HoleChoice) -> &str {
        self.hole(end, choice).map_or("", |hole| hole.name.as_str())
    }

    /// A bar of the job's parts; None for the bar as found.
    #[must_use]
    pub fn bar_part(&self, id: &BarId) -> Option<&BarPart> {
        self.bracket.bars.iter().find(|part| !id.is_empty() && part.id == *id)
    }

    /// A drag-link part of the job; None for none.
    #[must_use]
    pub fn drag_link_part(&self, id: &DragLinkId) -> Option<&DragLinkPart> {
        self.bracket.drag_links.iter().find(|part| !id.is_empty() && part.id == *id)
    }

    /// What people call it; empty for none.
    #[must_use]
    pub fn drag_link_name(&self, id: &DragLinkId) -> &str {
        self.drag_link_part(id).map_or("", |part| part.name.as_str())
    }
}
