//! Strength of bars against the equations it comes from, and where its limits lie.

use derecho_core::bar::bracket_load::{UsedHow, attachment_force, jacking, root_moment};
use derecho_core::bar::strength::{
    Material, Section, bar_load, dead_band, in_compression, slip_load, thread_root_share,
};
use derecho_core::measure::{Force, Length, Moment, Side};
use proptest::prelude::*;
use std::f64::consts::PI;

const fn newtons(newtons: f64) -> Force {
    Force::from_n(newtons)
}

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn material() -> impl Strategy<Value = Material> {
    prop::sample::select(vec![
        Material::SeamlessTube,
        Material::WeldedTube,
        Material::ChromeMolyTube,
        Material::ColdRolledSolid,
        Material::Forged,
    ])
}

fn section() -> impl Strategy<Value = Section> {
    (22.0..45.0_f64, prop::option::of(2.5..9.0_f64))
        .prop_map(|(outside, wall)| Section { outside: mm(outside), wall: wall.map(mm) })
}

proptest! {
    /// At the load it stands, the skin at mid-span just yields: the axial stress and the bending of the
    /// bow, grown as the load nears Euler's.
    #[test]
    fn at_the_critical_load_the_skin_just_yields(
        section in section(), material in material(), length in 500.0..1100.0_f64, bend in 0.0..60.0_f64,
    ) {
        let stood = in_compression(&section, material, mm(length), mm(bend), newtons(1000.0));
        let load = stood.critical_n;
        let bow = bend + length / 1000.0;
        let grown = bow / (1.0 - load / stood.euler_n);
        let skin = load / section.area() + load * grown / section.modulus();
        prop_assert!((skin / material.yield_stress().to_mpa() - 1.0).abs() < 1e-9, "{skin}");
        prop_assert!(load < stood.euler_n && load < material.yield_stress().to_mpa() * section.area());
        prop_assert!((stood.margin - load / 1000.0).abs() < 1e-9);
    }

    /// A bend costs, length costs, and a stronger steel never does.
    #[test]
    fn bends_and_length_cost(section in section(), length in 500.0..1000.0_f64, bend in 0.0..40.0_f64, more in 1.0..30.0_f64) {
        let stood = |material, length: f64, bend: f64| {
            in_compression(&section, material, mm(length), mm(bend), newtons(1.0)).critical_n
        };
        let here = stood(Material::WeldedTube, length, bend);
        prop_assert!(stood(Material::WeldedTube, length, bend + more) < here);
        prop_assert!(stood(Material::WeldedTube, length + more, bend) < here);
        prop_assert!(stood(Material::SeamlessTube, length, bend) > here);
    }

    /// A tube's figures are those of its outside less those of its inside.
    #[test]
    fn a_tube_is_a_bar_less_its_bore(outside in 25.0..50.0_f64, wall in 2.0..10.0_f64) {
        let tube = Section { outside: mm(outside), wall: Some(mm(wall)) };
        let solid = |d: f64| Section { outside: mm(d), wall: None };
        let inside = outside - 2.0 * wall;
        let close = |a: f64, b: f64| (a / b - 1.0).abs() < 1e-9;
        prop_assert!(close(tube.area(), solid(outside).area() - solid(inside).area()));
        prop_assert!(close(tube.second_moment(), solid(outside).second_moment() - solid(inside).second_moment()));
        prop_assert!(close(tube.mass(mm(800.0)).to_kg(), (solid(outside).mass(mm(800.0)) - solid(inside).mass(mm(800.0))).to_kg()));
        // A wall as thick as half of it leaves no bore.
        let full = Section { outside: mm(outside), wall: Some(mm(outside / 2.0)) };
        prop_assert!(close(full.area(), solid(outside).area()));
    }

    /// Work of the bar: what it puts in sideways and up lies along it.
    #[test]
    fn the_load_lies_along_the_bar(weight in 3000.0..20_000.0_f64, reach in 500.0..1000.0_f64, rise in 0.0..300.0_f64) {
        let length = reach.hypot(rise);
        let along = bar_load(newtons(weight), 1.0, mm(length), mm(reach)).to_n();
        // Its part sideways is the weight, its part up is what jacks.
        prop_assert!((along * reach / length / weight - 1.0).abs() < 1e-12);
        let up = jacking(Side::Left, newtons(weight), mm(rise), mm(reach));
        prop_assert!((along.powi(2) - weight.powi(2) - up.to_n().powi(2)).abs() < 1e-3 * along);
        // The other side's eye, the other way.
        prop_assert_eq!(jacking(Side::Right, newtons(weight), mm(rise), mm(reach)), -up);
    }

    /// A couple of two attachments holds the moment.
    #[test]
    fn two_attachments_hold_the_moment(load in 100.0..30_000.0_f64, lever in 20.0..300.0_f64, spacing in 30.0..200.0_f64) {
        let moment = root_moment(newtons(load), mm(lever));
        let force = attachment_force(moment, mm(spacing)).to_n();
        prop_assert!((force * spacing - load * lever).abs() < 1e-6 * load * lever);
    }

    /// Clearances let the axle move as far sideways as the bar lies along it.
    #[test]
    fn the_dead_band_is_the_slack_along_the_bar(slack in 0.1..3.0_f64, reach in 500.0..1000.0_f64, rise in 0.0..300.0_f64) {
        let length = reach.hypot(rise);
        let band = dead_band(mm(slack), mm(length), mm(reach)).to_mm();
        // An axle that moves by the band shortens the distance of the eyes by about the slack.
        let shortened = length - (reach - band).hypot(rise);
        prop_assert!((shortened - slack).abs() < slack * 0.02 + 1e-3, "{band} {shortened}");
    }
}

#[test]
fn a_stub_yields_and_a_whip_buckles() {
    let bar = Section { outside: mm(30.0), wall: None };
    // So short that it cannot bow: yield times area, but for its thousandth.
    let stub = in_compression(&bar, Material::ColdRolledSolid, mm(20.0), Length::ZERO, newtons(1.0));
    let yields = 370.0 * PI / 4.0 * 900.0;
    assert!((stub.critical_n / yields - 1.0).abs() < 0.01, "{}", stub.critical_n / yields);
    // So long that it bows long before it yields: Euler's π²·205 000·I/L².
    let whip = in_compression(&bar, Material::ColdRolledSolid, mm(9000.0), Length::ZERO, newtons(1.0));
    let euler = PI * PI * 205_000.0 * PI / 64.0 * 810_000.0 / 81e6;
    assert!((whip.euler_n / euler - 1.0).abs() < 1e-9);
    assert!((whip.critical_n / euler - 1.0).abs() < 0.06, "{}", whip.critical_n / euler);
}

#[test]
fn threads_and_bolts_by_hand() {
    // A 1 in thread of 12 to the inch has a root of 1 − 1.2269/12 = 0.897 758 in: 0.805 970 of the area of
    // a solid inch bar.
    let solid = Section { outside: Length::from_inches(1.0), wall: None };
    let share = thread_root_share(Length::from_inches(1.0), Length::from_inches(1.0 / 12.0), &solid);
    assert!((share - 0.805_970).abs() < 1e-5, "{share}");
    // Finer threads leave more.
    let fine = thread_root_share(Length::from_inches(1.0), Length::from_inches(1.0 / 20.0), &solid);
    assert!(fine > share);
    // Twice the torque holds twice; oil holds more at the same torque.
    let dry = slip_load(Moment::from_nm(100.0), 0.20, mm(14.0));
    assert!((slip_load(Moment::from_nm(200.0), 0.20, mm(14.0)) / dry - 2.0).abs() < 1e-12);
    assert!((slip_load(Moment::from_nm(100.0), 0.15, mm(14.0)) / dry - 0.20 / 0.15).abs() < 1e-12);
    assert!(UsedHow::Hard.factor() > UsedHow::Trail.factor() && UsedHow::Road.factor() >= 1.0);
}
