//! Arms and links against numeric roots and brute force, the window of links against trying them,
//! rates against virtual work done step by step.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::{Angle, Length, SpringRate};
use derecho_core::sway::rate::{SHEAR, YOUNG};
use derecho_core::sway::{Arm, ArmFault, BarRate, rate_by_hole, window};
use proptest::prelude::*;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

/// The link's length that an arm at an angle leaves to its far end, less the link: nought where it
/// closes. All in mm, seen from the arm's own side.
fn gap(arm: &Arm, alpha: f64, far: (f64, f64, f64)) -> f64 {
    let turn = if arm.forward { 1.0 } else { -1.0 };
    let (x, z) = (turn * arm.length.to_mm() * alpha.cos(), arm.length.to_mm() * alpha.sin());
    ((far.0 - x).powi(2) + (far.1 - z).powi(2) + far.2.powi(2)).sqrt() - arm.link.to_mm()
}

/// The root of the gap between two angles, by halving.
fn by_halving(arm: &Arm, far: (f64, f64, f64), mut low: f64, mut high: f64) -> f64 {
    let below = gap(arm, low, far) < 0.0;
    for _ in 0..80 {
        let middle = f64::midpoint(low, high);
        if (gap(arm, middle, far) < 0.0) == below {
            low = middle;
        } else {
            high = middle;
        }
    }
    f64::midpoint(low, high)
}

proptest! {
    /// The angle in closed form is the root found by halving on the link's own side of the arm: between
    /// the direction to the far end and that direction a half turn on.
    #[test]
    fn the_closed_form_is_the_numeric_root(
        a in 150.0..400.0_f64, l in 100.0..450.0_f64, share in 0.02..0.98_f64, bearing in -80.0..80.0_f64,
        out in -30.0..30.0_f64, forward: bool, link_up: bool,
    ) {
        let arm = Arm { length: mm(a), link: mm(l), forward, link_up };
        let flat = (l * l - out * out).sqrt();
        let (near, reach) = ((a - flat).abs(), a + flat);
        let r = near + (reach - near) * share;
        let turn = if forward { 1.0 } else { -1.0 };
        let (sin, cos) = bearing.to_radians().sin_cos();
        let far = (turn * r * cos, r * sin, out);
        let pose = arm.pose(mm(far.0), mm(far.1), mm(out)).unwrap();
        let towards = bearing.to_radians();
        let away = if link_up { towards - std::f64::consts::PI } else { towards + std::f64::consts::PI };
        let root = by_halving(&arm, far, towards, away);
        prop_assert!((pose.above_level.to_radians() - root).abs() < 1e-9, "{root} {:?}", pose);
    }

    /// What is left to a straight line and to folded is what is left when the far end moves there.
    #[test]
    fn moved_by_what_is_left_the_link_is_straight_or_folded(
        a in 150.0..400.0_f64, l in 100.0..450.0_f64, share in 0.02..0.98_f64, bearing in -80.0..80.0_f64,
    ) {
        prop_assume!((a - l).abs() > 1.0);
        let arm = Arm { length: mm(a), link: mm(l), forward: true, link_up: false };
        let near = (a - l).abs();
        let r = near + (a + l - near) * share;
        let (sin, cos) = bearing.to_radians().sin_cos();
        let at = |r: f64| arm.pose(mm(r * cos), mm(r * sin), Length::ZERO);
        let pose = at(r).unwrap();
        let straight = r + pose.to_straight.to_mm();
        prop_assert!(at(straight - 1e-6).is_ok());
        prop_assert!(matches!(at(straight + 1e-6), Err(ArmFault::OverExtended(_))));
        let folded = r - pose.to_folded.to_mm();
        prop_assert!(at(folded + 1e-6).is_ok());
        prop_assert!(matches!(at(folded - 1e-6), Err(ArmFault::Folded(_))));
    }

    /// Going through everything in small steps the angle never jumps: the branch is kept.
    #[test]
    fn the_branch_is_continuous(a in 180.0..350.0_f64, l in 120.0..300.0_f64, forward: bool, link_up: bool) {
        let arm = Arm { length: mm(a), link: mm(l), forward, link_up };
        let turn = if forward { 1.0 } else { -1.0 };
        let way = if link_up { 1.0 } else { -1.0 };
        // The far end goes up and down under or over the level arm's eye, as far as the link allows.
        let least = -0.6 * a.min(l);
        let mut before: Option<f64> = None;
        for step in 0..=400 {
            let z = way * l + least + 2.0 * -least * f64::from(step) / 400.0;
            if let Ok(pose) = arm.pose(mm(turn * a), mm(z), Length::ZERO) {
                let here = pose.above_level.to_degrees();
                if let Some(before) = before {
                    prop_assert!((here - before).abs() < 2.5, "{before} to {here} at {z}");
                }
                before = Some(here);
            } else {
                before = None;
            }
        }
    }

    /// The links the window allows are those that keep γ inside its bounds at both ends of the reach,
    /// tried one by one.
    #[test]
    fn the_window_is_what_trying_finds(a in 200.0..350.0_f64, near in 360.0..420.0_f64, more in 5.0..60.0_f64) {
        let bounds = (30.0_f64, 150.0_f64);
        let found = window(
            mm(a),
            (mm(near), mm(near + more)),
            (Angle::from_degrees(bounds.0), Angle::from_degrees(bounds.1)),
        );
        let legal = |l: f64| {
            [near, near + more].into_iter().all(|r| {
                let arm = Arm { length: mm(a), link: mm(l), forward: true, link_up: false };
                arm.pose(mm(r), Length::ZERO, Length::ZERO)
                    .is_ok_and(|pose| (bounds.0..=bounds.1).contains(&pose.at_eye.to_degrees()))
            })
        };
        for link in (60..800).map(f64::from) {
            let inside = found.is_some_and(|(least, most)| (least.to_mm()..=most.to_mm()).contains(&link));
            let edge = found.is_some_and(|(least, most)| {
                (least.to_mm() - link).abs() < 1e-6 || (most.to_mm() - link).abs() < 1e-6
            });
            prop_assert!(edge || inside == legal(link), "{link} {found:?}");
        }
    }

    /// A bar's effective rate is the twist between its arms per moment, added up part by part: the
    /// moment at the eyes does work on the twist of the bar, the bending of both arms and the squash of
    /// links and bushes.
    #[test]
    fn virtual_work_adds_up_the_parts(
        d in 18.0..36.0_f64, hollow in 0.0..0.8_f64, active in 600.0..1200.0_f64, a in 180.0..380.0_f64,
        link in 500.0..9000.0_f64, bush in 500.0..9000.0_f64, half in 250.0..500.0_f64, b in 350.0..600.0_f64,
    ) {
        let bar = BarRate {
            outside: mm(d),
            bore: mm(d * hollow),
            active: mm(active),
            arm: mm(a),
            bending_arm: Some(mm(a)),
            link: Some(SpringRate::from_n_per_mm(link)),
            bush: Some((SpringRate::from_n_per_mm(bush), mm(half))),
            half_spacing: mm(b),
        };
        // A real moment T at the eyes and a virtual one of 1: ∫ T·1/(GJ) along the bar in slices, twice
        // ∫ M·m/(EI) along an arm in slices, and forces over rates at links and bushes.
        let torque = 5000.0;
        let force = torque / a;
        let polar = std::f64::consts::PI * (d.powi(4) - (d * hollow).powi(4)) / 32.0;
        let slices = 2000;
        let along: f64 = (0..slices).map(|_| torque / (SHEAR * polar) * active / f64::from(slices)).sum();
        let arms: f64 = (0..slices)
            .map(|slice| {
                let s = (f64::from(slice) + 0.5) * a / f64::from(slices);
                2.0 * (force * s) * (s / a) / (YOUNG * polar / 2.0) * a / f64::from(slices)
            })
            .sum();
        let links = 2.0 * force / link / a;
        let bushes = 2.0 * (force * b / half) * (b / half / a) / bush;
        let twist = along + arms + links + bushes;
        prop_assert!((bar.effective().to_nmm_per_radian() * twist / torque - 1.0).abs() < 1e-5, "{twist}");
    }

    /// Holes of a bar with stiff arms: the force at the eye per travel there goes with 1/a².
    #[test]
    fn holes_go_with_the_square(a in 180.0..300.0_f64, others in prop::collection::vec(150.0..400.0_f64, 1..6)) {
        let rates = rate_by_hole(mm(a), &others.iter().map(|hole| mm(*hole)).collect::<Vec<_>>());
        let at_eye = |arm: f64| {
            let bar = BarRate {
                outside: mm(25.0),
                bore: Length::ZERO,
                active: mm(900.0),
                arm: mm(arm),
                bending_arm: None,
                link: None,
                bush: None,
                half_spacing: mm(400.0),
            };
            bar.effective().to_nmm_per_radian() / (arm * arm)
        };
        for (rate, hole) in rates.iter().zip(&others) {
            prop_assert!((rate * at_eye(a) / at_eye(*hole) - 1.0).abs() < 1e-9);
        }
    }
}

#[test]
fn a_link_as_long_as_it_is_wide_apart_is_reported() {
    let arm = Arm { length: mm(250.0), link: mm(40.0), forward: true, link_up: false };
    assert_eq!(arm.pose(mm(250.0), mm(-30.0), mm(40.0)), Err(ArmFault::Sideways));
    let reported = ArmFault::OverExtended(mm(12.0)).to_string();
    assert!(reported.starts_with("arm and link fall short of the far end"), "{reported}");
}

#[test]
fn the_link_for_a_target_closes_at_that_target() {
    for (forward, link_up) in [(true, false), (false, false), (true, true), (false, true)] {
        let turn = if forward { 1.0 } else { -1.0 };
        let way = if link_up { 1.0 } else { -1.0 };
        let arm = Arm { length: mm(240.0), link: Length::ZERO, forward, link_up };
        for target in [-12.0, 0.0, 9.0] {
            let target = Angle::from_degrees(target);
            let (ahead, above, out) = (mm(turn * 245.0), mm(way * 190.0), mm(12.0));
            let link = arm.link_for(target, ahead, above, out);
            let pose = Arm { link, ..arm }.pose(ahead, above, out).unwrap();
            assert!((pose.above_level.to_degrees() - target.to_degrees()).abs() < 1e-9, "{pose:?}");
        }
    }
}
