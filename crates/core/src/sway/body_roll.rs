//! The whole vehicle in roll: how far it leans on the road, and how far it twists on the
//! trail before something ends it. Two axles, small angles, springs and bars as rates.

use crate::measure::{Angle, Force, Length, RollRate, SpringRate};

/// One axle's share of the roll.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AxleRoll {
    /// Springs alone.
    pub springs: RollRate,
    /// The sway bar at ride height.
    pub bar: RollRate,
    /// Weight on the axle.
    pub weight: Force,
    /// Track.
    pub track: Length,
    /// Roll at which a stop, a link or a joint ends it.
    pub most_roll: Angle,
    /// Roll rate of both tyres, where it is known.
    pub tyres: Option<RollRate>,
}

impl AxleRoll {
    /// Springs and bar, tyres in series where known: K/(1 + K/K_tyre).
    #[must_use]
    pub fn rate(&self) -> RollRate {
        let alone = self.springs + self.bar;
        self.tyres.map_or(alone, |tyres| alone / (1.0 + alone / tyres))
    }

    /// The same axle with another bar.
    #[must_use]
    pub const fn with_bar(self, bar: RollRate) -> Self {
        Self { bar, ..self }
    }
}

/// Roll rate of a pair of springs: ½·k·spacing².
///
/// ```
/// use derecho_core::measure::{Length, SpringRate};
///
/// use derecho_core::sway::body_roll::spring_roll_rate;
///
/// // k·s²/2: 30 N/mm a metre apart are 15 kN·m to the radian.
/// let rate = spring_roll_rate(SpringRate::from_n_per_mm(30.0), Length::from_mm(1000.0));
/// assert!((rate.to_nm_per_radian() - 15_000.0).abs() < 1e-6);
/// ```
#[must_use]
pub fn spring_roll_rate(rate: SpringRate, spacing: Length) -> RollRate {
    RollRate::from_nmm_per_radian((rate * spacing * spacing).to_nmm() * 0.5)
}

/// Roll on the road at one g: m·g·H/(K_front + K_rear − m·g·H), `overturning` being m_s·g·H. None where the vehicle would not stand.
#[must_use]
pub fn roll_gradient(front: &AxleRoll, rear: &AxleRoll, overturning: RollRate) -> Option<Angle> {
    let left = front.rate() + rear.rate() - overturning;
    (left > RollRate::ZERO).then(|| Angle::from_radians(overturning / left))
}

/// What ends the twist first.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum TwistEnd {
    /// A front wheel lifts.
    FrontLifts,
    /// A rear wheel lifts.
    RearLifts,
    /// Travel, links or joints at the front.
    FrontLimit,
    /// Travel, links or joints at the rear.
    RearLimit,
}

/// Twist of the ground between the axles at which something ends it, and what: the
/// frame rolls φ_b = K_f·θ/(K_f + K_r − m·g·H), the rear against it by φ_b, the front by θ − φ_b;
/// a wheel lifts at K·φ = W·track/2. None where the vehicle would not stand.
#[must_use]
pub fn trail_twist(front: &AxleRoll, rear: &AxleRoll, overturning: RollRate) -> Option<(Angle, TwistEnd)> {
    let (k_f, k_r) = (front.rate(), rear.rate());
    let left = k_f + k_r - overturning;
    if left <= RollRate::ZERO {
        return None;
    }
    let share_rear = k_f / left;
    let share_front = 1.0 - share_rear;
    let lifts = |axle: &AxleRoll, share: f64| {
        let moment = axle.weight * (axle.track / 2.0);
        Angle::from_radians(moment.to_nmm() / axle.rate().to_nmm_per_radian() / share.abs())
    };
    let limit = |axle: &AxleRoll, share: f64| axle.most_roll / share.abs();
    [
        (lifts(front, share_front), TwistEnd::FrontLifts),
        (lifts(rear, share_rear), TwistEnd::RearLifts),
        (limit(front, share_front), TwistEnd::FrontLimit),
        (limit(rear, share_rear), TwistEnd::RearLimit),
    ]
    .into_iter()
    .filter(|(twist, _)| twist.to_radians().is_finite())
    .min_by(|a, b| a.0.to_radians().total_cmp(&b.0.to_radians()))
}

/// Change of weight at each wheel by unequal links: k_eff·Δl/a²·(2b/track)·K_other/(K_bar +
/// K_springs + K_other).
#[must_use]
pub fn preload(
    effective: RollRate,
    (difference, arm): (Length, Length),
    half_spacing: Length,
    this: &AxleRoll,
    other: &AxleRoll,
) -> Force {
    let share = other.rate() / (this.bar + this.springs + other.rate());
    let at_the_arms = effective * Angle::from_radians(difference / arm) / arm;
    at_the_arms * (half_spacing * 2.0 / this.track) * share
}

#[cfg(test)]
mod tests {
    use super::*;

    fn roll_rate(newton_mm: f64) -> RollRate {
        RollRate::from_nmm_per_radian(newton_mm)
    }

    fn axle(springs: f64, bar: f64) -> AxleRoll {
        AxleRoll {
            springs: roll_rate(springs),
            bar: roll_rate(bar),
            weight: Force::from_n(10_000.0),
            track: Length::from_mm(1500.0),
            most_roll: Angle::from_radians(0.2),
            tyres: None,
        }
    }

    #[test]
    fn rates_by_hand() {
        let springs = spring_roll_rate(SpringRate::from_n_per_mm(30.0), Length::from_mm(1000.0));
        assert_eq!(springs, roll_rate(15e6));
        let soft = AxleRoll { tyres: Some(roll_rate(30e6)), ..axle(15e6, 15e6) };
        assert_eq!(soft.rate(), roll_rate(15e6));
        // 4e6 over 40e6 − 4e6, in degrees.
        let gradient = roll_gradient(&axle(15e6, 10e6), &axle(15e6, 0.0), roll_rate(4e6)).unwrap();
        assert!((gradient.to_radians() - 1.0 / 9.0).abs() < 1e-9);
        assert_eq!(roll_gradient(&axle(1e6, 0.0), &axle(1e6, 0.0), roll_rate(4e6)), None);
    }

    #[test]
    fn the_stiffer_axle_lifts_its_wheel_first_and_balance_is_kept() {
        let (front, rear) = (axle(20e6, 30e6), axle(20e6, 0.0));
        let (twist, end) = trail_twist(&front, &rear, RollRate::ZERO).unwrap();
        // Without overturning both axles carry the same moment: K_f·φ_f = K_r·φ_r.
        let moment = (front.rate() * (rear.rate() / (front.rate() + rear.rate())) * twist).to_nmm();
        match end {
            TwistEnd::FrontLifts | TwistEnd::RearLifts => assert!((moment - 7.5e6).abs() < 1e-3),
            TwistEnd::RearLimit => {
                assert!((moment / rear.rate().to_nmm_per_radian() - 0.2).abs() < 1e-12);
            }
            TwistEnd::FrontLimit => panic!("the stiff end rolls least"),
        }
        // Disconnected it twists further.
        let (free, _) = trail_twist(&front.with_bar(RollRate::ZERO), &rear, RollRate::ZERO).unwrap();
        assert!(free > twist);
    }

    #[test]
    fn preload_by_hand() {
        let (this, other) = (axle(15e6, 5e6), axle(20e6, 0.0));
        // 3e6·10/250²·(1000/1500)·20/40.
        let change = preload(
            roll_rate(3e6),
            (Length::from_mm(10.0), Length::from_mm(250.0)),
            Length::from_mm(500.0),
            &this,
            &other,
        );
        assert!((change.to_n() - 3e6 * 10.0 / 62_500.0 * (2.0 / 3.0) * 0.5).abs() < 1e-9);
    }
}
