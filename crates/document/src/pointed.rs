//! What ids point at.

use derecho_core::parts::{BarPart, BracketEnd, BracketPart, DragLinkPart, Hole};

use crate::{BarId, BracketId, DragLinkId, HoleChoice, Job};

impl Job {
    /// The job with every row that is pointed at called by its id, for what must read the same whatever people call
    /// its rows. None where every name is its id, as in jobs brought forward from names.
    #[must_use]
    pub fn called_by_ids(&self) -> Option<Self> {
        fn call(name: &mut String, id: &str, renamed: &mut bool) {
            if !id.is_empty() && name != id {
                id.clone_into(name);
                *renamed = true;
            }
        }
        let mut called = self.clone();
        let mut renamed = false;
        for height in &mut called.rig.heights {
            call(&mut height.name, height.id.as_str(), &mut renamed);
        }
        let found = &mut called.setups.found;
        let parts = &mut called.bracket;
        let holes = found.frame_holes.iter_mut().chain(&mut found.axle_holes);
        for hole in holes.chain(parts.brackets.iter_mut().flat_map(|bracket| &mut bracket.holes)) {
            call(&mut hole.name, hole.id.as_str(), &mut renamed);
        }
        for bracket in &mut parts.brackets {
            call(&mut bracket.name, bracket.id.as_str(), &mut renamed);
        }
        for bar in &mut parts.bars {
            call(&mut bar.name, bar.id.as_str(), &mut renamed);
        }
        for part in &mut parts.drag_links {
            call(&mut part.name, part.id.as_str(), &mut renamed);
        }
        for drill in &mut called.bolt_up.drills {
            call(&mut drill.name, drill.id.as_str(), &mut renamed);
        }
        renamed.then_some(called)
    }

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
