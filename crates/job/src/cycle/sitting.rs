//! Two that sit on frame or axle beside each other, and are in each other's way as they sit.

use derecho_core::measure::Length;
use derecho_core::pose::body::BodyName;
use derecho_core::pose::mechanism::Mechanism;

/// Two that sit on one, and the gap between them; negative where they are in each other's way.
#[derive(Clone, Debug, PartialEq)]
pub struct SittingPair {
    /// The one.
    pub first: BodyName,
    /// The other.
    pub second: BodyName,
    /// Between them.
    pub gap: Length,
}

/// Pairs that are in each other's way as they sit.
pub(super) fn in_the_way(mechanism: &Mechanism) -> Vec<SittingPair> {
    let all = mechanism.standing().into_iter().filter(|(_, gap)| gap.distance < 0.0);
    all.map(|(pair, gap)| {
        let [first, second] = pair.map(|body| mechanism.bodies()[body].name.clone());
        SittingPair { first, second, gap: Length::from_mm(gap.distance) }
    })
    .collect()
}
