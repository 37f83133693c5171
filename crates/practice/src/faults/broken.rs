//! A vehicle with something wrong, and the job that hands make of it: worked on, measured before and after.

use derecho_core::measure::{Length, TapeEntry, Unit, WeightEntry};
use derecho_core::parts::{BracketEnd, HoleId};
use derecho_core::pose::point::AxlePoint;
use derecho_job::Job;
use derecho_job::document::diagnosis::Suspect;
use derecho_job::document::{
    Complaint, ComplaintAbout, FittedMove, HoleChoice, Round, RoundId, Sheet, SheetKind,
};
use derecho_job::setups::Resolved;

use super::fault::Fault;
use super::seen;
use crate::ground_truth::Feature;
use crate::technician::{Technician, typed};
use crate::vehicle::{PracticeVehicle, Stance};

/// Millimetres up of the holes of the riser that goes on: by the plan the eye goes to the middle one.
const HOLES: [f64; 3] = [40.0, 62.0, 84.0];
const PLANNED: usize = 1;

/// What is not of the suspension: how the corners stand, how square the frame is, what the links are.
#[derive(Clone, Copy, Debug, Default)]
struct Beside {
    /// Right corner higher than the left, mm.
    lean: f64,
    /// Wheelbase left less right, mm, the axle's own yaw aside.
    square: f64,
    /// Left sway link less right, mm.
    links: f64,
    /// Left corner's weight less the right one's, hundredths.
    weights: f64,
}

/// A vehicle that was worked on.
pub(super) struct Broken {
    pub(super) vehicle: PracticeVehicle,
    pub(super) faults: Vec<Fault>,
    /// Whether the axle eye was moved to a riser in the work.
    pub(super) raised: bool,
    beside: Beside,
    hands: Technician,
}

impl Broken {
    /// Whether a fault can be in that work.
    pub(super) fn can_have(suspect: Suspect, raised: bool, rear: bool) -> bool {
        match suspect {
            // Only the axle eye is moved here.
            Suspect::FrameBracketSideways | Suspect::FrameBracketHeight => false,
            Suspect::AxleBracketSideways | Suspect::AxleBracketHeight | Suspect::OtherHole => raised,
            Suspect::WheelsTurned | Suspect::DragLinkNotParallel => !rear,
            _ => true,
        }
    }

    pub(super) fn new(
        mut vehicle: PracticeVehicle,
        faults: Vec<Fault>,
        raised: bool,
        hands: Technician,
    ) -> Self {
        let normal =
            |vehicle: &mut PracticeVehicle, deviation: f64| vehicle.error(Length::from_mm(deviation)).to_mm();
        let beside = Beside {
            lean: normal(&mut vehicle, 3.0),
            square: normal(&mut vehicle, 1.8),
            links: normal(&mut vehicle, 0.7),
            weights: normal(&mut vehicle, 1.6),
        };
        let mut broken = Self { vehicle, faults, raised, beside, hands };
        broken.plant_what_was_there();
        broken
    }

    /// What was wrong before the work.
    fn plant_what_was_there(&mut self) {
        for fault in self.faults.clone() {
            let size = Length::from_mm(fault.size);
            let truth = &mut self.vehicle.ground_truth;
            match fault.suspect {
                Suspect::BoltLoose => truth.play = size / 2.0,
                Suspect::BushingTorn | Suspect::BracketTearing => self.vehicle.gives = size / 2.0,
                Suspect::ReferenceCrooked => {
                    let feature = fault.at.unwrap_or(Feature::Body) as usize;
                    truth.out[feature][0] = truth.out[feature][0] + size;
                    truth.out[feature][1] = truth.out[feature][1] - size;
                }
                Suspect::SlopingFloor => {
                    // A plumb line of half a metre on a floor of so many hundredths of a degree.
                    let by = Length::from_mm(500.0 * fault.size.to_radians().tan());
                    truth.out[Feature::Body as usize][0] = truth.out[Feature::Body as usize][0] + by;
                    truth.out[Feature::Body as usize][1] = truth.out[Feature::Body as usize][1] - by;
                }
                Suspect::TiresUnlike => {
                    self.beside.lean += fault.size;
                    for feature in [Feature::Sidewall, Feature::Body] {
                        let out = &mut truth.out[feature as usize][0];
                        *out = *out + size * 0.2;
                    }
                }
                Suspect::SpringsUnlike => self.beside.lean += fault.size,
                Suspect::LoadToOneSide => {
                    self.beside.lean += fault.size;
                    self.beside.weights += fault.size * 0.4;
                }
                // The solver turns the axle for it: half of what one side is longer, over the spread of the arms.
                Suspect::ArmsUnlike => truth.arms[0].made = truth.arms[0].made + size,
                Suspect::FrameOutOfSquare => self.beside.square += fault.size,
                Suspect::SwayLinksUnlike => self.beside.links += fault.size,
                _ => {}
            }
        }
    }

    /// The job as it stands when somebody asks why: measured, worked on, measured again.
    pub(super) fn job(&mut self) -> Option<Job> {
        let hands = self.hands;
        let mut job = hands.rig(&mut self.vehicle);
        let feature = hands.chooses(&mut self.vehicle);
        let before = self.sheet(feature, "as-found", RoundId::default(), false);
        job.sheets.push(before);
        self.work(&mut job)?;
        let after = self.sheet(feature, "after-1", job.setups.last_round(), true);
        job.sheets.push(after);
        if self.vehicle.chance() < 0.45 {
            let other = Feature::ALL[(feature as usize + 1 + usize::from(self.vehicle.chance() < 0.5)) % 3];
            let again = self.sheet(other, "after-2", job.setups.last_round(), false);
            job.sheets.push(again);
        }
        self.beside_in(&mut job);
        self.complain(&mut job);
        Some(job)
    }

    /// The bar set, and in some the axle eye moved, as the job itself says.
    fn work(&mut self, job: &mut Job) -> Option<()> {
        let unit = self.vehicle.unit;
        let resolved = Resolved::of(job);
        let setups = resolved.setups()?;
        let offset = setups.basis.offset_mm;
        let up = if self.raised { Length::from_mm(HOLES[PLANNED]) } else { Length::ZERO };
        let view = setups.base.view;
        let (wanted, _) = view.recentred_moved(offset, -up, Length::ZERO, Length::ZERO).ok()?;
        let from = view.length();
        let set = typed(wanted.length_mm, unit);
        let mut round = Round {
            length: Some(set.clone()),
            wanted_mm: Some(wanted.length_mm.to_mm()),
            ..Round::default()
        };
        let stood = self.vehicle.true_offset();
        if self.raised {
            job.setups.found.axle_holes = holes(unit);
            round.moved = vec![FittedMove {
                end: BracketEnd::Axle,
                by_mm: [0.0, 0.0, up.to_mm()],
                to: HoleChoice {
                    hole: HoleId::new(format!("hole-{}", PLANNED + 1)),
                    ..HoleChoice::default()
                },
                off: Default::default(),
            }];
            self.raise(up);
        }
        let turned = self.vehicle.error(Length::from_mm(0.4));
        self.vehicle.turn(set.length() - from + turned);
        let went = self.vehicle.true_offset();
        self.plant_in_the_work(went, went - stood);
        job.setups.record(round);
        Some(())
    }

    /// The eye on its riser, with what is wrong of it.
    fn raise(&mut self, up: Length) {
        let (mut left, mut higher) = (0.0, up.to_mm());
        for fault in &self.faults {
            match fault.suspect {
                Suspect::AxleBracketSideways => left += fault.size,
                Suspect::AxleBracketHeight => higher += fault.size,
                Suspect::OtherHole => {
                    let hole = if fault.size > 0.0 { PLANNED + 1 } else { PLANNED - 1 };
                    higher += HOLES[hole] - HOLES[PLANNED];
                }
                _ => {}
            }
        }
        let truth = &mut self.vehicle.ground_truth;
        let [x, y, z] = truth.axle_eye.to_mm();
        truth.axle_eye = AxlePoint::from_mm(x, y + left, z + higher);
    }

    /// What was done wrong in it: the axle should have gone `by`, and went `to`.
    fn plant_in_the_work(&mut self, to: Length, by: Length) {
        for fault in self.faults.clone() {
            let size = Length::from_mm(fault.size);
            match fault.suspect {
                Suspect::FullDifference => self.vehicle.ground_truth.bar = self.vehicle.length_for(to + by),
                Suspect::SignTurned => self.vehicle.ground_truth.bar = self.vehicle.length_for(to - by * 2.0),
                Suspect::LengthOff => self.vehicle.turn(size),
                Suspect::BarBent => self.vehicle.turn(-size.abs()),
                _ => {}
            }
        }
        self.vehicle.bounce();
    }

    /// A set of measurements; what is wrong with the measuring is in the newest.
    fn sheet(&mut self, feature: Feature, id: &str, after: RoundId, newest: bool) -> Sheet {
        let hands = self.hands;
        let stood = (self.vehicle.ground_truth.clone(), self.vehicle.stance, self.vehicle.raised);
        if newest {
            self.plant_in_the_measuring();
        } else {
            self.vehicle.bounce();
        }
        let bounced = !(newest && self.vehicle.unsettled);
        let mut sheet = hands.sheet_where(&mut self.vehicle, feature, (id.to_owned(), after), bounced);
        // Nobody writes down that it hung.
        sheet.conditions.on_its_weight = Some(true);
        let height = self.vehicle.raised
            + if self.vehicle.stance == Stance::Hanging {
                self.vehicle.ground_truth.droop
            } else {
                Length::ZERO
            };
        if self.vehicle.chance() < 0.6 {
            let over = |vehicle: &mut PracticeVehicle, more: f64| {
                let stands = Length::from_mm(300.0 + more) + height;
                Some(typed(vehicle.taped(stands, Length::from_mm(1.2)), vehicle.unit))
            };
            sheet.frame_above_hub_left = over(&mut self.vehicle, 0.0);
            sheet.frame_above_hub_right = over(&mut self.vehicle, self.beside.lean);
        }
        // As it stands once nobody measures it wrongly.
        let vehicle = &mut self.vehicle;
        (vehicle.ground_truth, vehicle.stance, vehicle.raised) = stood;
        (vehicle.leant_on, vehicle.unsettled) = (false, false);
        sheet
    }

    fn plant_in_the_measuring(&mut self) {
        for fault in self.faults.clone() {
            let size = Length::from_mm(fault.size);
            match fault.suspect {
                Suspect::MeasuredHanging => self.vehicle.stance = Stance::Hanging,
                Suspect::AnotherHeight => self.vehicle.raised = size,
                Suspect::NotBounced | Suspect::LeanedOn => {
                    self.vehicle.ground_truth.hold = size;
                    self.vehicle.unsettled = true;
                }
                Suspect::WheelsTurned => {
                    for feature in [Feature::Sidewall, Feature::Body] {
                        let out = &mut self.vehicle.ground_truth.out[feature as usize];
                        *out = [out[0] + size, out[1] - size];
                    }
                }
                _ => {}
            }
        }
    }

    /// How square it is, its links, its corners: where somebody measured them.
    fn beside_in(&mut self, job: &mut Job) {
        let (unit, beside) = (self.vehicle.unit, self.beside);
        let taped = |vehicle: &mut PracticeVehicle, mm: f64| {
            Some(typed(vehicle.taped(Length::from_mm(mm), Length::from_mm(1.0)), unit))
        };
        if self.vehicle.chance() < 0.5 {
            let yaw = self.vehicle.wheelbase_difference().to_mm();
            let side = |vehicle: &mut PracticeVehicle, mm: f64| (0..3).map(|_| taped(vehicle, mm)).collect();
            let half = (yaw + beside.square) / 2.0;
            let left = side(&mut self.vehicle, 2600.0 + half);
            let right = side(&mut self.vehicle, 2600.0 - half);
            job.sheets.push(Sheet {
                id: "square".to_owned(),
                kind: SheetKind::Squareness,
                after: job.setups.last_round(),
                unit,
                left,
                right,
                between_points: TapeEntry::parse("1400 mm", Unit::Millimetres).ok(),
                ..Sheet::default()
            });
        }
        if self.vehicle.chance() < 0.3 {
            job.proof.looked_at.left_link = taped(&mut self.vehicle, 260.0 + beside.links);
            job.proof.looked_at.right_link = taped(&mut self.vehicle, 260.0);
        }
        if self.vehicle.chance() < 0.2 {
            let corner =
                |share: f64| WeightEntry::parse(&format!("{:.0} kg", 500.0 * (1.0 + share / 100.0))).ok();
            job.vehicle.left_corner = corner(beside.weights);
            job.vehicle.right_corner = corner(-beside.weights);
        }
    }

    fn complain(&mut self, job: &mut Job) {
        let off = self.vehicle.true_offset().to_mm();
        for about in ComplaintAbout::ALL {
            if self.vehicle.chance() < seen::complains(&self.faults, off, about) {
                job.complaints.push(Complaint {
                    text: format!("{about:?}"),
                    about: Some(about),
                    after: None,
                });
            }
        }
    }

    /// The size of a fault as the job would say it: of arms, what the wheelbases differ by.
    pub(super) fn true_size(&self, suspect: Suspect) -> Option<f64> {
        let fault = self.faults.iter().find(|fault| fault.suspect == suspect)?;
        Some(match suspect {
            Suspect::ArmsUnlike => self.vehicle.wheelbase_difference().to_mm() + self.beside.square,
            Suspect::FrameOutOfSquare => self.beside.square,
            Suspect::SwayLinksUnlike => self.beside.links,
            Suspect::SpringsUnlike | Suspect::LoadToOneSide => self.beside.lean,
            Suspect::MeasuredHanging => self.vehicle.ground_truth.droop.to_mm(),
            Suspect::BarBent => -fault.size.abs(),
            _ => fault.size,
        })
    }
}

fn holes(unit: Unit) -> Vec<derecho_job::document::Hole> {
    HOLES
        .iter()
        .enumerate()
        .map(|(at, up)| derecho_job::document::Hole {
            id: HoleId::new(format!("hole-{}", at + 1)),
            name: format!("hole {}", at + 1),
            up: typed(Length::from_mm(*up), unit),
            outward: None,
            forward: None,
        })
        .collect()
}

/// How large a fault is, drawn for a vehicle: mm; a floor's in degrees.
pub(super) fn drawn_size(vehicle: &mut PracticeVehicle, suspect: Suspect) -> f64 {
    let mut either = |low: f64, high: f64| {
        let size = low + (high - low) * vehicle.chance();
        if vehicle.chance() < 0.5 { size } else { -size }
    };
    match suspect {
        Suspect::NotBounced => either(1.5, 8.0),
        Suspect::LeanedOn => either(1.5, 6.0),
        Suspect::AnotherHeight => either(20.0, 80.0),
        Suspect::TiresUnlike => either(5.0, 22.0),
        Suspect::WheelsTurned => either(2.0, 9.0),
        Suspect::SlopingFloor => either(0.3, 1.2),
        Suspect::ReferenceCrooked => either(4.0, 15.0),
        Suspect::AxleBracketSideways => either(4.0, 28.0),
        Suspect::AxleBracketHeight => either(6.0, 35.0),
        Suspect::LengthOff => either(2.0, 12.0),
        Suspect::BarBent => either(2.0, 12.0).abs(),
        Suspect::BoltLoose => either(1.2, 4.5).abs(),
        Suspect::BushingTorn => either(2.0, 6.0).abs(),
        Suspect::BracketTearing => either(2.5, 8.0).abs(),
        Suspect::ArmsUnlike => either(4.0, 14.0),
        Suspect::FrameOutOfSquare => either(5.0, 20.0),
        Suspect::SwayLinksUnlike => either(5.0, 25.0),
        Suspect::SpringsUnlike | Suspect::LoadToOneSide => either(8.0, 32.0),
        _ => either(1.0, 1.0),
    }
}

/// Which feature is out of its place: a flare or a body far oftener than the frame.
pub(super) fn drawn_feature(vehicle: &mut PracticeVehicle) -> Feature {
    match vehicle.chance() {
        chance if chance < 0.55 => Feature::Body,
        chance if chance < 0.85 => Feature::Sidewall,
        _ => Feature::Hub,
    }
}
