//! What holes and bars are called: by the names people gave their parts, else as what they are. Not here: how that is said.

use derecho_core::parts::BracketEnd;

/// A hole, or both eyes' holes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum PlaceName {
    /// No bracket: the eyes where they are.
    NoBracket,
    /// An eye as it was found.
    AsFound,
    /// A hole of a bracket; of the bracket that is there where that has no name.
    Hole {
        /// The bracket's name.
        bracket: String,
        /// The hole's name.
        hole: String,
    },
    /// A bracket that is reckoned and nowhere tried: a riser at the axle, a drop at the frame.
    Exact(BracketEnd),
    /// One of either end.
    Both {
        /// The axle eye's.
        axle: Box<PlaceName>,
        /// The frame eye's.
        frame: Box<PlaceName>,
    },
}

impl PlaceName {
    /// A hole by its names; an eye with no hole is as it was found.
    pub(crate) fn hole(bracket: &str, hole: &str) -> Self {
        match hole {
            "" => Self::AsFound,
            hole => Self::Hole { bracket: bracket.to_owned(), hole: hole.to_owned() },
        }
    }
}

/// A bar.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum BarName {
    /// The one that was there, which nobody named.
    AsFound,
    /// By its name.
    Named(String),
}

impl BarName {
    /// A bar by its name, where it has one.
    pub(crate) fn of(name: &str) -> Self {
        if name.is_empty() { Self::AsFound } else { Self::Named(name.to_owned()) }
    }
}
