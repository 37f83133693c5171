//! One arm and its link, in the plane of the arm.

use thiserror::Error;

use crate::measure::{Angle, Length};

/// Where a link stops guiding its arm.
#[derive(Clone, Copy, Debug, PartialEq, Error)]
pub enum ArmFault {
    /// Arm and link are stretched into one line and do not reach.
    #[error("arm and link fall short of the far end by {0:?}")]
    OverExtended(Length),
    /// Arm and link are folded upon each other and do not fit in between.
    #[error("arm and link are folded back on each other and {0:?} too long")]
    Folded(Length),
    /// The link is shorter than its ends are apart sideways.
    #[error("the link is shorter than the sideways distance between its ends")]
    Sideways,
}

/// An arm with its link.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Arm {
    /// a, from the bar's axis to the link's eye.
    pub length: Length,
    /// l, the link between its eyes.
    pub link: Length,
    /// Whether the arm points forward from the bar; else back.
    pub forward: bool,
    /// Whether the link goes up from the arm (bars on the axle); else down.
    pub link_up: bool,
}

/// An arm in one pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ArmPose {
    /// α, the arm above horizontal.
    pub above_level: Angle,
    /// γ at the link's eye between arm and link: 90° is best, 180° a straight line.
    pub at_eye: Angle,
    /// Distance left to a straight line, a + l_f − r.
    pub to_straight: Length,
    /// Distance left to folded, r − |a − l_f|.
    pub to_folded: Length,
}

impl Arm {
    /// The arm where its link's far end is `ahead` of the bar's axis, `above` it, and
    /// `sideways` of the arm's eye: α and γ in closed form (law of cosines), on the branch
    /// on which the link hangs on its own side of the arm.
    ///
    /// With D from the bar's axis to the far end, r = √(D_x² + D_z²), l_f = √(l² − D_y²):
    /// cos γ = (a² + l_f² − r²)/(2·a·l_f).
    ///
    /// # Errors
    /// Where arm and link do not close.
    pub fn pose(&self, ahead: Length, above: Length, sideways: Length) -> Result<ArmPose, ArmFault> {
        let (a, l) = (self.length.to_mm(), self.link.to_mm());
        let flat = l * l - sideways.to_mm() * sideways.to_mm();
        if flat <= 0.0 {
            return Err(ArmFault::Sideways);
        }
        let (l_f, r) = (flat.sqrt(), ahead.to_mm().hypot(above.to_mm()));
        let (to_straight, to_folded) = (a + l_f - r, r - (a - l_f).abs());
        if to_straight < 0.0 {
            return Err(ArmFault::OverExtended(Length::from_mm(-to_straight)));
        }
        if to_folded < 0.0 {
            return Err(ArmFault::Folded(Length::from_mm(-to_folded)));
        }
        let clamp = |cosine: f64| cosine.clamp(-1.0, 1.0).acos();
        let at_eye = clamp((a * a + l_f * l_f - r * r) / (2.0 * a * l_f));
        let at_axis = clamp((a * a + r * r - l_f * l_f) / (2.0 * a * r));
        // Seen so that the arm points to the right: a link that hangs down leaves the arm above
        // the line to its far end, one that goes up leaves it below.
        let out = if self.forward { ahead.to_mm() } else { -ahead.to_mm() };
        let to_far = above.to_mm().atan2(out);
        let above_level = if self.link_up { to_far - at_axis } else { to_far + at_axis };
        Ok(ArmPose {
            above_level: Angle::from_radians(above_level),
            at_eye: Angle::from_radians(at_eye),
            to_straight: Length::from_mm(to_straight),
            to_folded: Length::from_mm(to_folded),
        })
    }

    /// dα for a small move of the link's far end: with E the link's eye and M the far end,
    /// (E − M)·∂E/∂α·dα = (E − M)·dM keeps the link's length. `far` and `moved` are ahead, above and
    /// sideways of the arm's eye, mm. None where arm and link lie in one line: no move turns it then.
    #[must_use]
    pub fn turned_by(&self, at: &ArmPose, far: [f64; 3], moved: [f64; 3]) -> Option<f64> {
        let turn = if self.forward { 1.0 } else { -1.0 };
        let (a, (sin, cos)) = (self.length.to_mm(), at.above_level.to_radians().sin_cos());
        let link = [turn * a * cos - far[0], a * sin - far[1], -far[2]];
        let lever = a * (link[1] * cos - turn * link[0] * sin);
        let along = link[0] * moved[0] + link[1] * moved[1] + link[2] * moved[2];
        (lever.abs() > 1e-9 * a * a).then(|| along / lever)
    }

    /// The link that puts the arm at an angle above level where its far end is there.
    #[must_use]
    pub fn link_for(&self, above_level: Angle, ahead: Length, above: Length, sideways: Length) -> Length {
        let turn = if self.forward { 1.0 } else { -1.0 };
        let eye_x = turn * self.length.to_mm() * above_level.cos();
        let eye_z = self.length.to_mm() * above_level.sin();
        let (dx, dy, dz) = (ahead.to_mm() - eye_x, sideways.to_mm(), above.to_mm() - eye_z);
        Length::from_mm((dx * dx + dy * dy + dz * dz).sqrt())
    }
}

/// Shortest and longest link that works, in the arm's plane, where the far end is between `near`
/// and `far` from the bar's axis over all poses and γ has to stay between two angles:
/// l_min = a·cos γ_hi + √(r_max² − a²·sin²γ_hi), l_max = a·cos γ_lo + √(r_min² − a²·sin²γ_lo).
/// None where there is no such link.
#[must_use]
pub fn window(
    arm: Length,
    (near, far): (Length, Length),
    (low, high): (Angle, Angle),
) -> Option<(Length, Length)> {
    let a = arm.to_mm();
    let link = |r: f64, gamma: Angle| {
        let under = r * r - (a * gamma.sin()).powi(2);
        (under >= 0.0).then(|| a * gamma.cos() + under.sqrt())
    };
    let most = link(near.to_mm(), low)?;
    // With the far end nearer to the axis than the arm is long, a short link folds it up too: the
    // other root of the same triangle, 2·a·cos γ_lo less the first.
    let least = link(far.to_mm(), high)?.max(2.0 * a * low.cos() - most);
    (least <= most).then_some((Length::from_mm(least), Length::from_mm(most)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    fn hanging() -> Arm {
        Arm { length: mm(250.0), link: mm(200.0), forward: true, link_up: false }
    }

    #[test]
    fn a_level_arm_over_an_upright_link_is_square() {
        let pose = hanging().pose(mm(250.0), mm(-200.0), Length::ZERO).unwrap();
        assert!(pose.above_level.to_degrees().abs() < 1e-9);
        assert!((pose.at_eye.to_degrees() - 90.0).abs() < 1e-9);
        let up = Arm { link_up: true, ..hanging() };
        assert!(up.pose(mm(250.0), mm(200.0), Length::ZERO).unwrap().above_level.to_degrees().abs() < 1e-9);
        let back = Arm { forward: false, ..hanging() };
        assert!(
            back.pose(mm(-250.0), mm(-200.0), Length::ZERO).unwrap().above_level.to_degrees().abs() < 1e-9
        );
    }

    #[test]
    fn stretched_and_folded_links_are_told_apart() {
        // 450 is a straight line; 50 is folded.
        let at = |down: f64| hanging().pose(Length::ZERO, mm(-down), Length::ZERO);
        assert_eq!(at(460.0), Err(ArmFault::OverExtended(mm(10.0))));
        assert!(matches!(at(45.0), Err(ArmFault::Folded(_))));
        assert!((at(450.0).unwrap().at_eye.to_degrees() - 180.0).abs() < 1e-6);
        assert_eq!(hanging().pose(mm(250.0), mm(-200.0), mm(200.0)), Err(ArmFault::Sideways));
    }

    #[test]
    fn the_legal_window_by_hand() {
        // a 300, r from 350 to 450, γ between 30° and 150°: l_min = −300·cos 30° + √(450² − 150²),
        // l_max = 300·cos 30° + √(350² − 150²).
        let (least, most) = window(
            mm(300.0),
            (mm(350.0), mm(450.0)),
            (Angle::from_degrees(30.0), Angle::from_degrees(150.0)),
        )
        .unwrap();
        assert!((least.to_mm() - (180_000.0_f64.sqrt() - 300.0 * 0.75_f64.sqrt())).abs() < 1e-9);
        assert!((most.to_mm() - (100_000.0_f64.sqrt() + 300.0 * 0.75_f64.sqrt())).abs() < 1e-9);
        let narrow = (Angle::from_degrees(89.0), Angle::from_degrees(91.0));
        assert_eq!(window(mm(300.0), (mm(350.0), mm(450.0)), narrow), None);
    }

    proptest! {
        #[test]
        fn the_closed_form_closes(
            a in 150.0..400.0_f64, l in 100.0..400.0_f64, alpha in -50.0..50.0_f64, lean in -40.0..40.0_f64,
            y in -30.0..30.0_f64, forward: bool, link_up: bool,
        ) {
            // The far end from the angles, and the angles back from it.
            let turn = if forward { 1.0 } else { -1.0 };
            let (sin, cos) = alpha.to_radians().sin_cos();
            let flat = (l * l - y * y).sqrt();
            let (side, down) = lean.to_radians().sin_cos();
            let way = if link_up { 1.0 } else { -1.0 };
            let (ahead, above) = (turn * (a * cos + flat * side), a * sin + way * flat * down);
            let arm = Arm { length: mm(a), link: mm(l), forward, link_up };
            let pose = arm.pose(mm(ahead), mm(above), mm(y)).unwrap();
            // γ between the arm back to its axis and the link: both known from the drawing.
            let cosine = -(cos * side + way * sin * down);
            prop_assert!((pose.at_eye.cos() - cosine).abs() < 1e-9);
            // On its own side of the arm the angle is found again.
            let own_side = way * (cos * way * down - sin * side) > 1e-6;
            if own_side {
                prop_assert!((pose.above_level.to_degrees() - alpha).abs() < 1e-6);
                let again = arm.link_for(pose.above_level, mm(ahead), mm(above), mm(y));
                prop_assert!((again.to_mm() - l).abs() < 1e-6);
            }
        }

        #[test]
        fn inside_the_window_gamma_stays_inside_its_bounds(
            a in 200.0..350.0_f64, near in 300.0..380.0_f64, more in 5.0..90.0_f64, share in 0.0..1.0_f64, at in 0.0..1.0_f64,
        ) {
            let bounds = (Angle::from_degrees(30.0), Angle::from_degrees(150.0));
            if let Some((least, most)) = window(mm(a), (mm(near), mm(near + more)), bounds) {
                let link = least + (most - least) * share;
                let arm = Arm { length: mm(a), link, forward: true, link_up: false };
                let pose = arm.pose(mm(near + more * at), Length::ZERO, Length::ZERO).unwrap();
                prop_assert!((30.0 - 1e-6..=150.0 + 1e-6).contains(&pose.at_eye.to_degrees()));
            }
        }
    }
}
