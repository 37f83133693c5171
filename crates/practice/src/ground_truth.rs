//! What is true of a practice vehicle, and its physics. A truth has no written form: it cannot get into a job.

use derecho_core::measure::{Angle, Length, Side};
use derecho_core::pose::clearance::straight_gap;
use derecho_core::pose::point::{AxlePoint, BodyPoint, Placing, Pose};
use derecho_core::pose::solver::{Held, Link, Start, Suspension};

/// What a reading goes from and to.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Feature {
    /// A face of the frame to the hub.
    Hub,
    /// A face of the frame to a straightedge on the sidewall.
    Sidewall,
    /// The body, by plumb line, to the sidewall.
    Body,
}

impl Feature {
    /// Every feature, the best first.
    pub const ALL: [Self; 3] = [Self::Hub, Self::Sidewall, Self::Body];
}

/// Something fixed to the body that the bar may touch.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct TrueObstacle {
    /// Its two ends.
    pub(crate) ends: [BodyPoint; 2],
    /// Half its thickness.
    pub(crate) radius: Length,
}

/// The vehicle as it is. Lengths in millimetres of its own; body axes x forward, y left, z up.
#[derive(Clone, Debug, PartialEq)]
pub struct GroundTruth {
    pub(crate) frame_eye_side: Side,
    pub(crate) axle_height: Length,
    pub(crate) frame_eye: BodyPoint,
    pub(crate) axle_eye: AxlePoint,
    pub(crate) arms: [Link; 3],
    /// The bar's length, eye to eye, as it is now.
    pub(crate) bar: Length,
    pub(crate) bar_radius: Length,
    /// How far each side's feature sits out of its place, outward, left and right.
    pub(crate) out: [[Length; 2]; 3],
    /// From the feature to what it is read to, with the axle centred.
    pub(crate) span: Length,
    /// How far bushings hold the axle to the left of its place until it is bounced.
    pub(crate) hold: Length,
    /// How far the axle lies anywhere either way within the bolts' play.
    pub(crate) play: Length,
    /// How far a person who leans on the body pushes it, to the left.
    pub(crate) leaning: Length,
    pub(crate) droop: Length,
    pub(crate) bump: Length,
    pub(crate) obstacle: Option<TrueObstacle>,
}

/// Where the axle is, in a pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct TruePlace {
    /// To the left of the frame's middle.
    pub(crate) sideways: Length,
    placing: Placing,
}

impl TruePlace {
    /// Height of the bar's axle eye above the floor.
    pub(crate) fn eye(&self, ground_truth: &GroundTruth) -> Length {
        Length::from_mm(self.placing.place(ground_truth.axle_eye).vector().z)
    }

    /// How much further forward the left end of the axle is than the right one, 1400 mm apart.
    pub(crate) fn left_ahead(&self, ground_truth: &GroundTruth) -> Length {
        let height = ground_truth.axle_height.to_mm();
        let end = |left: f64| self.placing.place(AxlePoint::from_mm(0.0, left, height)).vector().x;
        Length::from_mm(end(700.0) - end(-700.0))
    }
}

impl GroundTruth {
    /// Where the axle is at a travel of both wheels, nothing holding it; None where the links do not reach.
    pub(crate) fn place(&self, travel: Length) -> Option<TruePlace> {
        let bar = Link { body: self.frame_eye, axle: self.axle_eye, made: self.bar, stiffness: None };
        let links = std::iter::once(bar).chain(self.arms).collect();
        let suspension = Suspension::new(self.axle_height, links, None, Held::default());
        let solved = suspension.solve(travel, Angle::ZERO, Start::default()).ok()?;
        Some(TruePlace { sideways: solved.pose.y, placing: Placing::of(&solved.pose, self.axle_height) })
    }

    /// How far the axle truly sits to the left at ride height, at rest.
    #[must_use]
    pub fn offset(&self) -> Option<Length> {
        Some(self.place(Length::ZERO)?.sideways)
    }

    /// What the bar would be long to bring the axle to the middle: straight between its eyes with the axle centred.
    #[must_use]
    pub fn centring_length(&self) -> Length {
        let centred = Placing::of(&Pose::RIDE, self.axle_height);
        Length::from_mm(centred.place(self.axle_eye).vector().distance(self.frame_eye.vector()))
    }

    /// Whether the bar runs into what is beside it anywhere from full droop to full bump; None without anything
    /// beside it.
    #[must_use]
    pub fn touches(&self) -> Option<bool> {
        let obstacle = self.obstacle?;
        let ends = obstacle.ends.map(BodyPoint::vector);
        let steps = 40;
        let least = (0..=steps)
            .filter_map(|step| {
                let share = f64::from(step) / f64::from(steps);
                let place = self.place((self.bump + self.droop) * share - self.droop)?;
                let bar = [self.frame_eye.vector(), place.placing.place(self.axle_eye).vector()];
                Some(straight_gap(bar, self.bar_radius.to_mm(), ends, obstacle.radius.to_mm()).distance)
            })
            .fold(f64::INFINITY, f64::min);
        Some(least < 0.0)
    }
}
