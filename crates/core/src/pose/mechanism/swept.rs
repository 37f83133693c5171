//! What is known of the bodies of a mechanism in whatever pose.

use glam::DVec3;

/// Turns of the wheels at which a steered pair is looked at, lock to lock; odd, so that straight ahead is among them.
pub(super) const STEERS: usize = 7;

/// What is known of a body in whatever pose.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Swept {
    /// Whether it is one straight piece that nothing steers: its ends say all.
    pub(super) straight: bool,
    /// Whether it is steered.
    pub(super) steered: bool,
    /// Whether it is a member with a bend.
    pub(super) bent: bool,
    /// How much further out than the straight piece between its ends any of it gets, mm.
    pub(super) beyond: f64,
    /// At each of [`STEERS`] turns its points on the axle, where a knuckle carries it.
    pub(super) points: Vec<[DVec3; 2]>,
    /// At each of them how far the knuckle that carries it has turned, radians.
    pub(super) turns: [f64; STEERS],
}
