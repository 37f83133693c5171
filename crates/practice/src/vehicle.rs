//! A practice vehicle: its truth, how it stands, and what can be done to it.

use derecho_core::fastener::Thread;
use derecho_core::measure::draws::Draws;
use derecho_core::measure::{Length, Side, Unit};
use derecho_core::pose::point::{AxlePoint, BodyPoint};
use derecho_core::pose::solver::Link;

use crate::ground_truth::{Feature, GroundTruth, TrueObstacle};

/// How it stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Stance {
    /// On its wheels at ride height.
    OnItsWeight,
    /// On stands, the axle hanging.
    Hanging,
}

/// A thread of the bar's adjuster, as somebody reads it off the part.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct SleeveThread {
    /// As it is written on it.
    pub name: &'static str,
    /// Whether it is one of inches.
    pub inches: bool,
}

impl SleeveThread {
    /// How far one turn goes along it.
    #[must_use]
    pub fn lead(self) -> Length {
        // Every name below is a thread.
        let thread = Thread::parse(self.name).ok();
        thread.map_or(Length::ZERO, |thread| thread.pitch())
    }
}

const THREADS: [SleeveThread; 6] = [
    SleeveThread { name: "1-14", inches: true },
    SleeveThread { name: "1-1/4-12", inches: true },
    SleeveThread { name: "1-1/8-12", inches: true },
    SleeveThread { name: "M27x2", inches: false },
    SleeveThread { name: "M30x2", inches: false },
    SleeveThread { name: "M33x2", inches: false },
];

/// A vehicle that can be read and worked on. The same seed gives the same vehicle and the same readings of it.
#[derive(Clone, Debug)]
pub struct PracticeVehicle {
    pub(crate) ground_truth: GroundTruth,
    /// The unit its owner's tape has.
    pub unit: Unit,
    /// Which end of the vehicle it is.
    pub rear: bool,
    /// How it stands.
    pub stance: Stance,
    /// Whether bushings hold it where it was before it was bounced.
    pub unsettled: bool,
    /// Whether somebody leans on it.
    pub leant_on: bool,
    /// The thread of its sleeve.
    pub thread: SleeveThread,
    /// Thread that is in at either end, frame-side end first.
    pub engagement: [Length; 2],
    /// Thread at which either end bottoms.
    pub depth: Length,
    /// How much higher than it is driven the body stands, in a raised mode.
    pub raised: Length,
    /// The sway link, where a lesson has one.
    pub(crate) link: Option<SwayLink>,
    /// How far a torn bushing or bracket lets the axle lie to either side, otherwise at every bounce: a deviation.
    pub(crate) gives: Length,
    lies: Length,
    draws: Draws,
}

/// An arm and its link, seen from the side: closes where the far end lies within reach.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct SwayLink {
    /// Along the arm.
    pub(crate) arm: Length,
    /// The far end from the bar's axis at ride height: ahead, and below.
    pub(crate) ahead: Length,
    pub(crate) below: Length,
    /// Between the link's eyes.
    pub(crate) length: Length,
}

/// A link this near to straight goes over with the give of its bushings.
const NEARLY_STRAIGHT: Length = Length::from_mm(6.0);

impl SwayLink {
    /// Whether it goes over centre, or does not close, anywhere between droop and bump.
    pub(crate) fn fails(&self, droop: Length, bump: Length) -> bool {
        [-droop, Length::ZERO, bump].into_iter().any(|travel| {
            let far = self.ahead.to_mm().hypot((self.below - travel).to_mm());
            let most = (self.arm + self.length - NEARLY_STRAIGHT).to_mm();
            far > most || far < (self.arm - self.length).abs().to_mm()
        })
    }
}

/// How a vehicle is drawn: what is usual of such trucks, not what the advice takes. Its spreads are others, its tails are
/// heavier than a bell curve's, and some frames and hubs are bent.
mod spread {
    use derecho_core::measure::Length;

    /// Standard deviation of where either face of a frame, either sidewall, either plumbed mark of a body lies, mm, on
    /// a vehicle of middling make. Two halved have 1/√2 of it: 0.74, 1.6 and 2.7.
    pub(super) const OUT: [f64; 3] = [1.05, 2.3, 3.8];
    /// Makes differ: a vehicle's deviation is so many times that of a middling one, at the least and at the most.
    pub(super) const MAKE: [f64; 2] = [0.6, 1.3];
    /// Share of faces that lie out of their place so many times as far.
    pub(super) const FAR_OUT: (f64, f64) = (0.04, 2.5);
    /// Share of vehicles whose frame is bent in on one side, and by how much, mm: its faces go with it.
    pub(super) const BENT_FRAME: (f64, [f64; 2]) = (0.03, [2.0, 6.0]);
    /// Share of vehicles with a bent hub on one side, and by how much, mm.
    pub(super) const BENT_HUB: (f64, [f64; 2]) = (0.02, [1.5, 5.0]);
    /// Share of readings that scatter so many times as far: the hook slipped, the eye was not square over it.
    pub(super) const SLIPPED: (f64, f64) = (0.05, 3.0);
    /// Bushings that hold an axle after it was let down.
    pub(super) const HOLD: Length = Length::from_mm(3.0);
    /// A person's push on a fender.
    pub(super) const LEANING: Length = Length::from_mm(2.5);
    /// Most of the bolts' play, either way.
    pub(super) const PLAY: f64 = 0.3;
}

/// How far each side's feature lies out of its place, outward, [feature][left, right].
fn out_of_place(draws: &mut Draws) -> [[Length; 2]; 3] {
    let make = between(draws, spread::MAKE[0], spread::MAKE[1]);
    let mut out = spread::OUT.map(|deviation| {
        [0; 2].map(|_| {
            let (share, times) = spread::FAR_OUT;
            let far = if between(draws, 0.0, 1.0) < share { times } else { 1.0 };
            draws.normal(mm(deviation * make * far))
        })
    });
    let mut bent = |(share, by): (f64, [f64; 2]), features: &[Feature]| {
        let (chance, side, by) =
            (between(draws, 0.0, 1.0), between(draws, 0.0, 1.0), between(draws, by[0], by[1]));
        if chance < share {
            for feature in features {
                let place = &mut out[*feature as usize][usize::from(side < 0.5)];
                *place = *place + mm(by);
            }
        }
    };
    // A frame that is bent in leaves more between its face and whatever is read from it.
    bent(spread::BENT_FRAME, &[Feature::Hub, Feature::Sidewall]);
    bent(spread::BENT_HUB, &[Feature::Hub]);
    out
}

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

/// Anything between two figures, in millimetres.
pub(crate) fn between(draws: &mut Draws, low: f64, high: f64) -> f64 {
    (low + high) / 2.0 + draws.graduation(mm(high - low)).to_mm()
}

/// A thread of those there are in a unit system.
fn thread_drawn(draws: &mut Draws, unit: Unit) -> SleeveThread {
    loop {
        let index = between(draws, 0.0, THREADS.len() as f64).floor().clamp(0.0, 5.0) as usize;
        if THREADS[index].inches == (unit == Unit::Inches) {
            return THREADS[index];
        }
    }
}

impl PracticeVehicle {
    /// A vehicle like many, drawn from a seed: front or rear, either unit, off to one side by up to 22 mm.
    #[must_use]
    pub fn drawn(seed: u64) -> Self {
        let mut draws = Draws::new(seed);
        let coin = |draws: &mut Draws| draws.graduation(mm(2.0)) > Length::ZERO;
        let (unit, rear) =
            (if coin(&mut draws) { Unit::Inches } else { Unit::Millimetres }, coin(&mut draws));
        let side = if coin(&mut draws) { Side::Left } else { Side::Right };
        let s = side.sign();
        let axle_height = between(&mut draws, 380.0, 440.0);
        let reach = between(&mut draws, 690.0, 960.0);
        let rise = between(&mut draws, 20.0, 200.0);
        // The frame eye stands on its side, the axle eye near the other one.
        let frame_out = reach * between(&mut draws, 0.44, 0.54);
        let low = axle_height + between(&mut draws, 60.0, 140.0);
        let ahead = between(&mut draws, -40.0, 140.0) * if rear { -1.0 } else { 1.0 };
        let frame_eye =
            BodyPoint::from_mm(ahead + between(&mut draws, -15.0, 15.0), s * frame_out, low + rise);
        let axle_eye = AxlePoint::from_mm(ahead, s * (frame_out - reach), low);
        let ground_truth = GroundTruth {
            frame_eye_side: side,
            axle_height: mm(axle_height),
            frame_eye,
            axle_eye,
            arms: arms(&mut draws, axle_height, rear),
            bar: Length::ZERO,
            bar_radius: mm(between(&mut draws, 14.0, 19.0)),
            out: out_of_place(&mut draws),
            span: mm(between(&mut draws, 120.0, 220.0)),
            hold: draws.normal(spread::HOLD),
            play: mm(between(&mut draws, 0.0, spread::PLAY)),
            leaning: draws.normal(spread::LEANING),
            droop: mm(between(&mut draws, 90.0, 130.0)),
            bump: mm(between(&mut draws, 70.0, 110.0)),
            obstacle: None,
        };
        let thread = thread_drawn(&mut draws, unit);
        let mut vehicle = Self {
            ground_truth,
            unit,
            rear,
            stance: Stance::OnItsWeight,
            unsettled: false,
            leant_on: false,
            thread,
            engagement: [mm(between(&mut draws, 52.0, 64.0)); 2],
            depth: mm(82.0),
            raised: Length::ZERO,
            link: None,
            gives: Length::ZERO,
            lies: Length::ZERO,
            draws,
        };
        let off = between(&mut vehicle.draws, -22.0, 22.0);
        vehicle.ground_truth.bar = vehicle.length_for(mm(off));
        vehicle.ground_truth.obstacle = Some(vehicle.obstacle_drawn());
        vehicle.bounce();
        vehicle
    }

    /// The length with which the axle truly sits so far to the left, by halving.
    pub(crate) fn length_for(&self, offset: Length) -> Length {
        let centring = self.ground_truth.centring_length();
        let with = |bar: Length| GroundTruth { bar, ..self.ground_truth.clone() }.offset();
        // A longer bar pushes the axle away from the frame eye.
        let s = self.ground_truth.frame_eye_side.sign();
        let (mut low, mut high) = (centring - mm(60.0), centring + mm(60.0));
        for _ in 0..50 {
            let middle = (low + high) / 2.0;
            match with(middle) {
                Some(found) if (found - offset) * s > Length::ZERO => low = middle,
                Some(_) => high = middle,
                None => return centring,
            }
        }
        (low + high) / 2.0
    }

    /// Something above the bar that it misses or touches in bump.
    fn obstacle_drawn(&mut self) -> TrueObstacle {
        let share = between(&mut self.draws, 0.2, 0.8);
        let (frame, axle) = (self.ground_truth.frame_eye.vector(), self.ground_truth.axle_eye.vector());
        let on_bar = frame.lerp(axle, share);
        let radius = between(&mut self.draws, 12.0, 30.0);
        // What the bar rises there in full bump, and what is left then.
        let rises = self.ground_truth.bump.to_mm() * share;
        let left = between(&mut self.draws, -25.0, 45.0);
        let height = on_bar.z + rises + left + radius + self.ground_truth.bar_radius.to_mm();
        let end = |x: f64| BodyPoint::from_mm(on_bar.x + x, on_bar.y, height);
        TrueObstacle { ends: [end(-60.0), end(60.0)], radius: mm(radius) }
    }

    /// How much longer the wheelbase is on the left than on the right, 1400 mm apart on the axle, at ride height.
    pub(crate) fn wheelbase_difference(&self) -> Length {
        let sign = if self.rear { 1.0 } else { -1.0 };
        let place = self.ground_truth.place(Length::ZERO);
        let along = place.map_or(Length::ZERO, |place| place.left_ahead(&self.ground_truth));
        along * -sign
    }

    /// How far the axle truly sits to the left, at rest at ride height.
    #[must_use]
    pub fn true_offset(&self) -> Length {
        self.ground_truth.offset().unwrap_or(Length::ZERO)
    }

    /// Plus where its frame eye is on the left: a longer bar then pushes the axle to the right.
    pub(crate) fn ground_truth_side(&self) -> f64 {
        self.ground_truth.frame_eye_side.sign()
    }

    /// Whether the bar truly touches what is beside it; None without anything.
    #[must_use]
    pub fn truly_touches(&self) -> Option<bool> {
        self.ground_truth.touches()
    }

    /// Where the axle lies this moment, to the left.
    fn momentary(&self) -> Length {
        let travel = if self.stance == Stance::Hanging { -self.ground_truth.droop } else { -self.raised };
        let place = self.ground_truth.place(travel).map_or(Length::ZERO, |place| place.sideways);
        let held = if self.unsettled { self.ground_truth.hold } else { Length::ZERO };
        let pushed = if self.leant_on { self.ground_truth.leaning } else { Length::ZERO };
        place + held + pushed + self.lies
    }

    /// Bounced until it settles: bushings let go, and the axle lies anywhere within the bolts' play.
    pub fn bounce(&mut self) {
        self.unsettled = false;
        self.lies = self.draws.graduation(self.ground_truth.play * 2.0);
        if self.gives > Length::ZERO {
            self.lies = self.lies + self.draws.normal(self.gives);
        }
    }

    /// Lifted, or let down again: bushings hold it until it is bounced.
    pub fn stand(&mut self, stance: Stance) {
        if self.stance != stance {
            self.stance = stance;
            self.unsettled = stance == Stance::OnItsWeight;
        }
    }

    /// The sleeve turned by sixths of a turn, + longer; false where an end bottoms or comes out, and nothing is turned.
    pub fn turn_flats(&mut self, flats: i32) -> bool {
        let along = self.thread.lead() * (f64::from(flats) / 6.0);
        let after = self.engagement.map(|engaged| engaged - along);
        if after.iter().any(|engaged| *engaged > self.depth || *engaged < Length::ZERO) {
            return false;
        }
        self.engagement = after;
        self.turn(along * 2.0);
        true
    }

    /// Both ends evened: as much thread in at the one as at the other, the bar as long as before.
    pub fn even_ends(&mut self) {
        let [first, second] = self.engagement;
        self.engagement = [(first + second) / 2.0; 2];
    }

    /// Least thread that holds: as deep as the thread is thick (usual for steel in steel).
    #[must_use]
    pub fn least_thread(&self) -> Length {
        Thread::parse(self.thread.name).map_or(Length::ZERO, |thread| thread.diameter())
    }

    /// A worn bolt hole, made good.
    pub fn mend_hole(&mut self) {
        self.ground_truth.play = mm(0.2);
        self.bounce();
    }

    /// The sleeve turned: the bar so much longer, and the axle where its bushings hold it.
    pub fn turn(&mut self, longer: Length) {
        self.ground_truth.bar = self.ground_truth.bar + longer;
        self.unsettled = true;
    }

    /// A reading from a feature on one side: what the tape shows, to its graduation.
    pub fn read(&mut self, feature: Feature, side: Side, noise: Length) -> Length {
        let place = usize::from(side == Side::Right);
        let out = self.ground_truth.out[feature as usize][place];
        let (share, times) = spread::SLIPPED;
        let noise = if self.chance() < share { noise * times } else { noise };
        let shown = self.ground_truth.span + self.momentary() * side.sign() + out + self.draws.normal(noise);
        self.graduated(shown)
    }

    /// A length off the tape: to a sixteenth or a millimetre.
    pub(crate) fn graduated(&self, length: Length) -> Length {
        match self.unit {
            Unit::Inches => Length::from_inches((length.to_inches() * 16.0).round() / 16.0),
            Unit::Millimetres => mm(length.to_mm().round()),
        }
    }

    /// The bar's length by the tape.
    pub fn read_bar(&mut self, noise: Length) -> Length {
        let shown = self.ground_truth.bar + self.draws.normal(noise);
        self.graduated(shown)
    }

    /// Heights of the frame eye and the axle eye above the floor by the tape.
    pub fn read_eyes(&mut self, noise: Length) -> [Length; 2] {
        let axle =
            self.ground_truth.place(Length::ZERO).map_or(Length::ZERO, |place| place.eye(&self.ground_truth));
        let heights = [mm(self.ground_truth.frame_eye.vector().z), axle];
        heights.map(|height| {
            let shown = height + self.draws.normal(noise);
            self.graduated(shown)
        })
    }

    /// Any other length by the tape.
    pub fn taped(&mut self, length: Length, noise: Length) -> Length {
        let shown = length + self.draws.normal(noise);
        self.graduated(shown)
    }

    /// A number between nought and one, for what hands do or leave out.
    pub fn chance(&mut self) -> f64 {
        between(&mut self.draws, 0.0, 1.0)
    }

    /// A normal error, for what is judged by eye.
    pub fn error(&mut self, deviation: Length) -> Length {
        self.draws.normal(deviation)
    }
}

fn arms(draws: &mut Draws, axle_height: f64, rear: bool) -> [Link; 3] {
    let back = if rear { 1.0 } else { -1.0 };
    let long = between(draws, 760.0, 960.0);
    let lower = |draws: &mut Draws, side: f64| {
        let sideways = between(draws, 360.0, 400.0);
        link(
            [back * long, side * sideways, axle_height + between(draws, 20.0, 90.0)],
            [0.0, side * (sideways + between(draws, 20.0, 60.0)), axle_height - between(draws, 40.0, 80.0)],
        )
    };
    let upper = link(
        [back * long * 0.85, 300.0, axle_height + between(draws, 180.0, 230.0)],
        [0.0, 260.0, axle_height + between(draws, 150.0, 190.0)],
    );
    [lower(draws, 1.0), lower(draws, -1.0), upper]
}

fn link(body: [f64; 3], axle: [f64; 3]) -> Link {
    let [body, axle] = [
        BodyPoint::from_mm(body[0], body[1], body[2]).vector(),
        BodyPoint::from_mm(axle[0], axle[1], axle[2]).vector(),
    ];
    Link {
        body: BodyPoint::at(body),
        axle: AxlePoint::at(axle),
        made: mm(body.distance(axle)),
        stiffness: None,
    }
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;
    use derecho_core::measure::TapeEntry;
    use proptest::prelude::*;

    /// A plain vehicle: level lower arms straight back, the bar across.
    fn plain(rise: f64, reach: f64) -> PracticeVehicle {
        let mut vehicle = PracticeVehicle::drawn(1);
        let arm = |y: f64, z: f64, back: f64| link([-back, y, 400.0 + z], [0.0, y, 400.0 + z]);
        vehicle.ground_truth = GroundTruth {
            frame_eye_side: Side::Left,
            axle_height: mm(400.0),
            frame_eye: BodyPoint::from_mm(60.0, 420.0, 480.0 + rise),
            axle_eye: AxlePoint::from_mm(60.0, 420.0 - reach, 480.0),
            arms: [arm(400.0, -60.0, 2000.0), arm(-400.0, -60.0, 2000.0), arm(260.0, 160.0, 2000.0)],
            out: [[Length::ZERO; 2]; 3],
            hold: Length::ZERO,
            play: Length::ZERO,
            leaning: Length::ZERO,
            obstacle: None,
            ..vehicle.ground_truth
        };
        vehicle.ground_truth.bar = vehicle.ground_truth.centring_length();
        vehicle.lies = Length::ZERO;
        vehicle
    }

    proptest! {
        /// The pose solver against the triangle in front view: y = h − √(L′² − v²), towards the right for a longer bar
        /// with its frame eye on the left.
        #[test]
        fn a_plain_vehicle_goes_as_the_triangle_has_it(
            rise in 5.0_f64..180.0, reach in 700.0_f64..950.0, longer in -20.0_f64..20.0,
        ) {
            let mut vehicle = plain(rise, reach);
            prop_assert!(vehicle.true_offset().to_mm().abs() < 1e-6);
            vehicle.turn(mm(longer));
            let length = (rise * rise + reach * reach).sqrt() + longer;
            let by_hand = reach - (length * length - rise * rise).sqrt();
            prop_assert!((vehicle.true_offset().to_mm() - by_hand).abs() < 0.05,
                "{} {by_hand}", vehicle.true_offset().to_mm());
        }

        /// Readings without noise, features in their places: Derecho finds where the axle is, and the length that
        /// brings it to the middle.
        #[test]
        fn readings_without_noise_give_the_exact_answer_back(
            rise in 5.0_f64..180.0, reach in 700.0_f64..950.0, off in -20.0_f64..20.0,
        ) {
            let mut vehicle = plain(rise, reach);
            vehicle.ground_truth.bar = vehicle.length_for(mm(off));
            prop_assert!((vehicle.true_offset().to_mm() - off).abs() < 1e-6);
            let mut job = crate::technician::Technician::Careful.rig(&mut vehicle);
            let exact = |length: Length| {
                Some(TapeEntry::parse(&format!("{:.4} mm", length.to_mm()), Unit::Millimetres).unwrap())
            };
            let bar = &mut job.setups.found.bar;
            let eye = vehicle.ground_truth.place(Length::ZERO).unwrap().eye(&vehicle.ground_truth);
            bar.length = exact(vehicle.ground_truth.bar);
            bar.frame_eye_height = exact(mm(480.0 + rise));
            bar.axle_eye_height = exact(eye);
            bar.frame_eye_from_centre = None;
            let side = |side: Side| vec![exact(vehicle.ground_truth.span + vehicle.momentary() * side.sign())];
            job.sheets.push(derecho_job::document::Sheet {
                id: "exact".to_owned(), left: side(Side::Left), right: side(Side::Right), ..Default::default()
            });
            let results = derecho_job::results::solve(&job, derecho_job::results::never_settled);
            let read = results.sheets[0].centring.as_ref().unwrap();
            prop_assert!((read.offset_mm.to_mm() - off).abs() < 1e-3);
            if let Some(correction) = results.bar.unwrap().correction {
                let wanted = correction.recentring.length_mm.to_mm();
                let truly = vehicle.ground_truth.centring_length().to_mm();
                prop_assert!((wanted - truly).abs() < 0.05, "{wanted} {truly}");
            }
        }
    }

    #[test]
    fn bushings_hold_it_until_it_is_bounced() {
        let mut vehicle = PracticeVehicle::drawn(5);
        let truly = vehicle.true_offset();
        vehicle.stand(Stance::Hanging);
        vehicle.stand(Stance::OnItsWeight);
        assert!((vehicle.momentary() - truly).abs() > vehicle.ground_truth.hold.abs() * 0.8);
        vehicle.bounce();
        assert!((vehicle.momentary() - truly).abs() <= vehicle.ground_truth.play);
        assert_eq!(vehicle.true_offset(), truly, "where it belongs has not changed");
    }

    #[test]
    fn the_same_seed_is_the_same_vehicle_and_the_same_readings() {
        let read = |seed| {
            let mut vehicle = PracticeVehicle::drawn(seed);
            [0; 4].map(|_| vehicle.read(Feature::Sidewall, Side::Right, mm(1.0)))
        };
        assert_eq!(read(11), read(11));
        assert_ne!(read(11), read(12));
    }

    /// Half the differences of a feature have heavier tails than a bell curve, whose share beyond three deviations is
    /// 0.27 in 100 and whose fourth moment is three times the square of its second; and what they are good to is not what
    /// the advice takes, by a twentieth at least.
    #[test]
    fn features_lie_otherwise_than_the_advice_takes_them_to() {
        let taken = [0.8, 1.5, 3.0];
        let vehicles: Vec<PracticeVehicle> = (0..6000).map(PracticeVehicle::drawn).collect();
        for (feature, taken) in Feature::ALL.into_iter().zip(taken) {
            let halves: Vec<f64> = vehicles
                .iter()
                .map(|vehicle| {
                    let [left, right] = vehicle.ground_truth.out[feature as usize];
                    (left - right).to_mm() / 2.0
                })
                .collect();
            let moment =
                |power| halves.iter().map(|half| half.powi(power)).sum::<f64>() / halves.len() as f64;
            let deviation = moment(2).sqrt();
            assert!((deviation / taken - 1.0).abs() > 0.03, "{feature:?}: {deviation} against {taken}");
            assert!((0.7..1.3).contains(&(deviation / taken)), "{feature:?}: {deviation} against {taken}");
            assert!(moment(4) / moment(2).powi(2) > 3.4, "{feature:?}: {}", moment(4) / moment(2).powi(2));
            let far = halves.iter().filter(|half| half.abs() > 3.0 * deviation).count();
            assert!(far as f64 / halves.len() as f64 > 0.005, "{feature:?}: {far}");
        }
    }

    #[test]
    fn a_bar_touches_what_lies_in_its_way_and_nothing_else() {
        let mut vehicle = plain(60.0, 800.0);
        let above = |left: f64| {
            let place =
                vehicle.ground_truth.frame_eye.vector().lerp(vehicle.ground_truth.axle_eye.vector(), 0.5);
            // In bump the middle of the bar rises by half the travel.
            let height = place.z
                + vehicle.ground_truth.bump.to_mm() / 2.0
                + 20.0
                + vehicle.ground_truth.bar_radius.to_mm()
                + left;
            let end = |x: f64| BodyPoint::from_mm(place.x + x, place.y, height);
            TrueObstacle { ends: [end(-50.0), end(50.0)], radius: mm(20.0) }
        };
        let (clear, touching) = (above(15.0), above(-15.0));
        assert_eq!(vehicle.truly_touches(), None);
        vehicle.ground_truth.obstacle = Some(clear);
        assert_eq!(vehicle.truly_touches(), Some(false));
        vehicle.ground_truth.obstacle = Some(touching);
        assert_eq!(vehicle.truly_touches(), Some(true));
    }
}
