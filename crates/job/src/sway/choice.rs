//! What can be done with a sway bar where the axle is to twist.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is done with the sway bar on the trail.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Choice {
    /// The bar as it is, connected all the time.
    AsItIs,
    /// Its links unbolted and tied up.
    TiedUp,
    /// Disconnects with pins.
    Pins,
    /// A powered disconnect.
    Powered,
    /// A soft torsion bar, connected all the time.
    SoftTorsionBar,
    /// A bar of two rates.
    TwoRate,
    /// No bar.
    NoBar,
}
