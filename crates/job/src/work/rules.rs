//! Why a step comes after another one. Not here: which steps there are (`kinds`, `bolt_up`), their order (`bolt_up::order`).

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Why a step comes after another one.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// Stands before anything is undone.
    StandsFirst,
    /// What is to be compared is read before anything is undone.
    ReadFirst,
    /// Out of the way first.
    OutOfTheWay,
    /// Drilled and welded only once the mock-up stands.
    MockUpFirst,
    /// Battery off before an arc is struck.
    BatteryOff,
    /// Tacked and looked at before it is welded out.
    TackFirst,
    /// Cold and coated before something is hung on it.
    ColdFirst,
    /// Drilled before it is bolted up.
    DrilledFirst,
    /// Set on the bench before it is hung.
    SetFirst,
    /// It hangs before its other end is bolted.
    HungFirst,
    /// Every bolt by hand before any is tight.
    HandFirst,
    /// Snug and back a turn before anything is drawn up.
    SnugFirst,
    /// A bracket's main bolt before its side ones.
    MainFirst,
    /// The side bolts before the small ones.
    SideFirst,
    /// The bar's own bolt after the bracket's.
    BarBoltLast,
    /// Bushings are tightened on the weight.
    OnItsWeight,
    /// Bushings are greased before anything clamps them.
    GreasedFirst,
    /// A lock is found both ways before its blocks are tight.
    LockFirst,
    /// The bracket is tight before what braces it.
    BracketFirst,
    /// The stick-out is equal before anything clamps it.
    StickOutFirst,
    /// Both arms stand alike before their pinch bolts are tight.
    AnglesFirst,
    /// What is held is let go before it is turned or settled.
    LooseFirst,
    /// Set before it is read.
    SetBeforeRead,
    /// Jam nuts once both sides read alike.
    ReadBeforeJam,
    /// The axle is read centred before the steering wheel is set by the drag link.
    CentredFirst,
    /// It clears everything before it is drawn up.
    ClearFirst,
    /// The tie rod holds the wheels whenever it stands on them.
    TieRodHolds,
    /// Toe before the steering wheel: the tie rod turns the wheels.
    ToeFirst,
    /// Torqued before it is pinned.
    TorqueBeforePin,
    /// Everything tight before it is marked and greased.
    TightFirst,
    /// Put back at the end.
    PutBackLast,
    /// Where a person put a step of their own.
    AsWritten,
}

impl Rule {
    /// Whether it holds whatever order the maker gives: what is only usual yields to the maker's own order.
    #[must_use]
    pub const fn is_firm(self) -> bool {
        !matches!(
            self,
            Self::SnugFirst
                | Self::MainFirst
                | Self::SideFirst
                | Self::BarBoltLast
                | Self::SetFirst
                | Self::DrilledFirst
                | Self::GreasedFirst
                | Self::BracketFirst
                | Self::PutBackLast
                | Self::AsWritten
        )
    }
}
