//! The bar alone, with roll: where it puts an axle that otherwise goes straight up and down
//! and leans. Holds wherever nothing else moves the axle fore and aft, pitches or steers it
//! (leaf springs); the pose solver agrees with it there.

use super::front_view::BarFault;
use crate::measure::{Angle, Length};

/// Both eyes of a bar at ride height with the axle centred, in millimetres forward, to the
/// left and up, and its made length.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct EyesInSpace {
    /// F, on the frame.
    pub frame: [f64; 3],
    /// A, on the axle.
    pub axle: [f64; 3],
    /// L, centre to centre.
    pub length: Length,
    /// The axle centre above the ground at ride height.
    pub axle_height: Length,
}

impl EyesInSpace {
    /// The place of the axle centre, + to the left, at a heave (+ bump) and a roll (+ left
    /// wheel higher): y = F_y − a′_y − s·√(L² − d² − (axle_z + z + a′_z − F_z)²) with
    /// a′ = Rx(φ)(A − C) (Pythagoras).
    ///
    /// # Errors
    /// Where the bar does not reach.
    pub fn sideways(&self, heave: Length, roll: Angle) -> Result<Length, BarFault> {
        let ([fx, fy, fz], [ax, ay, az]) = (self.frame, self.axle);
        let centre = self.axle_height.to_mm();
        let (sin, cos) = roll.to_radians().sin_cos();
        let across = ay * cos - (az - centre) * sin;
        let up = ay * sin + (az - centre) * cos;
        let rise = centre + heave.to_mm() + up - fz;
        let fore_aft = fx - ax;
        let squared = self.length.to_mm().powi(2) - fore_aft * fore_aft - rise * rise;
        if squared < 0.0 {
            return Err(BarFault::TooShort);
        }
        Ok(Length::from_mm(fy - across - (fy - ay).signum() * squared.sqrt()))
    }
}
